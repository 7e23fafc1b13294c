'use client';
/** Form pieces for a thumb: one of a few as buttons, a number with its unit. */
import { clsx } from 'clsx';
import { useId, useState } from 'react';
import { readFigure } from '../core/units/typedFigure';

interface ChooseProps<T extends string | number | boolean> {
  label: string;
  choices: readonly { id: T; label: string }[];
  value: T;
  onChange(value: T): void;
}

/** One of a few, all in sight. Arrow keys move, as in any radio group. */
export function Choose<T extends string | number | boolean>({ label, choices, value, onChange }: ChooseProps<T>) {
  const name = useId();
  return (
    <fieldset className="choose min-w-0 m-0 p-0 within-twcols:grid within-twcols:gap-2">
      {label && <legend className="mb-1 p-0 font-semibold text-note within-twcols:font-cond">{label}</legend>}
      <div className="flex flex-wrap gap-1.25 max-small:min-w-0">
        {choices.map((c) => (
          <label
            key={String(c.id)}
            className={clsx(
              'relative inline-flex items-center',
              'min-h-11 px-2.75 border border-ink rounded bg-card',
              'font-cond font-semibold text-lead cursor-pointer',
              'is-on:bg-ink is-on:text-paper within-know:min-h-10 within-know:px-2 within-know:text-plain',
              c.id === value ? 'on' : '',
            )}
          >
            <input
              className="absolute w-0.25 h-0.25 opacity-0"
              type="radio"
              name={name}
              checked={c.id === value}
              onChange={() => onChange(c.id)}
            />
            {c.label}
          </label>
        ))}
      </div>
    </fieldset>
  );
}

interface NumberFieldProps {
  label: string;
  unit: string;
  value: number;
  min: number;
  max: number;
  onChange(value: number): void;
  /** Taken over when one leaves the field or presses Enter, not at every digit: each is a change on record. */
  late?: boolean;
}

/** A number is taken over while it is in its limits; what is not stays on the screen with the reason. */
export function NumberField({ label, unit, value, min, max, onChange, late = false }: NumberFieldProps) {
  const [typed, setTyped] = useState<string>();
  const said = useId();
  const text = typed ?? String(Number(value.toPrecision(4)));
  const within = (n: number) => n >= min && n <= max;
  const read = readFigure(text, unit);
  const parsed = read.is === 'figure' ? read.value : NaN;
  const wrong = !within(parsed);
  const leave = () => {
    if (wrong) return;
    if (late && typed !== undefined && parsed !== Number(value.toPrecision(4))) onChange(parsed);
    setTyped(undefined);
  };
  return (
    <label
      className={clsx(
        'is-numfield:grid is-numfield:items-center is-numfield:gap-x-2.5 is-numfield:gap-y-1',
        label ? 'numfield' : '',
      )}
    >
      {label && <span className="first:m-0 first:p-0 first:font-semibold first:text-note">{label}</span>}
      <span className="with-unit flex items-center overflow-hidden border border-ink rounded bg-card">
        <input
          className={clsx(
            'input',
            'flex-1',
            'h-11 min-w-0 border-0 bg-transparent',
            'font-cond font-semibold text-right text-large text-ink tabular-nums',
            'focus:outline-none within-prow:h-10 within-prow:text-large',
          )}
          inputMode="decimal"
          value={text}
          aria-invalid={wrong}
          aria-describedby={wrong ? said : undefined}
          onChange={(e) => {
            setTyped(e.target.value);
            const next = readFigure(e.target.value, unit);
            if (!late && next.is === 'figure' && within(next.value)) onChange(next.value);
          }}
          onBlur={leave}
          onKeyDown={(e) => e.key === 'Enter' && leave()}
        />
        {unit && <b className="pr-2.5 pl-0.5 font-cond text-lead">{unit}</b>}
      </span>
      {wrong && (
        <em
          className={clsx(
            'within-numfield:col-span-full within-numfield:font-semibold within-numfield:text-fail',
            'within-numfield:text-note within-numfield:text-right within-numfield:not-italic',
            'within-prow:col-span-full within-prow:font-semibold within-prow:text-fail within-prow:not-italic',
          )}
          id={said}
          role="alert"
        >
          {read.is === 'wrong' ? read.says : `${min} to ${max} ${unit}`}
        </em>
      )}
    </label>
  );
}

interface OpenFigureProps {
  label: string;
  unit: string;
  value: number | undefined;
  max: number;
  placeholder?: string;
  onKeep(value: number | undefined): void;
}

/** A figure from nought on that may be left open; taken over when one leaves the field: each is a change on record. */
export function OpenFigure({ label, unit, value, max, placeholder, onKeep }: OpenFigureProps) {
  const [typed, setTyped] = useState<string>();
  const said = useId();
  const text = typed ?? (value === undefined ? '' : String(value));
  const read = readFigure(text, unit);
  const wrong = read.is === 'wrong' || (read.is === 'figure' && !(read.value >= 0 && read.value <= max));
  return (
    <label className="numfield grid items-center gap-x-2.5 gap-y-1">
      <span className="first:m-0 first:p-0 first:font-semibold first:text-note">
        {label}
        {unit && `, ${unit}`}
      </span>
      <input
        className="input"
        inputMode="decimal"
        value={text}
        placeholder={placeholder}
        aria-invalid={wrong}
        aria-describedby={wrong ? said : undefined}
        onChange={(e) => setTyped(e.target.value)}
        onBlur={() => {
          if (typed === undefined || wrong) return;
          const next = read.is === 'figure' ? read.value : undefined;
          if (next !== value) onKeep(next);
          setTyped(undefined);
        }}
        onKeyDown={(e) => e.key === 'Enter' && e.currentTarget.blur()}
      />
      {wrong && (
        <em id={said} role="alert">
          {read.is === 'wrong' ? read.says : `0 to ${max} ${unit}`}
        </em>
      )}
    </label>
  );
}
