'use client';
/** The reading sheet: rows are what can be measured, nose to tail; the present state is the wide column. */
import { clsx } from 'clsx';
import { Ban } from 'lucide-react';
import { Fragment, memo, useEffect, useMemo, useRef } from 'react';
import type { Reading } from '../../core/job/job';
import { statesOf, type OperatingState } from '../../core/operate/states';
import { judge, type Band } from '../../core/probe/judge';
import type { Measurement } from '../../core/probe/measurement';
import type { Rig } from '../../core/rig/schema';
import { show, showBand } from '../../core/units/format';
import { Sign } from '../strip/glyphs';
import { BandMark } from './BandMark';
import { readingOf, useJobFile, useMeasuring } from '../shell/jobPage';
import { LeadMark, usePointWords } from './Leads';
import { MeterPick } from './MeterPick';

interface Group {
  place: string;
  rows: Measurement[];
}

/** Measurements by place, nose to tail; within a place volts, clamps, then drops. */
export function groupByPlace(measurements: readonly Measurement[]): Group[] {
  const kinds = ['volts', 'clamp', 'drop'];
  const groups = new Map<string, Measurement[]>();
  for (const m of [...measurements].sort((a, b) => a.station - b.station)) {
    groups.set(m.place, [...(groups.get(m.place) ?? []), m]);
  }
  return [...groups].map(([place, rows]) => ({
    place,
    rows: rows.sort((a, b) => kinds.indexOf(a.kind) - kinds.indexOf(b.kind) || a.station - b.station),
  }));
}

function Value({
  reading,
  onInk = false,
  band,
}: {
  reading: Reading | undefined;
  onInk?: boolean;
  band: Band | undefined;
}) {
  if (!reading) return <span className="v none text-ink-3 within-cw:gap-1 within-here:in-cw:text-paper">–</span>;
  if (reading.status === 'cannot-reach')
    return (
      <span
        className={clsx(
          'v word',
          'flex flex-none items-center justify-center gap-1',
          'h-14 border-b border-ink',
          'font-cond font-bold text-note text-ink no-underline',
        )}
      >
        <Ban size={14} aria-hidden="true" /> no reach
      </span>
    );
  if (reading.status === 'overload' || reading.value === undefined) return <span className="v word">OL</span>;
  const s = show(reading.value, reading.unit);
  return (
    <span className="v within-cw:gap-1">
      {s.text}
      {s.unit !== 'V' && <small className="font-medium text-fine">{s.unit}</small>}
      {band && <Sign verdict={judge(reading.value, band)} size={13} onInk={onInk} />}
    </span>
  );
}

const isBad = (r: Reading | undefined, band: Band | undefined) =>
  r?.value !== undefined && band !== undefined && judge(r.value, band) !== 'ok';

/** As many other states as the sheet has columns for: those with readings first, then the usual ones. */
const COLUMNS = 5;
const USUAL = ['rested', 'idle', 'boost-engine-off', 'shore', 'key-on'];
function besideColumns(rig: Rig, now: string, readings: readonly Reading[]): OperatingState[] {
  const all = statesOf(rig).filter((s) => s.id !== now);
  const taken = new Set(readings.map((r) => r.state));
  const rank = (s: OperatingState) => (taken.has(s.id) ? 0 : USUAL.includes(s.id) ? 1 : 2);
  const chosen = new Set([...all].sort((a, b) => rank(a) - rank(b)).slice(0, COLUMNS));
  return all.filter((s) => chosen.has(s));
}

interface RowProps {
  m: Measurement;
  on: boolean;
  now: OperatingState;
  others: readonly OperatingState[];
  /** Of the present state, then of the others in their order. */
  readings: readonly (Reading | undefined)[];
  bands: readonly (Band | undefined)[];
  select(m: Measurement): void;
  showWorking(state: string, m: Measurement): void;
}

/** A row is drawn anew only when something in it changed: thirty of them stand in the sheet. */
const sameRow = (a: RowProps, b: RowProps): boolean =>
  a.m === b.m &&
  a.on === b.on &&
  a.now === b.now &&
  a.readings.every((r, i) => r === b.readings[i]) &&
  a.bands.every((x, i) => x === b.bands[i]);

