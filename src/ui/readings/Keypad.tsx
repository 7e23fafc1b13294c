'use client';
/** Keys for a gloved thumb; a keyboard is equally good. What is typed is judged before it is kept. */
import { clsx } from 'clsx';
import { ArrowRight, Delete, Undo2 } from 'lucide-react';
import type { ReactNode } from 'react';
import { judge } from '../../core/probe/judge';
import { parseMeterEntry } from '../../core/units/meterEntry';
import { showBand, showMiss, showText } from '../../core/units/format';
import { Sign } from '../strip/glyphs';
import { useJobFile, useMeasuring, useEntries } from '../shell/jobPage';
import { useSecondsSince } from './StatePlate';
import { useTyped } from '../typed';
import { undoWords } from '../../core/job/applyCommand';

const KEY = clsx(
  'grid place-items-center',
  'min-h-11 border border-ink rounded bg-card',
  'font-cond font-semibold text-plain text-center leading-none',
  'disabled:border-dashed disabled:text-ink-3',
);

const DIGITS = ['7', '8', '9', '4', '5', '6', '1', '2', '3', '.', '0'] as const;

export const scaleOf = (millis: boolean): number => (millis ? 0.001 : 1);

/** Keeps what is typed, or a status without a value. */
export function useKeep(): {
  keep(): void;
  cannotReach(): void;
  overload(): void;
  value: number | undefined;
  problem: { words: string; suggestion?: number } | undefined;
} {
  const { job } = useJobFile();
  const { selected, setTyped } = useMeasuring();
  const { send } = useEntries();
  const { text: typed, millis } = useTyped();
  const seconds = useSecondsSince(job.rigState.since);
  const unit = selected?.kind === 'clamp' ? 'A' : 'V';
  const parsed = typed.trim() === '' ? undefined : parseMeterEntry(typed, unit, unit === 'V' ? scaleOf(millis) : 1);
  const base = selected && {
    state: job.rigState.id,
    probe: selected.red,
    ...(selected.black === undefined ? {} : { ref: selected.black }),
    unit: unit as 'V' | 'A',
    secondsInState: Math.round(seconds),
    ...(job.meter === undefined ? {} : { meter: job.meter }),
  };
  const store = (status: 'measured' | 'cannot-reach' | 'overload', value?: number) => {
    if (!base) return;
    send('reading.keep', { id: crypto.randomUUID(), ...base, status, ...(value === undefined ? {} : { value }) });
    setTyped('');
  };
  return {
    value: parsed?.ok ? parsed.value : undefined,
    problem:
      parsed && !parsed.ok
        ? {
            words: `Wanted ${parsed.error.wanted}`,
            ...(parsed.error.suggestion === undefined ? {} : { suggestion: parsed.error.suggestion }),
          }
        : undefined,
    keep: () => parsed?.ok && store('measured', parsed.value),
    cannotReach: () => store('cannot-reach'),
    overload: () => store('overload'),
  };
}

