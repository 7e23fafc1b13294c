'use client';
/** Suspects with their odds, why, the next best test, the verdict and the repair. */
import { useState } from 'react';
import { madeBy, presentVerdict, standingAnswers, standingChecks } from '../../core/job/job';
import { estimate } from '../../core/price/estimate';
import { showRange } from '../../core/units/money';
import { asDesigned } from '../../core/diagnose/asDesigned';
import { NOTHING_WRONG } from '../../core/diagnose/catalogue/nothingWrong';
import { NOT_ON_LIST } from '../../core/diagnose/catalogue/notOnList';
import type { Clue, Suspect } from '../../core/diagnose/diagnose';
import { judge } from '../../core/probe/judge';
import { showBand, showPercent, showText } from '../../core/units/format';
import { Sign } from '../strip/glyphs';
import { useJobPage, type JobPage } from '../shell/jobPage';
import { AfterVerdict, Repaired } from './AfterVerdict';
import { NextTestBox } from './NextTestBox';
import { ProbabilityWorking } from './ProbabilityWorking';

function Pull({ clue }: { clue: Clue }) {
  const w = clue.strength === 'strong' ? 50 : clue.strength === 'some' ? 34 : 18;
  const m = 52;
  const toward = clue.logOdds > 0;
  return (
    <span className={`pull${toward ? '' : ' clears'}`}>
      <svg width={104} height={20} viewBox="0 0 104 20" aria-hidden="true">
        <path d={`M${m} 0V20`} className="axis" />
        <path
          d={
            toward
              ? `M${m} 4.5H${m + w - 6}L${m + w} 10L${m + w - 6} 15.5H${m}Z`
              : `M${m} 4.5H${m - w + 6}L${m - w} 10L${m - w + 6} 15.5H${m}Z`
          }
          className={toward ? 'arrow' : 'arrow hollow'}
        />
      </svg>
      {clue.strength}
    </span>
  );
}

function ClueRow({ clue, page }: { clue: Clue; page: JobPage }) {
  if (clue.answer !== undefined)
    return (
      <div className="ev">
        <span className="p">seen</span>
        <span className="tx">
          {clue.label}: <b>{clue.answer}</b>
        </span>
        <Pull clue={clue} />
      </div>
    );
  const reading = page.job.readings.find((r) => r.id === clue.reading);
  if (!reading || reading.value === undefined) return null;
  const m = page.measurements.find((x) => x.red === reading.probe && x.black === reading.ref);
  const band = m && page.band(reading.state, m.id);
  return (
    <div className="ev">
      <span className="p">{clue.label}</span>
      <span className="tx">
        {band && <Sign verdict={judge(reading.value, band)} size={12} />} {showText(reading.value, reading.unit)},{' '}
        {page.stateOf(reading.state).label.toLowerCase()}
        {band && <span className="quiet"> · healthy {showBand(band.lo, band.hi, band.unit)}</span>}
      </span>
      <Pull clue={clue} />
    </div>
  );
}

function SuspectRow({ suspect, rank, on, pick }: { suspect: Suspect; rank: number; on: boolean; pick(): void }) {
  const percent = showPercent(suspect.probability);
  return (
    <button type="button" className={`sus${on ? ' on' : ''}`} onClick={pick} aria-pressed={on}>
      <span className="r">{rank}</span>
      <span>
        <span className="nm">{suspect.name}</span>
        <span className="bar" aria-hidden="true">
          <i style={{ width: `${Math.min(99, suspect.probability * 100)}%` }} />
          <u style={{ left: `${suspect.prior * 100}%` }} />
        </span>
      </span>
      <span className="pc">
        {percent} <small>%</small>
      </span>
    </button>
  );
}

const SHOWN = 8;

