'use client';
/** The bench slip: the next action, what is established, cautions. Cautions are never the part that is cut. */
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
import { readingOf, useJobPage, type JobPage } from './jobPage';
import { LeadLines } from '../readings/Leads';
import { useTyped } from '../typed';
import { Cautions } from './Slip';

/** The next action as a button; while something is typed the keypad's Keep holds the highlighter. */
export function NextButton({ className = '' }: { className?: string }) {
  const { next, act, whyNot } = useJobPage();
  const typed = useTyped().text;
  if (next.kind === 'own') return <p className="waiting">{next.words}.</p>;
  if (next.kind === 'wait') return <p className="waiting">{next.words} …</p>;
  const others = notMine(next, whyNot);
  if (others)
    return (
      <p className="waiting" role="note">
        <b>{next.words}.</b> {others}
      </p>
    );
  return (
    <button type="button" className={`bx next${typed === '' ? ' go' : ''} ${className}`} onClick={act}>
      <span>
        {next.words}
        {(next.kind === 'measure' || next.kind === 'ask' || next.kind === 'check') && (
          <small>about {next.minutes.toFixed(next.minutes < 9.5 ? 1 : 0)} min</small>
        )}
      </span>
      <ArrowRight size={22} aria-hidden="true" />
    </button>
  );
}

/** The state's cautions, or those of the state one is about to change to. */
export function cautionsOf(page: JobPage): readonly string[] {
  const state = page.next.kind === 'change-state' ? page.next.state : page.job.rigState.id;
  const fault = page.diagnosis?.suspects.find((s) => s.fault === presentVerdict(page.job)?.fault);
  return [...page.stateOf(state).cautions, ...(fault?.caution ? [fault.caution] : [])];
}

/** The link's contact in milliohms, where its drop and its amps were both taken in one state. */
function contacts(page: JobPage): ReactNode[] {
  const { rig, readings } = page;
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
      <li key={`contact ${state}`}>
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
export function established(page: JobPage): ReactNode[] {
  const lines: { bad: boolean; node: ReactNode }[] = [];
  for (const m of page.measurements) {
    for (const state of new Set(page.readings.map((r) => r.state))) {
      const r = readingOf(page.readings, state, m);
      const band = page.band(state, m.id);
      if (r?.value === undefined || !band) continue;
      const verdict = judge(r.value, band);
      lines.push({
        bad: verdict !== 'ok',
        node: (
          <li key={r.id}>
            <Sign verdict={verdict} size={15} />
            <span>
              {m.name}: {showText(r.value, r.unit)}, {page.stateOf(state).label.toLowerCase()}
            </span>
          </li>
        ),
      });
    }
  }
  return [
    ...contacts(page),
    ...lines.filter((l) => l.bad).map((l) => l.node),
    ...lines.filter((l) => !l.bad).map((l) => l.node),
  ];
}

export function BenchSlip() {
  const page = useJobPage();
  const { next, diagnosing } = page;
  const lines = established(page);
  const cautions = cautionsOf(page);
  const tips = next.kind === 'measure' ? techniqueFor(page.described, next.measurement, page.job.rigState.id) : [];
  return (
    <aside className="slip" aria-label="Bench slip">
      <h2>
        Bench slip <span>{diagnosing ? 'thinking' : ''}</span>
      </h2>
      {next.kind === 'change-state' && <div className="lab">First, the rig must be doing something else</div>}
      <NextButton />
      {next.kind === 'measure' && <LeadLines red={next.measurement.red} black={next.measurement.black} />}
      {tips.map((t) => (
        <p key={t} className="tip">
          {page.words(t)}
        </p>
      ))}
      {next.kind === 'change-state' && (
        <div className="then">
          <div className="lab">Then</div>
          <b>{next.then}</b>
        </div>
      )}
      <h3>Cautions</h3>
      <Cautions list={cautions} />
      <h3>Established</h3>
      <div className="slip-scroll" tabIndex={0} role="region" aria-label="Established">
        {lines.length === 0 ? (
          <p className="quiet">Nothing yet: the first reading starts it.</p>
        ) : (
          <ul className="est">{lines.slice(0, 4)}</ul>
        )}
        {lines.length > 4 && <p className="quiet">and {lines.length - 4} more on the sheet</p>}
      </div>
    </aside>
  );
}
