'use client';
/** The job page: rail, top bar, strip, station, slip; or one probe at a time on a phone. */
import { ChevronUp, Undo2 } from 'lucide-react';
import { lazy, Suspense, useEffect, useState, type ReactNode } from 'react';
import type { Measurement } from '../../core/probe/measurement';
import { undoWords } from '../../core/job/applyCommand';
import { Keypad, useKeep } from '../readings/Keypad';
import { groupByPlace } from '../readings/ReadingSheet';
import { StateChooser } from '../readings/StateChooser';
import { StatePlate } from '../readings/StatePlate';
import { useTheme } from '../theme';
import { useTyped } from '../typed';
import { NARROW, PHONE, useMedia } from '../useMedia';
import { hotkeyFor } from './hotkeys';
import { useJobPage } from './jobPage';
import { BenchSlip, NextButton } from './NextSlip';
import { Rail } from './Rail';
import { STATION_REGISTRY } from './stationRegistry';
import { StatusMenu } from './StatusMenu';
import { StripBox } from './StripBox';
import { useStripHeight } from './stripHeight';

// Not on the way to the first reading at a bench: their scripts come when they are opened.
const SeenAndHeard = lazy(() => import('../fault/SeenAndHeard').then((m) => ({ default: m.SeenAndHeard })));
const BandDialog = lazy(() => import('./dialogs').then((m) => ({ default: m.BandDialog })));
const KeysDialog = lazy(() => import('./dialogs').then((m) => ({ default: m.KeysDialog })));
const LeadDialog = lazy(() => import('./dialogs').then((m) => ({ default: m.LeadDialog })));
const PracticeGuide = lazy(() => import('./PracticeGuide').then((m) => ({ default: m.PracticeGuide })));
const PhoneTop = lazy(() => import('./Phone').then((m) => ({ default: m.PhoneTop })));
const PhoneReadings = lazy(() => import('./Phone').then((m) => ({ default: m.PhoneReadings })));
const NextBar = lazy(() => import('./Phone').then((m) => ({ default: m.NextBar })));

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

/** Keyboard for everything the keypad does, and more. A component, so that a digit redraws only what shows it. */
function Keyboard({ onKeys, toggleStrip }: { onKeys(): void; toggleStrip(): void }) {
  const page = useJobPage();
  const { text: typed, millis } = useTyped();
  const { keep, value } = useKeep();
  const [, toggleTheme] = useTheme();
  useEffect(() => {
    const onKey = (e: KeyboardEvent) => {
      const target = e.target as HTMLElement;
      const writing = target.closest('input, textarea, select') !== null;
      if ((e.ctrlKey || e.metaKey) && e.key === 'z' && !writing) {
        page.undo();
        e.preventDefault();
        return;
      }
      if (e.ctrlKey || e.metaKey || e.altKey || writing || document.querySelector('dialog[open]')) return;
      const hotkey = hotkeyFor(e.key, STATION_REGISTRY[page.station].chartKeys);
      if (!hotkey) return;
      // Whatever was touched last holds the focus: what is typed is kept first, else a button does its own.
      if (e.key === 'Enter' && typed === '' && target.closest('button, a, [role="button"]')) return;
      if (e.key === 'Enter') e.stopPropagation();
      hotkey.run(
        {
          page,
          typed,
          millis,
          keepable: value !== undefined,
          keep,
          toggleTheme,
          toggleStrip,
          showKeys: onKeys,
          step(by) {
            const order = groupByPlace(page.measurements).flatMap((g) => g.rows);
            const to = order[(order.findIndex((m) => m.id === page.selected?.id) + by + order.length) % order.length];
            if (to) page.select(to);
          },
        },
        e.key,
      );
      e.preventDefault();
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
  const { screen: Screen, keypad } = STATION_REGISTRY[station];
  const shown = (
    <Suspense fallback={<p className="waiting pad">Opening the station …</p>}>
      <Screen />
    </Suspense>
  );
  if (!keypad(job))
    return (
      <div className="col">
        {shown}
        {bar}
      </div>
    );
  return (
    <div className="split">
      <div className="col">
        {shown}
        {bar}
      </div>
      <Keypad />
    </div>
  );
}

/** Job, what the rig is doing, what the owner says; undo and the keys. */
function TopBar({ showKeys }: { showKeys(): void }) {
  const page = useJobPage();
  const { job, rig } = page;
  return (
    <header className="top">
      <div className="job">
        <span className="no">{job.number}</span>
        <span className="nm">
          <b>{rig.name}</b>
          {page.practice ? 'no vehicle' : rig.kind}
        </span>
      </div>
      <StatePlate />
      {page.practice ? (
        <Suspense fallback={<span className="grow" />}>
          <PracticeGuide />
        </Suspense>
      ) : (
        <div className="gripe">
          <b>Complaint:</b> {job.complaint.words}
        </div>
      )}
      {/* Practice needs the room, and nobody waits for it. */}
      {!page.practice && <StatusMenu />}
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
      <button type="button" className="keys-btn" onClick={showKeys} aria-label="Show the keys">
        ?
      </button>
    </header>
  );
}

export function BenchScreen({ dialogs }: { dialogs: Dialogs }) {
  const page = useJobPage();
  const { job, station } = page;
  const [keys, showKeys] = useState(false);
  const [slip, setSlip] = useState(false);
  const phone = useMedia(PHONE);
  const narrow = useMedia(NARROW);
  const { ownSlip: hasOwnSlip, strip } = STATION_REGISTRY[station];
  const ownSlip = hasOwnSlip(job);
  const [height, toggleStrip] = useStripHeight(station, strip);
  const tall = height === 'full';
  return (
    <>
      <Keyboard onKeys={() => showKeys(true)} toggleStrip={toggleStrip} />
      {phone ? (
        <Suspense fallback={<p className="boot">Job {job.number} …</p>}>
          <div className="phone">
            <PhoneTop />
            {page.practice && (
              <div className="p-1">
                <PracticeGuide />
              </div>
            )}
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
        </Suspense>
      ) : (
        <div className="app">
          <Rail strip={{ tall, toggle: toggleStrip }} />
          <TopBar showKeys={() => showKeys(true)} />
          <StripBox tall={tall} />
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
      <Suspense fallback={null}>
        {dialogs.lead && <LeadDialog onClose={dialogs.closeLead} />}
        {dialogs.working && <BandDialog {...dialogs.working} onClose={dialogs.closeWorking} />}
        {dialogs.seen && <SeenAndHeard question={dialogs.seen.question} onClose={dialogs.closeSeen} />}
        {keys && <KeysDialog onClose={() => showKeys(false)} />}
      </Suspense>
    </>
  );
}
