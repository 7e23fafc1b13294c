'use client';
/** Suspects with their odds, why, the next best test, the verdict and the repair. */
import { clsx } from 'clsx';
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
import { useJobFile, useAnswers, usePlace, useMeasuring, type JobFile } from '../shell/jobPage';
import { AfterVerdict, Repaired } from './AfterVerdict';
import { NextTestBox } from './NextTestBox';
import { ProbabilityWorking } from './ProbabilityWorking';

function Pull({ clue }: { clue: Clue }) {
  const w = clue.strength === 'strong' ? 50 : clue.strength === 'some' ? 34 : 18;
  const m = 52;
  const toward = clue.logOdds > 0;
  return (
    <span
      className={clsx(
        'flex items-center gap-2',
        'font-cond font-bold text-lead',
        'is-clears:font-semibold is-clears:text-ink-2 within-phone:col-start-2',
        `pull${toward ? '' : ' clears'}`,
      )}
    >
      <svg width={104} height={20} viewBox="0 0 104 20" aria-hidden="true">
        <path d={`M${m} 0V20`} className="axis stroke-ink" />
        <path
          d={
            toward
              ? `M${m} 4.5H${m + w - 6}L${m + w} 10L${m + w - 6} 15.5H${m}Z`
              : `M${m} 4.5H${m - w + 6}L${m - w} 10L${m - w + 6} 15.5H${m}Z`
          }
          className={clsx('fill-ink', 'is-hollow:fill-card is-hollow:stroke-ink', toward ? 'arrow' : 'arrow hollow')}
        />
      </svg>
      {clue.strength}
    </span>
  );
}

function ClueRow({ clue }: { clue: Clue }) {
  const file = useJobFile();
  const measuring = useMeasuring();
  if (clue.answer !== undefined)
    return (
      <div
        className={clsx(
          'ev',
          'grid items-center gap-x-2',
          'min-h-8.25 border-b-1 border-rule',
          'text-note leading-close',
          'within-phone:px-0 within-phone:py-1.25',
        )}
      >
        <span className="p font-cond font-bold text-lead whitespace-nowrap">seen</span>
        <span className="tx">
          {clue.label}: <b>{clue.answer}</b>
        </span>
        <Pull clue={clue} />
      </div>
    );
  const reading = file.job.readings.find((r) => r.id === clue.reading);
  if (!reading || reading.value === undefined) return null;
  const m = measuring.measurements.find((x) => x.red === reading.probe && x.black === reading.ref);
  const band = m && measuring.band(reading.state, m.id);
  return (
    <div
      className={clsx(
        'ev',
        'grid items-center gap-x-2',
        'min-h-8.25 border-b-1 border-rule',
        'text-note leading-close',
        'within-phone:px-0 within-phone:py-1.25',
      )}
    >
      <span className="p font-cond font-bold text-lead whitespace-nowrap">{clue.label}</span>
      <span className="tx">
        {band && <Sign verdict={judge(reading.value, band)} size={12} />} {showText(reading.value, reading.unit)},{' '}
        {file.stateOf(reading.state).label.toLowerCase()}
        {band && (
          <span className="quiet">
            {' '}
            · healthy <span className="whitespace-nowrap">{showBand(band.lo, band.hi, band.unit)}</span>
          </span>
        )}
      </span>
      <Pull clue={clue} />
    </div>
  );
}

function SuspectRow({ suspect, rank, on, pick }: { suspect: Suspect; rank: number; on: boolean; pick(): void }) {
  const percent = showPercent(suspect.probability);
  return (
    <button
      type="button"
      className={clsx(
        'grid items-center flex-none gap-x-2',
        'min-h-14 pr-3 pl-2 py-1 border-b-1 border-rule',
        'text-left',
        'is-on:bg-ink is-on:text-paper',
        `sus${on ? ' on' : ''}`,
      )}
      onClick={pick}
      aria-pressed={on}
    >
      <span className="r font-cond font-bold text-figure text-center">{rank}</span>
      <span>
        <span className="block font-semibold text-note leading-close">{suspect.name}</span>
        <span className="bar relative block gap-2 h-3 mt-1.25 border border-current rounded-xs" aria-hidden="true">
          <i
            className="absolute left-0 top-0 bottom-0 bg-current"
            style={{ width: `${Math.min(99, suspect.probability * 100)}%` }}
          />
          <u className="absolute -top-1.5 -bottom-1.5 w-1.5 -ml-0.75" style={{ left: `${suspect.prior * 100}%` }} />
        </span>
      </span>
      <span className="font-cond font-bold text-title text-right leading-none whitespace-nowrap">
        {percent} <small className="text-plain">%</small>
      </span>
    </button>
  );
}

