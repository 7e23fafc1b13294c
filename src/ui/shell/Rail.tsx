'use client';
/** Stations in working order; each says what it still lacks. */
import { LayoutList, Moon, Sun } from 'lucide-react';
import Link from 'next/link';
import { builtOf, madeBy, presentVerdict, standingChecks, standingChoice, standingSignOff } from '../../core/job/job';
import { STATIONS, useJobPage, type Station } from './jobPage';
import { useTheme } from '../theme';

const NAMES: Record<Station, string> = {
  intake: 'Intake',
  rig: 'Rig',
  readings: 'Readings',
  fault: 'Fault',
  options: 'Options',
  sizing: 'Sizing',
  build: 'Build',
  prove: 'Prove',
  logbook: 'Logbook',
};

type Pip = 'done' | 'part' | 'wait';

function PipMark({ pip }: { pip: Pip }) {
  return (
    <svg width={14} height={14} viewBox="-7 -7 14 14" aria-hidden="true" className={`pip ${pip}`}>
      {pip === 'done' ? (
        <>
          <circle r={6} className="pf" />
          <path d="M-2.8 .2L-.8 2.2L3-2" className="pt" />
        </>
      ) : (
        <circle r={5.5} className="pc" strokeDasharray={pip === 'wait' ? '3 2.4' : undefined} />
      )}
      {pip === 'part' && <path d="M0 0V-5.5A5.5 5.5 0 0 1 0 5.5Z" className="pf" />}
    </svg>
  );
}

export function Rail() {
  const page = useJobPage();
  const { job, rig, station, readings, diagnosis, proofs, checks } = page;
  const measuredShare = rig.parts.filter((p) =>
    Object.values(p.params).some((x) => x.provenance === 'measured'),
  ).length;
  const [theme, toggle] = useTheme();
  const taken = readings.filter((r) => r.status === 'measured').length;
  const verdict = presentVerdict(job);
  const choice = standingChoice(job);
  const made = madeBy(job);
  const signed = standingSignOff(job);
  const results = standingChecks(job, page.epoch);
  const due = checks?.filter((c) => c.required) ?? [];
  const proved =
    (proofs?.filter((p) => p.after?.verdict === 'ok').length ?? 0) +
    due.filter((c) => results.get(c.id)?.result !== undefined && results.get(c.id)!.result !== 'fail').length;
  const toProve = (proofs?.length ?? 0) + due.length;
  const marks: Record<Station, [Pip, string]> = {
    intake: [
      job.complaint.codes.length + job.intake.facts.length === 0
        ? 'wait'
        : job.intake.facts.length > 0
          ? 'done'
          : 'part',
      job.intake.facts.length === 0 ? 'complaint only' : `${job.complaint.codes.length + job.intake.facts.length} told`,
    ],
    rig: [measuredShare > 0 ? 'part' : 'wait', `${rig.parts.length} parts`],
    readings: [
      verdict || diagnosis?.stop.reached ? 'done' : taken > 0 ? 'part' : 'wait',
      verdict || diagnosis?.stop.reached ? 'enough' : `${taken} taken`,
    ],
    fault: verdict
      ? ['part', 'declared']
      : made === 'repair' && !diagnosis
        ? ['done', 'repaired']
        : diagnosis?.stop.reached
          ? ['part', 'settled']
          : ['wait', 'open'],
    options: choice ? ['done', 'picked'] : ['wait', job.usage.scenarios.length > 0 ? 'use is set' : 'to compare'],
    sizing: choice ? ['part', 'to check'] : ['wait', 'as it is'],
    build: !choice
      ? ['wait', 'nothing picked']
      : builtOf(job, choice.revision)
        ? ['done', 'built']
        : job.build?.candidate === choice.candidate && job.build.done.length > 0
          ? ['part', `${job.build.done.length} done`]
          : ['wait', 'planned'],
    prove: signed
      ? ['done', 'signed']
      : !made
        ? ['wait', 'not yet']
        : proofs && proved === toProve
          ? ['done', 'proven']
          : ['part', `${proved} of ${toProve}`],
    logbook: page.visits.length > 0 ? ['done', `${page.visits.length + 1} visits`] : ['part', 'first visit'],
  };
  return (
    <nav className="rail" aria-label="Stations">
      <Link href="/" className="word" aria-label="Surrik, all jobs">
        <LayoutList size={18} aria-hidden="true" />
        <span>Surrik</span>
      </Link>
      {STATIONS.map((s, i) => {
        const [pip, words] = marks[s];
        const here = s === station;
        return (
          <Link
            key={s}
            href={`/jobs/${job.number}/${s}`}
            className={`stn${here ? ' here' : pip === 'wait' ? ' todo' : ''}`}
            aria-current={here ? 'step' : undefined}
          >
            <span className="l">
              <span className="n">{i + 1}</span>
              <PipMark pip={pip} />
            </span>
            <span className="tx">
              <span className="t">{NAMES[s]}</span>
              <span className="m">{words}</span>
            </span>
          </Link>
        );
      })}
      <button type="button" className="railbtn" onClick={toggle}>
        {theme === 'carbon' ? <Sun size={18} aria-hidden="true" /> : <Moon size={18} aria-hidden="true" />}
        <span>{theme === 'carbon' ? 'Light' : 'Dark'}</span>
      </button>
    </nav>
  );
}