export function Keypad({ heading = true, offer }: { heading?: boolean; offer?: ReactNode }) {
  const { job, stateOf } = useJobFile();
  const { selected, setTyped, setMillis, band } = useMeasuring();
  const { undo, undoable } = useEntries();
  const { text: typed, millis } = useTyped();
  const { keep, cannotReach, overload, value, problem } = useKeep();
  const state = stateOf(job.rigState.id);
  const unit = selected?.kind === 'clamp' ? 'A' : 'V';
  const b = selected && band(state.id, selected.id);
  const verdict = value !== undefined && b ? judge(value, b) : undefined;
  const press = (key: string) => setTyped(key === '.' && typed.includes('.') ? typed : (typed + key).slice(0, 12));
  const flip = () => setTyped(typed.startsWith('-') ? typed.slice(1) : `-${typed}`);
  return (
    <aside
      className={clsx(
        'kp',
        'flex flex-col gap-1.25',
        'min-h-0 px-2.75 pt-1.75 pb-2 border-l-2 border-ink bg-paper',
        'max-narrow:gap-1 max-narrow:py-1.25 within-phone:in-split:hidden',
      )}
      aria-label="Keypad"
    >
      {heading && (
        <div className="hdln max-narrow:hidden">
          <b className="text-large leading-close">
            {selected ? `${selected.label} at ${state.label.toLowerCase()}` : 'Pick a probe'}
          </b>
        </div>
      )}
      <div
        className={clsx(
          'disp',
          'flex items-center justify-between flex-none',
          'h-14.5 px-2.5 border-2 border-ink rounded bg-card',
          'max-narrow:h-13',
        )}
      >
        <output
          className={clsx(
            'overflow-hidden',
            'font-cond font-semibold text-huge leading-none tracking-tight whitespace-nowrap',
            'is-long:text-display',
            `${typed.length > 6 ? ' long' : ''}`,
          )}
          aria-live="polite"
          aria-label={typed === '' ? 'nothing typed' : `typed ${typed}`}
        >
          {typed.replace('-', '−')}
          <i className="inline-block w-0.75 h-9 ml-1 bg-ink align-middle" />
        </output>
        <span className="font-cond font-medium text-right text-note text-ink-2 leading-close whitespace-nowrap">
          <b className="block font-semibold text-head text-ink">
            {unit === 'A' ? 'amps' : millis ? 'millivolts' : 'volts'}
          </b>
          {b ? showBand(b.lo, b.hi, b.unit) : ''}
        </span>
      </div>
      <div
        className={clsx(
          'flex items-center flex-none flex-wrap gap-1.5',
          'min-h-4.5',
          'font-semibold text-note leading-close',
          'is-bad:text-fail',
          `judge${problem || (verdict && verdict !== 'ok') ? ' bad' : ''}`,
        )}
        role="status"
      >
        {problem ? (
          <>
            <span>{problem.words}</span>
            {problem.suggestion !== undefined && (
              <button
                type="button"
                className="text-button"
                onClick={() => (setMillis(false), setTyped(String(problem.suggestion)))}
              >
                Use {showText(problem.suggestion, unit)}
              </button>
            )}
          </>
        ) : verdict && b ? (
          <>
            <Sign verdict={verdict} size={15} />
            {showMiss(value!, b.lo, b.hi, b.unit)}
          </>
        ) : (
          <span className="font-medium text-ink-2">Type what the meter shows</span>
        )}
      </div>
      <div className="fn grid flex-none gap-1.25">
        <button className={KEY} type="button" onClick={flip} aria-label="change sign">
          ±
        </button>
        <button
          className={clsx(
            'grid place-items-center',
            'min-h-11 border border-ink rounded bg-card',
            'font-cond font-semibold text-plain text-center leading-none',
            'aria-pressed:bg-ink aria-pressed:text-paper disabled:border-dashed disabled:text-ink-3',
          )}
          type="button"
          onClick={() => setMillis(!millis)}
          aria-pressed={millis}
          disabled={unit === 'A'}
        >
          mV / V
        </button>
        <button className={KEY} type="button" onClick={overload} disabled={!selected}>
          OL or
          <br />
          unsteady
        </button>
        <button
          className={KEY}
          type="button"
          onClick={undo}
          aria-label={undoable === undefined ? 'nothing to undo' : `undo: ${undoWords(undoable)}`}
          disabled={undoable === undefined}
        >
          <Undo2 size={20} aria-hidden="true" />
        </button>
      </div>
      <div className="keys grid grid-cols-3 flex-1 gap-1.25 min-h-0 max-narrow:gap-1">
        {DIGITS.map((d) => (
          <button
            className={clsx(
              'grid place-items-center',
              'border border-ink rounded bg-card',
              'font-cond font-semibold text-center text-title leading-none',
              'within-phone:text-title',
            )}
            key={d}
            type="button"
            onClick={() => press(d)}
          >
            {d}
          </button>
        ))}
        <button
          className={clsx(
            'grid place-items-center',
            'border border-ink rounded bg-card',
            'font-cond font-semibold text-center text-title leading-none',
            'within-phone:text-title',
          )}
          type="button"
          aria-label="delete last digit"
          onClick={() => setTyped(typed.slice(0, -1))}
        >
          <Delete size={24} aria-hidden="true" />
        </button>
      </div>
      <div className="kfoot grid flex-none gap-1.5">
        <button type="button" className="btn" onClick={cannotReach} disabled={!selected}>
          Can’t
          <br />
          reach
        </button>
        {typed === '' && offer ? (
          offer
        ) : (
          <button
            type="button"
            className={clsx(
              'btn keep justify-between py-0 pr-2 pl-2.75 text-left text-large',
              value !== undefined && selected ? 'btn-accent' : 'btn-dash',
            )}
            aria-disabled={value === undefined}
            onClick={keep}
          >
            <span>
              {selected ? `Keep ${selected.label}` : 'Keep'}
              <small>at {state.label.toLowerCase()}</small>
            </span>
            {value !== undefined && <ArrowRight size={22} aria-hidden="true" />}
          </button>
        )}
      </div>
    </aside>
  );
}
