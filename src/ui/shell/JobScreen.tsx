'use client';
/** The job page: rail, top bar, strip, station, slip; or one probe at a time on a phone. */
import { ChevronLeft, ChevronRight, ChevronUp, Undo2 } from 'lucide-react';
import { lazy, Suspense, useCallback, useEffect, useMemo, useRef, useState, type ReactNode } from 'react';
import { judge } from '../../core/probe/judge';
import type { Measurement } from '../../core/probe/measurement';
import { show, showBand, showText } from '../../core/units/format';
import { madeBy, standingChoice } from '../../core/job/job';
import type { FlagFace } from '../strip/FlagFaces';
import { LoomStrip } from '../strip/LoomStrip';
import { useTheme } from '../theme';
import { useMedia } from '../useMedia';
import { readingOf, useJobPage, type JobPage } from './jobPage';
import { BenchSlip, NextButton } from './NextSlip';
import { BandDialog, KeysDialog, LeadDialog } from './dialogs';
import { Keypad, useKeep } from '../readings/Keypad';
import { NextBar, PhoneReadings, PhoneTop } from './Phone';
import { ProveStation } from '../prove/ProveStation';
import { Rail } from './Rail';
import { groupByPlace, ReadingSheet } from '../readings/ReadingSheet';
import { StateChooser } from '../readings/StateChooser';
import { StatePlate } from '../readings/StatePlate';
import { StatusMenu } from './StatusMenu';
import { undoWords } from '../../core/job/applyCommand';
import { useTyped } from '../typed';

// Not on the way to the first reading: their scripts come when they are opened.
const BuildStation = lazy(() => import('../build/BuildStation').then((m) => ({ default: m.BuildStation })));
const LogbookStation = lazy(() => import('../logbook/LogbookStation').then((m) => ({ default: m.LogbookStation })));
const SizingStation = lazy(() => import('../sizing/SizingStation').then((m) => ({ default: m.SizingStation })));
const OptionsStation = lazy(() => import('../options/OptionsStation').then((m) => ({ default: m.OptionsStation })));
const FaultStation = lazy(() => import('../fault/FaultStation').then((m) => ({ default: m.FaultStation })));
const IntakeStation = lazy(() => import('../intake/IntakeStation').then((m) => ({ default: m.IntakeStation })));
const RigStation = lazy(() => import('../rig/RigStation').then((m) => ({ default: m.RigStation })));
const SeenAndHeard = lazy(() => import('../fault/SeenAndHeard').then((m) => ({ default: m.SeenAndHeard })));

export interface Dialogs {
  chooser: { suggested?: string } | undefined;
  closeChooser(): void;
  lead: boolean;
  closeLead(): void;
  seen: { question?: string } | undefined;
  closeSeen(): void;
  working: { state: string; measurement: Measurement } | undefined;
  closeWorking(): void;
}

/** What each flag shows: the reading in the present state, or the band it should be in. */
function flagFaces(
  { measurements, readings, band: bandOf }: Pick<JobPage, 'measurements' | 'readings' | 'band'>,
  state: string,
): Record<string, FlagFace> {
  const faces: Record<string, FlagFace> = {};
  for (const m of measurements) {
    if (m.kind === 'drop') continue;
    const r = readingOf(readings, state, m);
    const band = bandOf(state, m.id);
    const name = `${m.label}, ${m.name.toLowerCase()}`;
    if (r?.value !== undefined && band) {
      const verdict = judge(r.value, band);
      const s = show(r.value, r.unit);
      faces[m.red] = {
        value: s.unit === 'V' ? s.text : `${s.text} ${s.unit}`,
        verdict,
        spoken: `${name}, ${showText(r.value, r.unit)}, ${verdict === 'ok' ? 'in band' : verdict === 'low' ? 'low' : 'high'}`,
      };
    } else if (r) {
      faces[m.red] = {
        value: r.status === 'overload' ? 'OL' : 'no reach',
        spoken: `${name}, ${r.status === 'overload' ? 'overload' : 'could not be reached'}`,
      };
    } else {
      faces[m.red] = {
        ...(band ? { band: showBand(band.lo, band.hi, band.unit).replace(' to ', '–').replace(' V', '') } : {}),
        spoken: `${name}, to take`,
      };
    }
  }
  return faces;
}

