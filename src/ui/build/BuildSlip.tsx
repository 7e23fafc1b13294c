'use client';
/** The slip of the Build station: the one next step, how far it is, what is still to come by, cautions. */
import { ArrowRight } from 'lucide-react';
import type { Build } from '../../core/job/job';
import type { BuildPlan } from '../../core/plan/build/build';
import type { BuildStep } from '../../core/plan/build/graph';
import { useJobFile, usePlace } from '../shell/jobPage';
import { Slip } from '../shell/Slip';

const CAUTIONS = [
  'Negative off first; on again with the fuses out. Fuses go in last: the spark is away from the battery.',
  'Never open a battery or link while the engine charges.',
  'Local codes, the maker’s upfit guide and licensed practice come first.',
] as const;

interface BuildSlipProps {
  plan: BuildPlan | undefined;
  build: Build;
  next: BuildStep | undefined;
  finished: boolean;
  finish(step: string): void;
  complete(): void;
}

export function BuildSlip({ plan, build, next, finished, finish, complete }: BuildSlipProps) {
  const { words } = useJobFile();
  const { go } = usePlace();
  const number = plan && next ? plan.steps.indexOf(next) + 1 : 0;
  const took = build.done.reduce((sum, d) => sum + (d.minutes ?? 0), 0);
  const missing =
    plan?.parts.filter((l) => l.group === 'part' && !['have', 'arrived'].includes(build.ticks[l.id] ?? '')) ?? [];
  return (
    <Slip
      cautions={CAUTIONS}
      action={
        !plan ? (
          <p className="waiting py-2 text-note text-ink-2">Working out …</p>
        ) : finished ? (
          <>
            <p className="text-note leading-tight">
              Built: the rig is described as it is now. What it reads is proved afresh.
            </p>
            <button type="button" className="btn next btn-accent" onClick={() => go('prove')}>
              <span>Prove it</span>
              <ArrowRight size={22} aria-hidden="true" />
            </button>
          </>
        ) : next ? (
          <button type="button" className="btn next btn-accent" onClick={() => finish(next.id)}>
            <span>
              Done: step {number}
              <small>{words(next.title)}</small>
            </span>
            <ArrowRight size={22} aria-hidden="true" />
          </button>
        ) : plan.steps.length > 0 ? (
          <button type="button" className="btn next btn-accent" onClick={complete}>
            <span>
              It is built
              <small>A new version of the rig; older readings no longer speak of it.</small>
            </span>
            <ArrowRight size={22} aria-hidden="true" />
          </button>
        ) : null
      }
    >
      {plan && (
        <>
          <h3>How far it is</h3>
          <div className="flex-1 min-h-0 overflow-y-auto" tabIndex={0} role="region" aria-label="How far it is">
            <p className="pb-1.5 text-note leading-tight">
              {build.done.length} of {plan.steps.length} steps; planned {Math.round(plan.minutes[0])} to{' '}
              {Math.round(plan.minutes[1])} min{took > 0 ? `, ${Math.round(took)} min so far` : ''}.
            </p>
            {missing.length > 0 && !finished && (
              <p className="pb-1.5 text-note leading-tight">
                Still to come by:{' '}
                {missing
                  .slice(0, 4)
                  .map((l) => words(l.what.replace(/^[^:]*: /, '')))
                  .join(', ')}
                {missing.length > 4 ? ` and ${missing.length - 4} more` : ''}.
              </p>
            )}
          </div>
        </>
      )}
    </Slip>
  );
}
