'use client';
/** Form pieces for a thumb: one of a few as buttons, a number with its unit. */
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
    <fieldset className="choose">
      {label && <legend>{label}</legend>}
      <div>
        {choices.map((c) => (
          <label key={String(c.id)} className={c.id === value ? 'on' : ''}>
            <input type="radio" name={name} checked={c.id === value} onChange={() => onChange(c.id)} />
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
    <label className={label ? 'numfield' : ''}>
      {label && <span>{label}</span>}
      <span className="with-unit">
        <input
          className="input"
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
        {unit && <b>{unit}</b>}
      </span>
      {wrong && (
        <em id={said} role="alert">
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
    <label className="numfield">
      <span>
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