const SHOWN = 8;

export function FaultStation() {
  const file = useJobFile();
  const answers = useAnswers();
  const place = usePlace();
  const { job, settings } = file;
  const { diagnosis, diagnosing } = answers;
  const { next } = place;
  const [picked, pick] = useState<string>();
  const [working, setWorking] = useState(false);
  const verdict = presentVerdict(job);
  const made = madeBy(job);
  const repair = job.repairs.findLast((r) => !r.withdrawn);
  const put = job.verdicts.find((v) => v.id === repair?.verdict);
  const failed = answers.proofs?.filter((p) => p.after && p.after.verdict !== 'ok') ?? [];
  const failedChecks =
    answers.checks?.filter((c) => standingChecks(job, file.epoch).get(c.id)?.result === 'fail') ?? [];
  if (made && !verdict && failed.length + failedChecks.length === 0)
    return made === 'repair' && repair && put ? (
      <Repaired verdict={put} repair={repair} />
    ) : (
      <div>
        <p>
          The rig is built as it was proposed. What it reads now is proved under Prove; if a proof fails, its suspects
          are here.
        </p>
        <button type="button" className="btn" onClick={() => place.go('prove')}>
          To the proof
        </button>
      </div>
    );
  if (!diagnosis)
    return (
      <div
        className={clsx(
          'grid place-content-center justify-items-start gap-3',
          'max-w-160 m-auto px-8 py-6',
          'text-lead leading-snug',
        )}
      >
        <span className="loading loading-dots" aria-hidden="true" />
        <p>Working out what a rig like this could have.</p>
      </div>
    );
  const shown = diagnosis.suspects.slice(0, SHOWN);
  const rest = diagnosis.suspects.slice(SHOWN);
  const chosen = diagnosis.suspects.find((s) => s.fault === picked) ?? diagnosis.suspects[0]!;
  const answered = standingAnswers(job, file.epoch).length;
  const clues = [...chosen.for, ...chosen.against].sort((a, b) => Math.abs(b.logOdds) - Math.abs(a.logOdds));
  return (
    <div className="fault grid h-full min-h-0 within-phone:block within-phone:h-auto">
      <section
        className={clsx(
          'suspects',
          'flex flex-col',
          'min-h-0 overflow-y-auto border-r-2 border-ink',
          'within-phone:overflow-visible within-phone:border-r-0',
        )}
        aria-label="Suspects"
      >
        <div className="hdln flex-none h-9.5 px-3 border-b-2 border-ink">
          <b className="text-head leading-close">Suspects</b>
          <span className="font-medium text-note text-ink-2">
            <i className="was inline-block w-0.5 h-4 mr-1 bg-current align-middle" aria-hidden="true" /> before any
            reading
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
        <p className="flex justify-between gap-2.5 px-3 py-2.25 text-note">
          <span>
            {rest.length} more, the likeliest of them {showPercent(rest[0]?.probability ?? 0)} %
          </span>
          <b>{showPercent(rest.reduce((sum, s) => sum + s.probability, 0))} %</b>
        </p>
        <button
          type="button"
          className="btn seen-btn justify-between mx-3 my-2 whitespace-nowrap"
          onClick={() => answers.openSeen()}
        >
          Seen, heard, tried
          <small className="mt-0 font-medium">
            {answered === 0 ? 'click, wedge, ohms, load' : `${answered} answered`}
          </small>
        </button>
      </section>
      <section
        className={clsx(
          'why',
          'flex flex-col gap-1.5',
          'min-h-0 px-4 pt-2 pb-2.5 overflow-y-auto bg-card',
          'within-phone:overflow-visible within-phone:border-t-2 within-phone:border-ink',
        )}
        aria-label={`Why ${chosen.name}`}
        aria-busy={diagnosing}
      >
        {made && !verdict && (
          <p className="alert alert-error alert-outline" role="status">
            Not proven:{' '}
            {[
              ...failed.map(
                (p) =>
                  `${p.label} at ${file.stateOf(p.state).label.toLowerCase()} reads ${showText(p.after!.value, p.band.unit)}`,
              ),
              ...failedChecks.map((c) => `${c.name} failed`),
            ].join('; ')}
            . The readings since the {made} are the evidence; nothing older speaks of this rig.
          </p>
        )}
        {verdict && <AfterVerdict verdict={verdict} />}
        <div className="hdln">
          <b className="text-head leading-close">{chosen.name}</b>
          <button type="button" className="text-button" onClick={() => setWorking(true)}>
            Show the working
          </button>
        </div>
        <p className="shows text-note text-ink-2 leading-tight">
          It shows when {chosen.shows}.{chosen.confirm && ` Confirm it by: ${chosen.confirm}.`}
        </p>
        {chosen.minutes && chosen.parts && !verdict && (
          <p className="shows text-note text-ink-2 leading-tight">
            <b>{chosen.repair}</b>: {chosen.minutes[0]} to {chosen.minutes[1]} min, about{' '}
            {showRange(
              ...estimate({ minutes: chosen.minutes, parts: chosen.parts }, settings).total,
              settings.currency,
            )}{' '}
            in all (assumed).
          </p>
        )}
        {chosen.fault === NOTHING_WRONG.id && <Explanations />}
        <div className="clues border-t-2 border-ink">
          {clues.length === 0 && <p className="quiet">No reading speaks for or against it yet.</p>}
          {clues.slice(0, 5).map((c) => (
            <ClueRow key={c.reading} clue={c} />
          ))}
          {clues.length > 5 && <p>and {clues.length - 5} weaker</p>}
        </div>
        {diagnosis.contradiction.map((c) => (
          <p key={c.reading} className="alert alert-warning alert-outline" role="status">
            {labelOf(file, c.reading)} does not fit the rest: {c.why} Take it again.
          </p>
        ))}
        {chosen.fault === NOT_ON_LIST.id && <ByHand />}
        {!verdict && <NextTestBox declare={chosen} settled={next.kind === 'declare'} />}
      </section>
      {working && <ProbabilityWorking suspect={chosen} onClose={() => setWorking(false)} />}
    </div>
  );
}

