'use client';
/** The bench slip: the next action, what is established, cautions. Cautions are never the part that is cut. */
import { clsx } from 'clsx';
import { partWith } from '../../core/rig/value';
import { ArrowRight } from 'lucide-react';
import type { ReactNode } from 'react';
import { presentVerdict } from '../../core/job/job';
import { contactVerdict } from '../../core/probe/contact';
import { judge } from '../../core/probe/judge';
import { techniqueFor } from '../../core/probe/technique';
import { showText } from '../../core/units/format';
import { Sign } from '../strip/glyphs';
import { notMine } from './nextAction';
import {
  readingOf,
  usePlace,
  useEntries,
  useJobFile,
  useMeasuring,
  useAnswers,
  type JobFile,
  type Answers,
  type Place,
  type Measuring,
} from './jobPage';
import { LeadLines } from '../readings/Leads';
import { useTyped } from '../typed';
import { Cautions } from './Slip';

/** The next action as a button; while something is typed the keypad's Keep holds the highlighter. */
export function NextButton({ className = '' }: { className?: string }) {
  const { next, act } = usePlace();
  const { whyNot } = useEntries();
  const typed = useTyped().text;
  if (next.kind === 'own') return <p className="waiting py-2 text-note text-ink-2">{next.words}.</p>;
  const others = notMine(next, whyNot);
  if (others)
    return (
      <p className="waiting py-2 text-note text-ink-2" role="note">
        <b>{next.words}.</b> {others}
      </p>
    );
  // While it is worked out it stands where it will stand: nothing jumps under the thumb, and the focus stays.
  const waiting = next.kind === 'wait';
  return (
    <button
      type="button"
      className={clsx('is-grow:flex-1 is-wide:w-full btn next', typed === '' && !waiting && 'btn-accent', className)}
      aria-disabled={waiting || undefined}
      onClick={act}
    >
      <span className="text-balance">
        {next.words}
        {waiting && ' …'}
        {(next.kind === 'measure' || next.kind === 'ask' || next.kind === 'check') && (
          <small>about {next.minutes.toFixed(next.minutes < 9.5 ? 1 : 0)} min</small>
        )}
      </span>
      {!waiting && <ArrowRight size={22} aria-hidden="true" />}
    </button>
  );
}

/** The state's cautions, or those of the state one is about to change to. */
export function cautionsOf({ job, stateOf }: JobFile, { diagnosis }: Answers, { next }: Place): readonly string[] {
  const state = next.kind === 'change-state' ? next.state : job.rigState.id;
  const fault = diagnosis?.suspects.find((s) => s.fault === presentVerdict(job)?.fault);
  return [...stateOf(state).cautions, ...(fault?.caution ? [fault.caution] : [])];
}

/** The link's contact in milliohms, where its drop and its amps were both taken in one state. */
function contacts({ rig }: JobFile, { readings }: Measuring): ReactNode[] {
  const link = partWith(rig, 'solenoid');
  const cable = rig.conductors.find((c) => c.from.part === link?.id && c.use === 'feed');
  if (!link || !cable) return [];
  return [...new Set(readings.map((r) => r.state))].flatMap((state): ReactNode[] => {
    const drop = readings.find(
      (r) => r.state === state && r.probe === `${link.id}.chassis-stud` && r.ref === `${link.id}.coach-stud`,
    )?.value;
    const amps = readings.find((r) => r.state === state && r.probe === `${cable.id}.clamp`)?.value;
    if (drop === undefined || amps === undefined) return [];
    const { milliohms, says } = contactVerdict(drop, amps);
    return [
      <li className="grid grid-cols-icon items-start gap-1.5 text-fine leading-tight" key={`contact ${state}`}>
        {says === 'good' || says === 'replace' ? (
          <Sign verdict={says === 'good' ? 'ok' : 'high'} size={15} />
        ) : (
          <span aria-hidden="true">–</span>
        )}
        <span>
          {link.name} contact: {Number.isFinite(milliohms) ? `${milliohms.toFixed(1)} mΩ` : 'no current'} at{' '}
          {showText(amps, 'A')}, {says}
        </span>
      </li>,
    ];
  });
}

/** What the readings at hand establish, worst first, in one line each. */
export function established(file: JobFile, measuring: Measuring): ReactNode[] {
  const lines: { bad: boolean; node: ReactNode }[] = [];
  for (const m of measuring.measurements) {
    for (const state of new Set(measuring.readings.map((r) => r.state))) {
      const r = readingOf(measuring.readings, state, m);
      const band = measuring.band(state, m.id);
      if (r?.value === undefined || !band) continue;
      const verdict = judge(r.value, band);
      lines.push({
        bad: verdict !== 'ok',
        node: (
          <li className="grid grid-cols-icon items-start gap-1.5 text-fine leading-tight" key={r.id}>
            <Sign verdict={verdict} size={15} />
            <span>
              {m.name}: {showText(r.value, r.unit)}, {file.stateOf(state).label.toLowerCase()}
            </span>
          </li>
        ),
      });
    }
  }
  return [
    ...contacts(file, measuring),
    ...lines.filter((l) => l.bad).map((l) => l.node),
    ...lines.filter((l) => !l.bad).map((l) => l.node),
  ];
}

export function BenchSlip() {
  const file = useJobFile();
  const measuring = useMeasuring();
  const answers = useAnswers();
  const place = usePlace();
  const { diagnosing } = answers;
  const { next } = place;
  const lines = established(file, measuring);
  const cautions = cautionsOf(file, answers, place);
  const tips = next.kind === 'measure' ? techniqueFor(file.described, next.measurement, file.job.rigState.id) : [];
  return (
    <aside
      className={clsx(
        'slip',
        'relative flex flex-col gap-1.75',
        'min-h-0 pr-3 pl-5.25 pt-2.25 pb-2 overflow-hidden border-l-2 border-ink bg-card',
        'max-narrow:absolute max-narrow:right-0 max-narrow:top-0 max-narrow:bottom-17.5',
        'max-narrow:z-5 max-narrow:w-75 max-narrow:border-t-0',
      )}
      aria-label="Bench slip"
    >
      <h2 className="flex justify-between items-baseline font-cond font-bold text-head leading-none">
        Bench slip <span className="font-semibold text-note text-ink-2">{diagnosing ? 'thinking' : ''}</span>
      </h2>
      {next.kind === 'change-state' && <div className="lab">First, the rig must be doing something else</div>}
      <NextButton />
      {next.kind === 'measure' && <LeadLines red={next.measurement.red} black={next.measurement.black} />}
      {tips.map((t) => (
        <p key={t} className="pl-2 border-l-3 border-rule text-fine text-ink-2 leading-tight">
          {file.words(t)}
        </p>
      ))}
      {next.kind === 'change-state' && (
        <div className="px-2.5 py-1.75 border border-dashed border-ink-3 rounded font-cond text-large leading-close">
          <div className="lab">Then</div>
          <b>{next.then}</b>
        </div>
      )}
      <h3>Cautions</h3>
      <Cautions list={cautions} />
      <h3>Established</h3>
      <div className="flex-1 min-h-0 overflow-y-auto" tabIndex={0} role="region" aria-label="Established">
        {lines.length === 0 ? (
          <p className="quiet">Nothing yet: the first reading starts it.</p>
        ) : (
          <ul className="grid gap-1.25">{lines.slice(0, 4)}</ul>
        )}
        {lines.length > 4 && <p className="quiet">and {lines.length - 4} more on the sheet</p>}
      </div>
    </aside>
  );
}