function Strip() {
  const page = useJobPage();
  const { rig, preview, ruled, selected, measurements, readings, band, diagnosis, station, job } = page;
  const pan = useRef<HTMLDivElement>(null);
  const state = job.rigState.id;
  const faces = useMemo(
    () => flagFaces({ measurements, readings, band }, state),
    [measurements, readings, band, state],
  );
  const suspects = useMemo(() => {
    if (!diagnosis || station !== 'fault') return undefined;
    const shares: Record<string, number> = {};
    for (const s of diagnosis.suspects) if (s.part) shares[s.part] = (shares[s.part] ?? 0) + s.probability;
    return shares;
  }, [diagnosis, station]);
  // The strip is heavy to draw: it gets a callback that never changes, which asks the newest page.
  const newest = useRef(page);
  useEffect(() => {
    newest.current = page;
  });
  const pick = useCallback((key: string) => {
    const { measurements: all, select, station: at, go } = newest.current;
    const m = all.find((x) => x.red === key && x.kind !== 'drop');
    if (!m) return;
    select(m);
    if (at !== 'readings' && at !== 'prove') go('readings');
  }, []);
  // Keep the probe in hand in sight where the strip is wider than the screen.
  useEffect(() => {
    const box = pan.current;
    if (!box || box.scrollWidth <= box.clientWidth || !selected) return;
    const flag = box.querySelector('[aria-pressed="true"]');
    if (flag) {
      const a = flag.getBoundingClientRect();
      const b = box.getBoundingClientRect();
      box.scrollBy({ left: a.left + a.width / 2 - (b.left + b.width / 2), behavior: 'smooth' });
    }
  }, [selected]);
  // Most rigs fit a wide screen; one of very many parts is panned there too.
  const [wide, setWide] = useState(false);
  useEffect(() => {
    const box = pan.current;
    if (!box) return;
    const look = new ResizeObserver(() => setWide(box.scrollWidth > (box.parentElement?.clientWidth ?? 0) + 1));
    look.observe(box);
    if (box.firstElementChild) look.observe(box.firstElementChild);
    return () => look.disconnect();
  }, []);
  const shift = (by: number) => pan.current?.scrollBy({ left: by, behavior: 'smooth' });
  const linkOn = job.rigState.id === 'idle' || job.rigState.id === 'boost-engine-off' || job.rigState.id === 'key-on';
  const first = rig.probes[0]?.label;
  const last = rig.probes.at(-1)?.label;
  return (
    <section className={wide ? 'stripbox wide' : 'stripbox'} aria-label="Loom strip">
      <button type="button" className="edge l" onClick={() => shift(-420)} aria-label="Pan toward the nose">
        <ChevronLeft size={20} aria-hidden="true" />
        <b>{first}</b>nose
      </button>
      <div className="pan" ref={pan}>
        <LoomStrip
          rig={preview ?? rig}
          faces={faces}
          onPick={pick}
          linkClosed={linkOn}
          unit={page.settings.length}
          gauge={page.settings.gauge}
          words={page.words}
          {...(selected ? { red: selected.red } : {})}
          {...(selected?.black === undefined ? {} : { black: selected.black })}
          {...(suspects ? { suspects } : {})}
          {...(ruled ? { findings: ruled } : {})}
        />
      </div>
      <button type="button" className="edge r" onClick={() => shift(420)} aria-label="Pan toward the tail">
        <ChevronRight size={20} aria-hidden="true" />
        <b>{last}</b>tail
      </button>
    </section>
  );
}

/** Keyboard for everything the keypad does, and more. A component, so that a digit redraws only what shows it. */
function Keyboard({ onKeys }: { onKeys(): void }) {
  const page = useJobPage();
  const { text: typed, millis } = useTyped();
  const { keep, value } = useKeep();
  const [, toggleTheme] = useTheme();
  useEffect(() => {
    const onKey = (e: KeyboardEvent) => {
      const target = e.target as HTMLElement;
      if ((e.ctrlKey || e.metaKey) && e.key === 'z' && !target.closest('input, textarea, select')) {
        page.undo();
        e.preventDefault();
        return;
      }
      if (
        e.ctrlKey ||
        e.metaKey ||
        e.altKey ||
        target.closest('input, textarea, select') ||
        document.querySelector('dialog[open]')
      )
        return;
      // Legs and charts have keys of their own; nothing is measured there.
      if (page.station === 'options' && !/^[a-z?]$/.test(e.key)) return;
      const { setTyped, selected, select, measurements } = page;
      const handled = () => e.preventDefault();
      if (/^[0-9]$/.test(e.key)) {
        setTyped((typed + e.key).slice(0, 12));
        handled();
      } else if (e.key === '.' || e.key === ',') {
        if (!/[.,]/.test(typed)) setTyped(typed + e.key);
        handled();
      } else if (e.key === '-') {
        setTyped(typed.startsWith('-') ? typed.slice(1) : `-${typed}`);
        handled();
      } else if (e.key === 'Backspace') {
        setTyped(typed.slice(0, -1));
        handled();
      } else if (e.key === 'Enter' && typed !== '') {
        // Whatever was touched last holds the focus: what is typed is kept first.
        e.stopPropagation();
        if (value !== undefined) keep();
        handled();
      } else if (
        e.key === 'Enter' &&
        target.tagName !== 'BUTTON' &&
        target.tagName !== 'A' &&
        target.getAttribute('role') !== 'button'
      ) {
        page.act();
        handled();
      } else if (e.key === 'ArrowDown' || e.key === 'ArrowUp') {
        const order = groupByPlace(measurements).flatMap((g) => g.rows);
        const i = order.findIndex((m) => m.id === selected?.id);
        const to = order[(i + (e.key === 'ArrowDown' ? 1 : -1) + order.length) % order.length];
        if (to) select(to);
        handled();
      } else if (e.key === 'm') page.setMillis(!millis);
      else if (e.key === 's') page.openStates();
      else if (e.key === 'u') page.undo();
      else if (e.key === 'i') page.go('intake');
      else if (e.key === 'g') page.go('rig');
      else if (e.key === 'l') page.openSeen();
      else if (e.key === 'r') page.go('readings');
      else if (e.key === 'f') page.go('fault');
      else if (e.key === 'o') page.go('options');
      else if (e.key === 'z') page.go('sizing');
      else if (e.key === 'p') page.go('prove');
      else if (e.key === 'd') toggleTheme();
      else if (e.key === '?') onKeys();
    };
    window.addEventListener('keydown', onKey, { capture: true });
    return () => window.removeEventListener('keydown', onKey, { capture: true });
  });
  return null;
}

