'use client';
/** One probe at a time, for one hand: state, where, leads, display, keypad, previous and next. */
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
import { useJobPage, readingOf } from './jobPage';
import { cautionsOf, NextButton } from './NextSlip';
import { Cautions } from './Slip';
import { STATION_REGISTRY } from './stationRegistry';
import { STATIONS } from './stations';
import { Keypad } from '../readings/Keypad';
import { LeadLines, LeadMark, usePointWords } from '../readings/Leads';
import { groupByPlace } from '../readings/ReadingSheet';
import { StatePlate, useSecondsSince } from '../readings/StatePlate';

export function PhoneTop() {
  const { job, rig } = useJobPage();
  return (
    <>
      <header className="ptop">
        <Link href="/" className="pno" aria-label={`All jobs. This is job ${job.number}, ${rig.name}`}>
          <ChevronLeft size={22} aria-hidden="true" />
          <b>{job.number}</b> {rig.name}
        </Link>
        <StatePlate small />
      </header>
      <StationTabs />
    </>
  );
}

/** Every station, side by side; the one that is open is in sight. */
function StationTabs() {
  const { station, go } = useJobPage();
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
  const page = useJobPage();
  const { job, rig, selected, measurements, readings, select, point, band, openLead } = page;
  const [list, setList] = useState(false);
  const words = usePointWords();
  const state = page.stateOf(job.rigState.id);
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
  // Nothing typed and the next action is not this probe: it takes the place of Keep.
  const elsewhere =
    page.next.kind !== 'wait' && !(page.next.kind === 'measure' && page.next.measurement.id === selected?.id);
  if (list || !selected)
    return (
      <>
        <MiniStrip rig={rig} dots={dots} here={selected} />
        <div className="ref">
          <LeadMark lead="black" />
          <span>
            <b>Black:</b> {words(job.blackLead)}
          </span>
          <button type="button" onClick={openLead}>
            Move it
          </button>
        </div>
        <main className="pscroll">
          {groupByPlace(measurements).map(({ place, rows }) => (
            <section key={place}>
              <h2 className="grp">
                <i />
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
                    className={`plrow${m.id === selected?.id ? ' here' : ''}`}
                    onClick={() => (select(m), setList(false))}
                  >
                    <span className={`pd${m.kind === 'drop' ? ' pair' : ''}`}>{m.kind === 'drop' ? 'Δ' : m.label}</span>
                    <span className="nm">{m.name}</span>
                    {v ? (
                      <span className="v">
                        {v.text}
                        {v.unit !== 'V' && <small>{v.unit}</small>}{' '}
                        {b && <Sign verdict={judge(r!.value!, b)} size={15} onInk={m.id === selected?.id} />}
                      </span>
                    ) : (
                      <span className="bn">{b && showBand(b.lo, b.hi, b.unit)}</span>
                    )}
                  </button>
                );
              })}
            </section>
          ))}
        </main>
        <footer className="pfoot col">
          <NextButton className="wide" />
        </footer>
      </>
    );
  return (
    <>
      <MiniStrip rig={rig} dots={dots} here={selected} />
      <section className="pprobe">
        <span className={`pd huge${selected.kind === 'drop' ? ' pair' : ''}`}>
          {selected.kind === 'drop' ? 'Δ' : selected.label}
        </span>
        <div>
          <div className="big">{selected.name}</div>
          <div className="lab">
            {selected.kind === 'drop' ? `${selected.label}, ` : ''}
            {selected.place.toLowerCase()}, {lengthShown(selected.station, page.settings.length).toFixed(0)}{' '}
            {page.settings.length}
            {where && where.side !== 'ground' && where.side !== 'both'
              ? `, ${page.words(sideNames(rig)[where.side]).toLowerCase()}`
              : ''}
          </div>
        </div>
      </section>
      <LeadLines red={selected.red} black={selected.black} />
      {techniqueFor(page.described, selected, state.id)
        // The guide of a practice job stands in its place.
        .slice(0, page.practice ? 0 : 1)
        .map((t) => (
          <p key={t} className="tip">
            {page.words(t)}
          </p>
        ))}
      <Keypad heading={false} offer={elsewhere ? <NextButton /> : undefined} />
      <footer className="pfoot">
        <button
          type="button"
          className="bx"
          onClick={() => select(beside(-1)!)}
          aria-label={`Previous: ${beside(-1)?.label}`}
        >
          <ArrowLeft size={20} aria-hidden="true" />
          {beside(-1)?.kind === 'drop' ? 'Δ' : beside(-1)?.label}
        </button>
        <button type="button" className="bx grow" onClick={() => setList(true)}>
          <List size={20} aria-hidden="true" />
          {done} of {measurements.length} taken
        </button>
        <button
          type="button"
          className="bx"
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
  const page = useJobPage();
  const seconds = useSecondsSince(page.job.rigState.since);
  const state = page.stateOf(page.job.rigState.id);
  return (
    <footer className="nextbar">
      {cautions && <Cautions list={cautionsOf(page).slice(0, 2)} />}
      {seconds < state.inputs.dwell && (
        <p className="quiet">
          {state.label} settles in {showClock(state.inputs.dwell - seconds)}.
        </p>
      )}
      <NextButton className="wide" />
    </footer>
  );
}