export function FaultStation() {
  const page = useJobPage();
  const { job, diagnosis, diagnosing, next, settings } = page;
  const [picked, pick] = useState<string>();
  const [working, setWorking] = useState(false);
  const verdict = presentVerdict(job);
  const made = madeBy(job);
  const repair = job.repairs.findLast((r) => !r.withdrawn);
  const put = job.verdicts.find((v) => v.id === repair?.verdict);
  const failed = page.proofs?.filter((p) => p.after && p.after.verdict !== 'ok') ?? [];
  const failedChecks = page.checks?.filter((c) => standingChecks(job, page.epoch).get(c.id)?.result === 'fail') ?? [];
  if (made && !verdict && failed.length + failedChecks.length === 0)
    return made === 'repair' && repair && put ? (
      <Repaired page={page} verdict={put} repair={repair} />
    ) : (
      <div className="empty">
        <p>
          The rig is built as it was proposed. What it reads now is proved under Prove; if a proof fails, its suspects
          are here.
        </p>
        <button type="button" className="bx" onClick={() => page.go('prove')}>
          To the proof
        </button>
      </div>
    );
  if (!diagnosis)
    return (
      <div className="empty">
        <span className="loading loading-dots" aria-hidden="true" />
        <p>Working out what a rig like this could have.</p>
      </div>
    );
  const shown = diagnosis.suspects.slice(0, SHOWN);
  const rest = diagnosis.suspects.slice(SHOWN);
  const chosen = diagnosis.suspects.find((s) => s.fault === picked) ?? diagnosis.suspects[0]!;
  const answered = standingAnswers(job, page.epoch).length;
  const clues = [...chosen.for, ...chosen.against].sort((a, b) => Math.abs(b.logOdds) - Math.abs(a.logOdds));
  return (
    <div className="fault">
      <section className="suspects" aria-label="Suspects">
        <div className="hdln bar-head">
          <b>Suspects</b>
          <span>
            <i className="was" aria-hidden="true" /> before any reading
          </span>
        </div>
        <div className="flex min-h-0 shrink flex-col overflow-y-auto">
          {shown.map((s, i) => (
            <SuspectRow
              key={s.fault}
              suspect={s}
              rank={i + 1}
              on={s.fault === chosen.fault}
              pick={() => pick(s.fault)}
            />
          ))}
        </div>
        <p className="rest">
          <span>
            {rest.length} more, the likeliest of them {showPercent(rest[0]?.probability ?? 0)} %
          </span>
          <b>{showPercent(rest.reduce((sum, s) => sum + s.probability, 0))} %</b>
        </p>
        <button type="button" className="bx seen-btn" onClick={() => page.openSeen()}>
          Seen, heard, tried
          <small>{answered === 0 ? 'click, wedge, ohms, load' : `${answered} answered`}</small>
        </button>
      </section>
      <section className="why" aria-label={`Why ${chosen.name}`} aria-busy={diagnosing}>
        {made && !verdict && (
          <p className="alert alert-error alert-outline" role="status">
            Not proven:{' '}
            {[
              ...failed.map(
                (p) =>
                  `${p.label} at ${page.stateOf(p.state).label.toLowerCase()} reads ${showText(p.after!.value, p.band.unit)}`,
              ),
              ...failedChecks.map((c) => `${c.name} failed`),
            ].join('; ')}
            . The readings since the {made} are the evidence; nothing older speaks of this rig.
          </p>
        )}
        {verdict && <AfterVerdict page={page} verdict={verdict} />}
        <div className="hdln">
          <b>{chosen.name}</b>
          <button type="button" className="inline" onClick={() => setWorking(true)}>
            Show the working
          </button>
        </div>
        <p className="shows">
          It shows when {chosen.shows}.{chosen.confirm && ` Confirm it by: ${chosen.confirm}.`}
        </p>
        {chosen.minutes && chosen.parts && !verdict && (
          <p className="shows">
            <b>{chosen.repair}</b>: {chosen.minutes[0]} to {chosen.minutes[1]} min, about{' '}
            {showRange(
              ...estimate({ minutes: chosen.minutes, parts: chosen.parts }, settings).total,
              settings.currency,
            )}{' '}
            in all (assumed).
          </p>
        )}
        {chosen.fault === NOTHING_WRONG.id && <Explanations page={page} />}
        <div className="clues">
          {clues.length === 0 && <p className="quiet">No reading speaks for or against it yet.</p>}
          {clues.slice(0, 5).map((c) => (
            <ClueRow key={c.reading} clue={c} page={page} />
          ))}
          {clues.length > 5 && <p className="quiet">and {clues.length - 5} weaker</p>}
        </div>
        {diagnosis.contradiction.map((c) => (
          <p key={c.reading} className="alert alert-warning alert-outline" role="status">
            {labelOf(page, c.reading)} does not fit the rest: {c.why} Take it again.
          </p>
        ))}
        {chosen.fault === NOT_ON_LIST.id && <ByHand page={page} />}
        {!verdict && <NextTestBox page={page} declare={chosen} settled={next.kind === 'declare'} />}
      </section>
      {working && <ProbabilityWorking page={page} suspect={chosen} onClose={() => setWorking(false)} />}
    </div>
  );
}

/** Nothing of the list fits: where to look by hand. */
function ByHand({ page }: { page: JobPage }) {
  const odd = (page.diagnosis?.contradiction ?? []).map((c) => labelOf(page, c.reading));
  const leads = page.diagnosis?.suspects[0]?.fault === NOT_ON_LIST.id;
  return (
    <p className="alert alert-warning alert-outline" role="status">
      {leads ? 'None of the listed faults explains these readings together.' : 'Should none of the others prove out:'}
      {odd.length > 0 && ` What fits least: ${odd.join('; ')}.`} Look at clamps and posts, wires somebody added, cable
      thinner than drawn, and whether the drawing is this rig.
    </p>
  );
}

/** Nothing is wrong: what to tell the customer instead. */
function Explanations({ page }: { page: JobPage }) {
  const list = asDesigned(page.rig, page.job.complaint.codes);
  if (list.length === 0) return null;
  return (
    <div className="designed">
      <div className="lab">Operating as designed. For the customer:</div>
      <ul>
        {list.map((row) => (
          <li key={row.id}>{page.words(row.says)}</li>
        ))}
      </ul>
    </div>
  );
}

function labelOf(page: JobPage, readingId: string): string {
  const r = page.job.readings.find((x) => x.id === readingId);
  if (!r) return 'A reading';
  const label = page.rig.probes.find((p) => p.key === r.probe)?.label ?? r.probe;
  return `${label} at ${page.stateOf(r.state).label.toLowerCase()}`;
}
