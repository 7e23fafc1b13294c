'use client';
/** The slip of the Options station: what to pick and why, how close it is, cautions; or what was picked. */
import { clsx } from 'clsx';
import { ArrowRight, CircleCheck, TriangleAlert } from 'lucide-react';
import { partKind } from '../../core/parts/kinds';
import type { Rig } from '../../core/rig/schema';
import { has } from '../../core/rig/value';
import { standingChoice, standingVerdict } from '../../core/job/job';
import type { Comparison } from '../../core/plan/compare';
import type { Influence } from '../../core/plan/sensitivity';
import { LETTERS } from '../../core/plan/letters';
import { useJobFile, usePlace, useEntries } from '../shell/jobPage';
import { Slip } from '../shell/Slip';

/** What must be said wherever heavy links are planned. */
const cautionsOf = (rig: Rig): string[] => [
  'Engine off before any link, battery or fuse is opened.',
  ...(rig.parts.some((p) => p.options?.['chemistry'] === 'lfp') && has(rig, 'solenoid')
    ? ['Lithium on a direct link: when its BMS opens, the alternator sees a load dump.']
    : []),
  ...new Set(rig.parts.flatMap((p) => partKind(p.kind).cautions)),
  'Local codes, upfit limit and licensed practice come first.',
];

interface Props {
  comparison: Comparison | undefined;
  picked: string;
  influences: readonly Influence[];
  choose(): void;
  spreadBar: React.ReactNode;
}

export function OptionSlip(props: Props) {
  const { job } = useJobFile();
  return standingChoice(job) ? <PickedSlip comparison={props.comparison} /> : <PickSlip {...props} />;
}

/** What was picked, and what it changes. */
function PickedSlip({ comparison }: Pick<Props, 'comparison'>) {
  const { job, words } = useJobFile();
  const { go } = usePlace();
  const { send } = useEntries();
  const choice = standingChoice(job)!;
  const row = comparison?.rows.find((r) => r.candidate.id === choice.candidate);
  const changes = row?.candidate.differences ?? [];
  return (
    <Slip
      cautions={row ? cautionsOf(row.candidate.rig) : []}
      action={
        <>
          <div className="grid gap-0.75 px-2.75 py-2.25 border-2 border-ink rounded">
            <span className="lab">Picked</span>
            <b className="font-cond text-figure leading-close">{words(choice.name)}</b>
          </div>
          {choice.revision && (
            <button type="button" className="btn next btn-accent" onClick={() => go('sizing')}>
              <span>Size its cables and fuses</span>
              <ArrowRight size={22} aria-hidden="true" />
            </button>
          )}
        </>
      }
    >
      <p className="reasons overflow-y-auto text-note leading-tight">{choice.reasons}</p>
      {changes.length > 0 && (
        <>
          <h3>What changes on the rig</h3>
          <div
            className="flex-1 min-h-0 overflow-y-auto"
            tabIndex={0}
            role="region"
            aria-label="What changes on the rig"
          >
            <ul className="grid gap-1.25 mt-1 mb-2 text-fine leading-tight">
              {changes.map((d) => (
                <li className="flex justify-between gap-2 py-0.75 border-b-1 border-rule" key={`${d.kind}${d.id}`}>
                  {words(d.says)}
                </li>
              ))}
            </ul>
          </div>
        </>
      )}
      <div className="grid grid-cols-2 gap-x-3 gap-y-2">
        <button type="button" className="btn" onClick={() => go('fault')}>
          To the verdict
        </button>
        <button type="button" className="btn" onClick={() => send('option.withdraw', { id: choice.id })}>
          Take the pick back
        </button>
      </div>
    </Slip>
  );
}

function PickSlip({ comparison, picked, influences, choose, spreadBar }: Props) {
  const { words } = useJobFile();
  const row = comparison?.rows.find((r) => r.candidate.id === picked);
  if (!comparison || !row)
    return <Slip cautions={[]} action={<p className="waiting py-2 text-note text-ink-2">Comparing …</p>} />;
  const best = comparison.recommendation;
  const isBest = best?.pick === picked;
  return (
    <Slip
      cautions={cautionsOf(row.candidate.rig)}
      action={
        <button type="button" className={`btn next${isBest ? ' btn-accent' : ''}`} onClick={choose}>
          <span>
            {row.candidate.id === 'leave'
              ? 'Leave it as it is'
              : `Pick ${letterOf(comparison, picked)}, ${words(row.candidate.name)}`}
            {row.scored.ruledOut.length > 0 && <small>against what was found: read it first</small>}
          </span>
          <ArrowRight size={22} aria-hidden="true" />
        </button>
      }
    >
      <div className="flex-1 min-h-0 overflow-y-auto" tabIndex={0} role="region" aria-label="Reasons">
        {isBest && best ? (
          <Reasons comparison={comparison} best={best} />
        ) : (
          <p className="my-1.5 text-fine leading-tight">
            {best
              ? `Recommended is ${letterOf(comparison, best.pick)}.`
              : 'None of these serves this use as it is: look at why under Events, change the use, or compare other links.'}
          </p>
        )}
        {spreadBar}
        {influences.length > 0 && (
          <>
            <h3>Arrival charge depends most on</h3>
            <ul className="grid gap-1.25 mt-1 mb-2 text-fine leading-tight">
              {influences.map((i) => (
                <li className="flex justify-between gap-2 py-0.75 border-b-1 border-rule" key={i.key}>
                  <span>
                    {words(i.label)} <small>{i.assumed ? 'assumed' : 'known'}</small>
                  </span>
                  <b>{Math.round(i.share * 100)} %</b>
                </li>
              ))}
            </ul>
          </>
        )}
      </div>
    </Slip>
  );
}

const letterOf = (comparison: Comparison, id: string): string =>
  LETTERS[comparison.rows.findIndex((r) => r.candidate.id === id)] ?? '';

/** Why the recommended one, and how close the next is. */
function Reasons({ comparison, best }: { comparison: Comparison; best: NonNullable<Comparison['recommendation']> }) {
  const { job, words } = useJobFile();
  const runner = best.runnerUp && comparison.rows.find((r) => r.candidate.id === best.runnerUp!.candidate);
  return (
    <>
      <h3>Why {letterOf(comparison, best.pick)}</h3>
      {job.complaint.codes.length > 0 && !standingVerdict(job) && (
        <p className="text-sm opacity-80">
          No fault is declared yet: all are compared as if what was complained of were put right.
        </p>
      )}
      <ul className="owhy grid gap-1.25 mt-1 mb-2 text-fine leading-tight">
        {best.reasons.map((r) => (
          <li key={r.says} className={clsx('grid grid-cols-icon gap-1.5', r.good ? '' : 'bad')}>
            {r.good ? <CircleCheck size={16} aria-hidden="true" /> : <TriangleAlert size={16} aria-hidden="true" />}
            <span>{words(r.says)}</span>
          </li>
        ))}
      </ul>
      {runner && best.runnerUp && (
        <p className="my-1.5 text-fine leading-tight">
          {best.runnerUp.close ? (
            <>
              <b>Close:</b> {letterOf(comparison, runner.candidate.id)}, {words(runner.candidate.name)}, is only{' '}
              {best.runnerUp.behind.toFixed(0)} points away. Taste decides.
            </>
          ) : (
            <>
              Next is {letterOf(comparison, runner.candidate.id)}, {best.runnerUp.behind.toFixed(0)} points behind.
            </>
          )}
        </p>
      )}
    </>
  );
}
