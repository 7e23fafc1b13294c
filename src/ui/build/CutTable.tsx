'use client';
/** What to cut: length with its loops, what is made on each end, what stands on its label. */
import { clsx } from 'clsx';
import type { BuildPlan } from '../../core/plan/build/build';
import { lengthShown } from '../../core/units/preferences';
import { gaugeShown } from '../../core/units/wire';
import { useJobFile } from '../shell/jobPage';

const USE_WORDS = { feed: 'feed', return: 'return', control: 'control' } as const;

export function CutTable({ plan }: { plan: BuildPlan }) {
  const { words, settings } = useJobFile();
  const length = (m: number) =>
    `${lengthShown(m, settings.length).toFixed(settings.length === 'ft' ? 1 : 2)} ${settings.length}`;
  return (
    <div className="sztable bdtable overflow-x-auto">
      <table className="w-full text-note tabular-nums max-phone:block">
        <thead className="max-phone:hidden">
          <tr className="max-phone:grid max-phone:border-b-1 max-phone:border-rule">
            <th className="align-top first:text-left" scope="col">
              Cut
            </th>
            <th className="align-top" scope="col">
              Wire
            </th>
            <th className="align-top last:text-left" scope="col">
              Ends and labels
            </th>
          </tr>
        </thead>
        <tbody className="max-phone:block">
          {plan.cuts.map((c) => (
            <tr className="max-phone:grid max-phone:border-b-1 max-phone:border-rule" key={c.id}>
              <td className="num font-cond font-bold text-large align-top max-phone:h-auto max-phone:border-0">
                <b className="block font-cond font-semibold text-large leading-close">{length(c.length)}</b>
                <small className="block basis-full font-sans font-normal text-note text-ink-2">
                  {gaugeShown(c.gauge, settings.gauge)}
                </small>
              </td>
              <td className="font-cond font-medium text-lead align-top max-phone:h-auto max-phone:border-0">
                <b className="block font-cond font-semibold text-large leading-close">{words(c.name)}</b>
                <small className="block basis-full font-sans font-normal text-note text-ink-2">
                  {USE_WORDS[c.use]}; heat-shrink {c.shrink} mm
                  {c.replaces ? '; in place of the one that is there' : ''}
                </small>
              </td>
              <td
                className={clsx(
                  'font-cond font-medium text-lead align-top',
                  'last:table-cell last:flex-wrap last:items-center last:gap-x-2.5 last:gap-y-0',
                  'last:h-auto last:min-h-8.5 last:min-w-37.5 last:text-left last:whitespace-normal',
                  'max-phone:h-auto max-phone:border-0',
                )}
              >
                {c.ends.map((e) => (
                  <span key={e.label} className="block pb-1">
                    <b className="block font-cond font-semibold text-large leading-close">{words(e.label)}</b>
                    <small className="block basis-full font-sans font-normal text-note text-ink-2">
                      {words(e.made)}
                    </small>
                  </span>
                ))}
              </td>
            </tr>
          ))}
        </tbody>
      </table>
      <p className="quiet px-3 py-2.5">
        A loop of {length(plan.serviceLoop)} at each end is in the length. Measure the way once more before you cut.
      </p>
    </div>
  );
}
