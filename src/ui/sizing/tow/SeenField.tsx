'use client';
/** Volts at a position in one state of the vehicle, without and with a load: taken over when the row is left. */
import { useState } from 'react';
import type { PinCondition } from '../../../core/parts/pinUses';
import type { PinSeen } from '../../../core/rig/tow';
import { readFigure } from '../../../core/units/typedFigure';

const number = (text: string, unit: 'V' | 'A'): number | undefined => {
  const read = readFigure(text, unit);
  return read.is === 'figure' ? read.value : undefined;
};

export function SeenField({
  label,
  when,
  seen,
  see,
}: {
  label: string;
  when: PinCondition;
  seen: PinSeen | undefined;
  see(seen: PinSeen | undefined): void;
}) {
  const [typed, setTyped] = useState<{ open: string; loaded: string; amps: string }>();
  const text = typed ?? {
    open: seen ? String(seen.open) : '',
    loaded: seen?.loaded !== undefined ? String(seen.loaded) : '',
    amps: seen?.amps !== undefined ? String(seen.amps) : '',
  };
  const [open, loaded, amps] = [number(text.open, 'V'), number(text.loaded, 'V'), number(text.amps, 'A')];
  const wrong =
    (text.open.trim() !== '' && (open === undefined || Math.abs(open) > 60)) ||
    (text.loaded.trim() !== '' && (loaded === undefined || Math.abs(loaded) > 60)) ||
    (text.amps.trim() !== '' && (amps === undefined || amps <= 0 || amps > 100))
      ? 'a number: volts up to 60, amps above 0'
      : (loaded === undefined) !== (amps === undefined)
        ? 'loaded volts and the amps of that load together'
        : open === undefined && loaded !== undefined
          ? 'the unloaded volts too'
          : undefined;
  const leave = () => {
    if (!typed || wrong) return;
    setTyped(undefined);
    const next =
      open === undefined
        ? undefined
        : { when, open, ...(loaded !== undefined && amps !== undefined ? { loaded, amps } : {}) };
    if (JSON.stringify(next) !== JSON.stringify(seen)) see(next);
  };
  const field = (key: 'open' | 'loaded' | 'amps', unit: string, name: string) => (
    <span role="cell" className="relative">
      <input
        className="input border-ink font-cond font-semibold tabular-nums aria-invalid:border-fail"
        inputMode="decimal"
        aria-label={`${label}, ${name}`}
        aria-invalid={wrong !== undefined}
        value={text[key]}
        onChange={(e) => setTyped({ ...text, [key]: e.target.value })}
        onKeyDown={(e) => e.key === 'Enter' && leave()}
      />
      <b className="absolute right-1.5 top-3 font-medium text-fine text-ink-2">{unit}</b>
    </span>
  );
  return (
    <div
      className="grid items-center gap-1 text-note"
      role="row"
      onBlur={(e) => !e.currentTarget.contains(e.relatedTarget) && leave()}
    >
      <span role="rowheader">{label}</span>
      {field('open', 'V', 'unloaded volts')}
      {field('loaded', 'V', 'loaded volts')}
      {field('amps', 'A', 'amps of the load')}
      {typed && wrong && (
        <em role="alert" className="twwrong col-span-full text-fail not-italic">
          Wanted: {wrong}.
        </em>
      )}
    </div>
  );
}
