'use client';
/** Form pieces for a thumb: one of a few as buttons, a number with its unit. */
import { useId, useState } from 'react';

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
  const parsed = Number(text.trim().replace(',', '.'));
  const wrong = text.trim() === '' || !Number.isFinite(parsed) || parsed < min || parsed > max;
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
            const n = Number(e.target.value.trim().replace(',', '.'));
            if (!late && e.target.value.trim() !== '' && Number.isFinite(n) && n >= min && n <= max) onChange(n);
          }}
          onBlur={leave}
          onKeyDown={(e) => e.key === 'Enter' && leave()}
        />
        {unit && <b>{unit}</b>}
      </span>
      {wrong && (
        <em id={said} role="alert">
          {min} to {max} {unit}
        </em>
      )}
    </label>
  );
}
