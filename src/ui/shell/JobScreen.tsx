'use client';
/** The job page: rail, top bar, strip, station, slip; or one probe at a time on a phone. */
import { clsx } from 'clsx';
import { ChevronUp, Undo2 } from 'lucide-react';
import { Suspense, useEffect, useState, type ReactNode } from 'react';
import type { Measurement } from '../../core/probe/measurement';
import { undoWords } from '../../core/job/applyCommand';
import { Keypad, useKeep } from '../readings/Keypad';
import { groupByPlace } from '../readings/ReadingSheet';
import { StateChooser } from '../readings/StateChooser';
import { StatePlate } from '../readings/StatePlate';
import { lazyPart } from '../lazyPart';
import { useTheme } from '../theme';
import { useTyped } from '../typed';
import { NARROW, PHONE, useMedia } from '../useMedia';
import { hotkeyFor } from './hotkeys';
import { useMeasuring, useAnswers, usePlace, useEntries, useJobFile } from './jobPage';
import { BenchSlip, NextButton } from './NextSlip';
import { Rail } from './Rail';
import { STATION_REGISTRY } from './stationRegistry';
import { StatusMenu } from './StatusMenu';
import { StripBox } from './StripBox';
import { useStripHeight } from './stripHeight';

// Not on the way to the first reading at a bench: their scripts come when they are opened.
const SeenAndHeard = lazyPart(() => import('../fault/SeenAndHeard'), 'SeenAndHeard');
const BandDialog = lazyPart(() => import('./dialogs'), 'BandDialog');
const KeysDialog = lazyPart(() => import('./dialogs'), 'KeysDialog');
const LeadDialog = lazyPart(() => import('./dialogs'), 'LeadDialog');
const PracticeGuide = lazyPart(() => import('./PracticeGuide'), 'PracticeGuide');
const PhoneTop = lazyPart(() => import('./Phone'), 'PhoneTop');
const PhoneReadings = lazyPart(() => import('./Phone'), 'PhoneReadings');
const NextBar = lazyPart(() => import('./Phone'), 'NextBar');

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
  const measuring = useMeasuring();
  const answers = useAnswers();
  const place = usePlace();
  const entries = useEntries();
  const { text: typed, millis } = useTyped();
  const { keep, value } = useKeep();
  const [, toggleTheme] = useTheme();
  useEffect(() => {
    const onKey = (e: KeyboardEvent) => {
      const target = e.target as HTMLElement;
      const writing = target.closest('input, textarea, select') !== null;
      if ((e.ctrlKey || e.metaKey) && e.key === 'z' && !writing) {
        entries.undo();
        e.preventDefault();
        return;
      }
      if (e.ctrlKey || e.metaKey || e.altKey || writing || document.querySelector('dialog[open]')) return;
      const hotkey = hotkeyFor(e.key, STATION_REGISTRY[place.station].chartKeys);
      if (!hotkey) return;
      // Whatever was touched last holds the focus: what is typed is kept first, else a button does its own.
      if (e.key === 'Enter' && typed === '' && target.closest('button, a, [role="button"]')) return;
      if (e.key === 'Enter') e.stopPropagation();
      hotkey.run(
        {
          measuring: measuring,
          answers: answers,
          place: place,
          entries: entries,
          typed,
          millis,
          keepable: value !== undefined,
          keep,
          toggleTheme,
          toggleStrip,
          showKeys: onKeys,
          step(by) {
            const order = groupByPlace(measuring.measurements).flatMap((g) => g.rows);
            const to =
              order[(order.findIndex((m) => m.id === measuring.selected?.id) + by + order.length) % order.length];
            if (to) measuring.select(to);
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
    <div className="bar flex gap-2 px-2 py-1.75 border-t-2 border-ink bg-paper">
      <NextButton className="grow" />
      <button
        type="button"
        className="btn max-narrow:flex-col max-narrow:gap-0 max-narrow:w-21 max-narrow:p-0 max-narrow:text-lead"
        onClick={toggle}
        aria-expanded={open}
      >
        <ChevronUp size={20} aria-hidden="true" />
        Slip
      </button>
    </div>
  );
}

/** A station over its bar; on a phone they follow one another. */
const COLUMN = 'grid h-full min-h-0 min-w-0 grid-rows-foot within-phone:block within-phone:h-auto';

/** The station; the bar stands under its left column, so that the keypad keeps its height. */
function Main({ bar }: { bar: ReactNode }) {
  const { job } = useJobFile();
  const { station } = usePlace();
  const { screen: Screen, keypad } = STATION_REGISTRY[station];
  const shown = (
    <Suspense fallback={<p className="waiting py-2 text-note text-ink-2">Opening the station …</p>}>
      <Screen />
    </Suspense>
  );
  if (!keypad(job))
    return (
      <div className={COLUMN}>
        {shown}
        {bar}
      </div>
    );
  return (
    <div className="split grid grid-cols-slip min-h-0 h-full within-phone:block within-phone:h-auto">
      <div className={COLUMN}>
        {shown}
        {bar}
      </div>
      <Keypad />
    </div>
  );
}

/** Job, what the rig is doing, what the owner says; undo and the keys. */
function TopBar({ showKeys }: { showKeys(): void }) {
  const file = useJobFile();
  const entries = useEntries();
  const { job, rig } = file;
  return (
    <header
      className={clsx(
        'top',
        'flex items-stretch gap-3',
        'min-w-0 pr-2.5 pl-3 py-1.25 border-b border-ink',
        'max-narrow:flex-wrap',
      )}
    >
      <div
        className={clsx(
          'job',
          'flex items-center flex-none gap-2.25',
          'pr-3 border-r border-dashed border-rule',
          'max-narrow:min-h-11.5',
        )}
      >
        <span className="no font-cond font-bold text-display leading-none">{job.number}</span>
        <span
          className={clsx(
            'max-w-47.5 overflow-hidden',
            'font-cond text-note text-ink-2 text-ellipsis leading-close whitespace-nowrap',
          )}
        >
          <b className="block text-large text-ink">{rig.name}</b>
          {file.practice ? 'no vehicle' : rig.kind}
        </span>
      </div>
      <StatePlate />
      {file.practice ? (
        <Suspense fallback={<span className="flex-1" />}>
          <PracticeGuide />
        </Suspense>
      ) : (
        <div
          className={clsx(
            'self-center flex-1',
            'min-w-0',
            'text-fine leading-tight',
            'max-narrow:order-9 max-narrow:basis-full max-narrow:px-0 max-narrow:py-0.5',
          )}
        >
          <b className="font-semibold">Complaint:</b> {job.complaint.words}
        </div>
      )}
      {/* Practice needs the room, and nobody waits for it. */}
      {!file.practice && <StatusMenu />}
      <button
        type="button"
        className={clsx(
          'inline-flex flex-none items-center justify-center',
          'w-11 border border-ink rounded bg-card',
          'font-cond font-bold text-head',
          'disabled:opacity-40 max-narrow:min-h-11.5 max-narrow:ml-auto',
        )}
        onClick={entries.undo}
        disabled={entries.undoable === undefined}
        aria-label={entries.undoable === undefined ? 'Nothing to undo' : `Undo: ${undoWords(entries.undoable)}`}
        title={entries.undoable === undefined ? 'Nothing to undo' : `Undo: ${undoWords(entries.undoable)}`}
      >
        <Undo2 size={20} aria-hidden="true" />
      </button>
      <button
        type="button"
        className={clsx(
          'inline-flex flex-none items-center justify-center',
          'w-11 border border-ink rounded bg-card',
          'font-cond font-bold text-head',
          'disabled:opacity-40 max-narrow:min-h-11.5 max-narrow:ml-auto',
        )}
        onClick={showKeys}
        aria-label="Show the keys"
      >
        ?
      </button>
    </header>
  );
}

/**
 * @param notices what is not yet safe, or was not taken: on a phone above everything, else at the foot of the left column,
 * so that they lie on nothing one presses and the keypad keeps its height
 */
export function BenchScreen({ notices, dialogs }: { notices: ReactNode; dialogs: Dialogs }) {
  const file = useJobFile();
  const { job } = file;
  const { station } = usePlace();
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
          <div className="phone flex flex-col h-dvh min-w-0 overflow-x-hidden overflow-y-auto">
            {notices}
            <PhoneTop />
            {file.practice && (
              <div className="p-1">
                <PracticeGuide />
              </div>
            )}
            {station === 'readings' ? (
              <PhoneReadings />
            ) : (
              <>
                <main className="pscroll min-h-0 overflow-y-auto bg-card">
                  <Main bar={null} />
                </main>
                {!ownSlip && <NextBar cautions />}
              </>
            )}
          </div>
        </Suspense>
      ) : (
        <div className="app grid h-dvh overflow-hidden">
          <Rail strip={{ tall, toggle: toggleStrip }} />
          <TopBar showKeys={() => showKeys(true)} />
          <StripBox tall={tall} />
          {ownSlip ? (
            // It has a slip of its own: what is next here is to pick a link.
            <main className="optwork min-w-0 min-h-0 overflow-hidden">
              <Main bar={notices} />
            </main>
          ) : (
            <section className="work grid grid-cols-slip min-w-0 min-h-0 max-narrow:relative max-narrow:grid-cols-1">
              <main className="min-w-0 min-h-0 overflow-hidden">
                <Main
                  bar={
                    <div className="min-w-0">
                      {notices}
                      {narrow && <SlipBar open={slip} toggle={() => setSlip(!slip)} />}
                    </div>
                  }
                />
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