/** On a narrow screen: the next action, and the slip behind a button. */
function SlipBar({ open, toggle }: { open: boolean; toggle(): void }) {
  return (
    <div className="bar">
      <NextButton className="grow" />
      <button type="button" className="bx slip-btn" onClick={toggle} aria-expanded={open}>
        <ChevronUp size={20} aria-hidden="true" />
        Slip
      </button>
    </div>
  );
}

/** The station; the bar stands under its left column, so that the keypad keeps its height. */
function Main({ bar }: { bar: ReactNode }) {
  const { station, job } = useJobPage();
  const list =
    station === 'readings' ? <ReadingSheet /> : station === 'prove' && madeBy(job) ? <ProveStation /> : undefined;
  if (list)
    return (
      <div className="split">
        <div className="col">
          {list}
          {bar}
        </div>
        <Keypad />
      </div>
    );
  return (
    <div className="col">
      <Suspense fallback={<p className="waiting pad">Opening the station …</p>}>
        {station === 'intake' ? (
          <IntakeStation />
        ) : station === 'rig' ? (
          <RigStation />
        ) : station === 'fault' ? (
          <FaultStation />
        ) : station === 'options' ? (
          <OptionsStation />
        ) : station === 'sizing' ? (
          <SizingStation />
        ) : station === 'build' ? (
          <BuildStation />
        ) : station === 'prove' ? (
          <ProveStation />
        ) : (
          <LogbookStation />
        )}
      </Suspense>
      {bar}
    </div>
  );
}

export function BenchScreen({ dialogs }: { dialogs: Dialogs }) {
  const page = useJobPage();
  const { job, rig, station } = page;
  const [keys, showKeys] = useState(false);
  const [slip, setSlip] = useState(false);
  const phone = useMedia('(max-width: 480px)');
  const narrow = useMedia('(max-width: 1100px)');
  const ownSlip =
    station === 'options' || station === 'sizing' || (station === 'build' && standingChoice(job) !== undefined);
  return (
    <>
      <Keyboard onKeys={() => showKeys(true)} />
      {phone ? (
        <div className="phone">
          <PhoneTop />
          {station === 'readings' ? (
            <PhoneReadings />
          ) : (
            <>
              <main className="pscroll">
                <Main bar={null} />
              </main>
              {!ownSlip && <NextBar cautions />}
            </>
          )}
        </div>
      ) : (
        <div className="app">
          <Rail />
          <header className="top">
            <div className="job">
              <span className="no">{job.number}</span>
              <span className="nm">
                <b>{rig.name}</b>
                {rig.kind}
              </span>
            </div>
            <StatePlate />
            <div className="gripe">
              <b>Complaint:</b> {job.complaint.words}
            </div>
            <StatusMenu />
            <button
              type="button"
              className="keys-btn"
              onClick={page.undo}
              disabled={page.undoable === undefined}
              aria-label={page.undoable === undefined ? 'Nothing to undo' : `Undo: ${undoWords(page.undoable)}`}
              title={page.undoable === undefined ? 'Nothing to undo' : `Undo: ${undoWords(page.undoable)}`}
            >
              <Undo2 size={20} aria-hidden="true" />
            </button>
            <button type="button" className="keys-btn" onClick={() => showKeys(true)} aria-label="Show the keys">
              ?
            </button>
          </header>
          <Strip />
          {ownSlip ? (
            // It has a slip of its own: what is next here is to pick a link.
            <main className="optwork">
              <Main bar={null} />
            </main>
          ) : (
            <section className="work">
              <main>
                <Main bar={narrow ? <SlipBar open={slip} toggle={() => setSlip(!slip)} /> : null} />
              </main>
              {(!narrow || slip) && <BenchSlip />}
            </section>
          )}
        </div>
      )}
      {dialogs.chooser && <StateChooser suggested={dialogs.chooser.suggested} onClose={dialogs.closeChooser} />}
      {dialogs.lead && <LeadDialog onClose={dialogs.closeLead} />}
      {dialogs.working && <BandDialog {...dialogs.working} onClose={dialogs.closeWorking} />}
      {dialogs.seen && (
        <Suspense fallback={null}>
          <SeenAndHeard question={dialogs.seen.question} onClose={dialogs.closeSeen} />
        </Suspense>
      )}
      {keys && <KeysDialog onClose={() => showKeys(false)} />}
    </>
  );
}
