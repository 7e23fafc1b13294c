'use client';
/** One probe at a time, for one hand: state, where, leads, display, keypad, previous and next. */
import { clsx } from 'clsx';
import { ArrowLeft, ArrowRight, ChevronLeft, List } from 'lucide-react';
import Link from 'next/link';
import { useEffect, useRef, useState } from 'react';
import { judge } from '../../core/probe/judge';
import { techniqueFor } from '../../core/probe/technique';
import { show, showBand, showClock } from '../../core/units/format';
import { lengthShown } from '../../core/units/preferences';
import { Sign } from '../strip/glyphs';
import { sideNames } from '../strip/sideNames';
import { MiniStrip } from '../strip/MiniStrip';
import { readingOf, useJobFile, usePlace, useMeasuring, useAnswers } from './jobPage';
import { cautionsOf, NextButton } from './NextSlip';
import { Cautions } from './Slip';
import { STATION_REGISTRY } from './stationRegistry';
import { STATIONS } from './stations';
import { Keypad } from '../readings/Keypad';
import { LeadLines, LeadMark, usePointWords } from '../readings/Leads';
import { groupByPlace } from '../readings/ReadingSheet';
import { StatePlate, useSecondsSince } from '../readings/StatePlate';

export function PhoneTop() {
  const { job, rig } = useJobFile();
  return (
    <>
      <header className="flex items-stretch justify-between gap-1.5 h-13.5 pr-1.5 pl-0.5 py-1 border-b border-ink">
        <Link
          href="/"
          className={clsx(
            'flex items-center gap-0.75',
            'min-w-11',
            'font-cond font-medium text-lead text-inherit no-underline whitespace-nowrap',
          )}
          aria-label={`All jobs. This is job ${job.number}, ${rig.name}`}
        >
          <ChevronLeft size={22} aria-hidden="true" />
          <b className="text-title leading-none">{job.number}</b> {rig.name}
        </Link>
        <StatePlate small />
      </header>
      <StationTabs />
    </>
  );
}

/** Every station, side by side; the one that is open is in sight. */
function StationTabs() {
  const { station, go } = usePlace();
  const here = useRef<HTMLButtonElement>(null);
  useEffect(() => {
    // In braces: what it returns must not be taken for a clean-up.
    here.current?.scrollIntoView({ inline: 'center', block: 'nearest' });
  }, [station]);
  return (
    <nav
      className="flex overflow-x-auto border-b-[1.5px] border-base-content [scrollbar-width:none]"
      aria-label="Stations"
    >
      {STATIONS.map((s) => (
        <button
          key={s}
          ref={s === station ? here : undefined}
          type="button"
          className={`btn h-11 flex-none rounded-none border-0 px-4 font-cond text-lg ${s === station ? 'btn-neutral' : 'btn-ghost'}`}
          aria-current={s === station ? 'step' : undefined}
          onClick={() => go(s)}
        >
          {STATION_REGISTRY[s].name}
        </button>
      ))}
    </nav>
  );
}