const Row = memo(function Row({ m, on, now, others, readings, bands, select, showWorking }: RowProps) {
  const [r] = readings;
  const [b] = bands;
  const shown = r?.value === undefined ? undefined : show(r.value, r.unit);
  return (
    <div className={`grid font-cond sg rw${on ? ' here' : ''}`}>
      <button
        type="button"
        className={clsx(
          'pn',
          'flex items-center gap-1.75',
          'min-w-0 pr-1 pl-1.75',
          'font-semibold text-plain text-left leading-none',
          'within-here:bg-ink within-here:text-paper',
        )}
        onClick={() => select(m)}
        aria-pressed={on}
        aria-label={`${m.label} ${m.name}, ${shown ? `${shown.text} ${shown.unit}` : 'to take'}`}
      >
        <span
          className={clsx(
            'inline-grid place-items-center flex-none',
            'w-8.5 h-8.5 border-2 border-ink rounded-full bg-card',
            'font-cond font-bold text-plain text-ink leading-none',
            'is-pair:rounded within-here:border-paper within-here:bg-paper',
            `pd${m.kind === 'drop' ? ' pair' : ''}`,
          )}
        >
          {m.kind === 'drop' ? 'Δ' : m.label}
        </span>
        <span>
          {m.name}
          {m.kind === 'drop' && (
            <small className="block font-medium text-fine text-ink-2 within-here:text-paper">{m.label}</small>
          )}
        </span>
      </button>
      <button
        type="button"
        className={clsx(
          'grid items-center',
          'pr-1 pl-2 bg-card',
          'text-left',
          'is-bad:bg-fail-tint is-bad:text-fail within-here:bg-ink within-here:text-paper',
          `cw${isBad(r, b) && !on ? ' bad' : ''}`,
        )}
        onClick={() => showWorking(now.id, m)}
        aria-label={b ? `Show the working of the band ${showBand(b.lo, b.hi, b.unit)}` : 'band not known yet'}
      >
        <Value reading={r} band={b} onInk={on} />
        {b && (
          <span className="grid justify-items-end gap-0.5">
            <BandMark band={b} value={r?.value} />
            <span
              className={clsx(
                'font-cond font-medium text-plain text-ink-2 leading-none whitespace-nowrap',
                'within-bad:text-fail within-here:text-paper',
              )}
            >
              {showBand(b.lo, b.hi, b.unit)}
            </span>
          </span>
        )}
      </button>
      {others.map((s, i) => (
        <div
          key={s.id}
          className={clsx(
            'flex items-center justify-center gap-0.5',
            'bg-card',
            'is-bad:bg-fail-tint is-bad:text-fail',
            `cell${isBad(readings[i + 1], bands[i + 1]) ? ' bad' : ''}`,
          )}
        >
          <Value reading={readings[i + 1]} band={bands[i + 1]} />
        </div>
      ))}
    </div>
  );
}, sameRow);

export function ReadingSheet() {
  const file = useJobFile();
  const { job, rig } = file;
  const { readings, measurements, selected, select, band, openLead, showWorking } = useMeasuring();
  const now = file.stateOf(job.rigState.id);
  const others = useMemo(() => besideColumns(rig, now.id, readings), [rig, now.id, readings]);
  const rows = useRef<HTMLDivElement>(null);
  const words = usePointWords();
  useEffect(() => {
    rows.current?.querySelector('.rw.here')?.scrollIntoView({ block: 'nearest' });
  }, [selected?.id]);
  const taken = (state: string) =>
    measurements.filter((m) => m.kind !== 'drop' && readingOf(readings, state, m)?.status === 'measured').length;
  const total = measurements.filter((m) => m.kind !== 'drop').length;
  return (
    <div className="sheet grid min-h-0 h-full min-w-0 bg-card">
      <div className="ref flex items-center gap-2 min-h-10 pr-2.5 pl-2 border-b border-ink bg-paper text-note">
        <LeadMark lead="black" />
        <span>
          <b className="font-semibold">Black lead on:</b> {words(job.blackLead)}
        </span>
        <button
          className="min-h-11 ml-auto -my-0.75 px-1.5 font-cond font-semibold text-plain underline underline-offset-3"
          type="button"
          onClick={openLead}
        >
          Move it
        </button>
        <MeterPick />
      </div>
      <div className="min-h-0 overflow-x-hidden overflow-y-auto" tabIndex={-1} ref={rows}>
        <div className="sg hd sticky grid top-0 z-3 border-b-2 border-ink bg-paper font-cond" aria-hidden="true">
          <div className="first justify-items-start pl-2.25 text-left">
            Probe<small className="mt-0.25 font-medium text-fine text-ink-2">nose to tail</small>
          </div>
          <div className="now bg-ink font-bold text-paper text-large">
            {now.label}
            <small className="mt-0.25 font-medium text-fine text-ink-2 within-now:text-paper">
              {taken(now.id)} of {total}, now
            </small>
          </div>
          {others.map((s) => (
            <div key={s.id}>
              {s.short[0]}
              {s.short[1] && <br />}
              {s.short[1]}
              <small className="mt-0.25 font-medium text-fine text-ink-2">
                {taken(s.id)}/{total}
              </small>
            </div>
          ))}
        </div>
        {groupByPlace(measurements).map(({ place, rows }) => (
          <Fragment key={place}>
            <div
              className={clsx(
                'flex items-center gap-2',
                'h-6 px-2 border-y-1 border-rule bg-paper',
                'font-cond font-semibold text-note',
              )}
            >
              <i className="w-4.5 border-t-3 border-ink" />
              {place}
            </div>
            {rows.map((m) => {
              const on = selected?.id === m.id;
              return (
                <Row
                  key={m.id}
                  m={m}
                  on={on}
                  now={now}
                  others={others}
                  readings={[now, ...others].map((s) => readingOf(readings, s.id, m))}
                  bands={[now, ...others].map((s) => band(s.id, m.id))}
                  select={select}
                  showWorking={showWorking}
                />
              );
            })}
          </Fragment>
        ))}
      </div>
    </div>
  );
}