/** Nothing of the list fits: where to look by hand. */
function ByHand() {
  const file = useJobFile();
  const answers = useAnswers();
  const odd = (answers.diagnosis?.contradiction ?? []).map((c) => labelOf(file, c.reading));
  const leads = answers.diagnosis?.suspects[0]?.fault === NOT_ON_LIST.id;
  return (
    <p className="alert alert-warning alert-outline" role="status">
      {leads ? 'None of the listed faults explains these readings together.' : 'Should none of the others prove out:'}
      {odd.length > 0 && ` What fits least: ${odd.join('; ')}.`} Look at clamps and posts, wires somebody added, cable
      thinner than drawn, and whether the drawing is this rig.
    </p>
  );
}

/** Nothing is wrong: what to tell the customer instead. */
function Explanations() {
  const file = useJobFile();
  const list = asDesigned(file.rig, file.job.complaint.codes);
  if (list.length === 0) return null;
  return (
    <div className="grid gap-1 px-2.5 py-1 border-l-4 border-coach text-note leading-tight">
      <div className="lab">Operating as designed. For the customer:</div>
      <ul className="grid gap-1.5">
        {list.map((row) => (
          <li key={row.id}>{file.words(row.says)}</li>
        ))}
      </ul>
    </div>
  );
}

function labelOf(file: JobFile, readingId: string): string {
  const r = file.job.readings.find((x) => x.id === readingId);
  if (!r) return 'A reading';
  const label = file.rig.probes.find((p) => p.key === r.probe)?.label ?? r.probe;
  return `${label} at ${file.stateOf(r.state).label.toLowerCase()}`;
}