export function PhoneReadings() {
  const file = useJobFile();
  const place = usePlace();
  const { job, rig } = file;
  const { selected, measurements, readings, select, point, band, openLead } = useMeasuring();
  const [list, setList] = useState(false);
  const words = usePointWords();
  const state = file.stateOf(job.rigState.id);
  const order = groupByPlace(measurements).flatMap((g) => g.rows);
  const index = selected ? order.findIndex((m) => m.id === selected.id) : -1;
  const beside = (step: number) => (index < 0 ? undefined : order[(index + step + order.length) % order.length]);
  const done = measurements.filter((m) => readingOf(readings, state.id, m)).length;
  const dots = Object.fromEntries(
    measurements.flatMap((m): [string, 'ok' | 'bad' | 'todo'][] => {
      if (m.kind === 'drop') return [];
      const r = readingOf(readings, state.id, m);
      const b = band(state.id, m.id);
      return [[m.red, r?.value === undefined || !b ? 'todo' : judge(r.value, b) === 'ok' ? 'ok' : 'bad']];
    }),
  );
  const where = selected && point(selected.red);
  // Nothing typed and the next action is not this probe, or is still worked out: it takes the place of Keep, so that what
  // was just kept does not look as if it were asked for again.
  const elsewhere = !(place.next.kind === 'measure' && place.next.measurement.id === selected?.id);
  if (list || !selected)
    return (
      <>
        <MiniStrip rig={rig} dots={dots} here={selected} />
        <div className="ref flex items-center gap-2 min-h-10 pr-2.5 pl-2 border-b border-ink bg-paper text-note">
          <LeadMark lead="black" />
          <span>
            <b className="font-semibold">Black:</b> {words(job.blackLead)}
          </span>
          <button
            className="min-h-11 ml-auto -my-0.75 px-1.5 font-cond font-semibold text-plain underline underline-offset-3"
            type="button"
            onClick={openLead}
          >
            Move it
          </button>
        </div>
        <main className="pscroll min-h-0 overflow-y-auto bg-card">
          {groupByPlace(measurements).map(({ place, rows }) => (
            <section key={place}>
              <h2
                className={clsx(
                  'flex items-center gap-2',
                  'h-6 px-2 border-y-1 border-rule bg-paper',
                  'font-cond font-semibold text-note',
                )}
              >
                <i className="w-4.5 border-t-3 border-ink" />
                {place}
              </h2>
              {rows.map((m) => {
                const r = readingOf(readings, state.id, m);
                const b = band(state.id, m.id);
                const v = r?.value === undefined ? undefined : show(r.value, r.unit);
                return (
                  <button
                    key={m.id}
                    type="button"
                    className={clsx(
                      'flex items-center gap-2.25',
                      'w-full min-h-12.5 pr-3.5 pl-2.5 border-b-1 border-rule',
                      'font-cond text-left',
                      'is-here:bg-ink is-here:text-paper',
                      `plrow${m.id === selected?.id ? ' here' : ''}`,
                    )}
                    onClick={() => (select(m), setList(false))}
                  >
                    <span
                      className={clsx(
                        'inline-grid place-items-center flex-none',
                        'w-8.5 h-8.5 border-2 border-ink rounded-full bg-card',
                        'font-cond font-bold text-plain text-ink leading-none',
                        'is-pair:rounded',
                        `pd${m.kind === 'drop' ? ' pair' : ''}`,
                      )}
                    >
                      {m.kind === 'drop' ? 'Δ' : m.label}
                    </span>
                    <span className="flex-1 font-semibold text-large leading-close">{m.name}</span>
                    {v ? (
                      <span className="v text-head">
                        {v.text}
                        {v.unit !== 'V' && <small>{v.unit}</small>}{' '}
                        {b && <Sign verdict={judge(r!.value!, b)} size={15} onInk={m.id === selected?.id} />}
                      </span>
                    ) : (
                      <span className="text-note text-ink-2 whitespace-nowrap within-here:text-paper">
                        {b && showBand(b.lo, b.hi, b.unit)}
                      </span>
                    )}
                  </button>
                );
              })}
            </section>
          ))}
        </main>
        <footer className="flex gap-2 px-3 pt-1.75 pb-2.25 border-t-2 border-ink bg-card within-phone:block">
          <NextButton className="wide" />
        </footer>
      </>
    );
  return (
    <>
      <MiniStrip rig={rig} dots={dots} here={selected} />
      <section className="pprobe flex items-center gap-3.75 pr-3.5 pl-4.5 pt-2.25 pb-1.75">
        <span
          className={clsx(
            'inline-grid place-items-center flex-none',
            'w-15 h-15 border-2 border-ink rounded-full bg-ink',
            'font-cond font-bold text-title text-paper leading-none',
            'is-pair:rounded',
            `pd huge${selected.kind === 'drop' ? ' pair' : ''}`,
          )}
        >
          {selected.kind === 'drop' ? 'Δ' : selected.label}
        </span>
        <div>
          <div className="big font-cond font-bold text-figure leading-close">{selected.name}</div>
          <div className="lab">
            {selected.kind === 'drop' ? `${selected.label}, ` : ''}
            {selected.place.toLowerCase()}, {lengthShown(selected.station, file.settings.length).toFixed(0)}{' '}
            {file.settings.length}
            {where && where.side !== 'ground' && where.side !== 'both'
              ? `, ${file.words(sideNames(rig)[where.side]).toLowerCase()}`
              : ''}
          </div>
        </div>
      </section>
      <LeadLines red={selected.red} black={selected.black} />
      {techniqueFor(file.described, selected, state.id)
        // The guide of a practice job stands in its place.
        .slice(0, file.practice ? 0 : 1)
        .map((t) => (
          <p
            key={t}
            className={clsx(
              'pl-2 border-l-3 border-rule',
              'text-fine text-ink-2 leading-tight',
              'within-phone:m-0 within-phone:px-3.5 within-phone:py-1.25',
              'within-phone:border-l-0 within-phone:border-b within-phone:border-ink',
            )}
          >
            {file.words(t)}
          </p>
        ))}
      <Keypad heading={false} offer={elsewhere ? <NextButton /> : undefined} />
      <footer className="flex gap-2 px-3 pt-1.75 pb-2.25 border-t-2 border-ink bg-card">
        <button
          type="button"
          className="btn"
          onClick={() => select(beside(-1)!)}
          aria-label={`Previous: ${beside(-1)?.label}`}
        >
          <ArrowLeft size={20} aria-hidden="true" />
          {beside(-1)?.kind === 'drop' ? 'Δ' : beside(-1)?.label}
        </button>
        <button type="button" className="btn flex-1" onClick={() => setList(true)}>
          <List size={20} aria-hidden="true" />
          {done} of {measurements.length} taken
        </button>
        <button
          type="button"
          className="btn"
          onClick={() => select(beside(1)!)}
          aria-label={`Next: ${beside(1)?.label}`}
        >
          {beside(1)?.kind === 'drop' ? 'Δ' : beside(1)?.label}
          <ArrowRight size={20} aria-hidden="true" />
        </button>
      </footer>
    </>
  );
}

/** The next action and its cautions, under any other station on a narrow screen. */
export function NextBar({ cautions = false }: { cautions?: boolean }) {
  const file = useJobFile();
  const answers = useAnswers();
  const place = usePlace();
  const seconds = useSecondsSince(file.job.rigState.since);
  const state = file.stateOf(file.job.rigState.id);
  return (
    <footer className="grid gap-1.75 px-3 pt-2 pb-2.5 border-t-2 border-ink bg-card">
      {cautions && <Cautions list={cautionsOf(file, answers, place).slice(0, 2)} />}
      {seconds < state.inputs.dwell && (
        <p className="quiet">
          {state.label} settles in {showClock(state.inputs.dwell - seconds)}.
        </p>
      )}
      <NextButton className="wide" />
    </footer>
  );
}
