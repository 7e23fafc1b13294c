'use client';
/** What is to be had: each line with what one orders by, ticked as there, ordered or arrived. */
import { clsx } from 'clsx';
import type { BuildPlan } from '../../core/plan/build/build';
import type { BomLine } from '../../core/plan/build/bom';
import { lengthShown } from '../../core/units/preferences';
import { useJobFile } from '../shell/jobPage';

type Tick = 'have' | 'ordered' | 'arrived';
const STATES: readonly { id: Tick | 'get'; label: string }[] = [
  { id: 'get', label: 'to get' },
  { id: 'have', label: 'have it' },
  { id: 'ordered', label: 'ordered' },
  { id: 'arrived', label: 'arrived' },
];
const GROUPS = { part: 'Parts', cable: 'Cable', ends: 'Ends', protection: 'Protection and labels' } as const;

export function PartTable({
  plan,
  ticks,
  tick,
}: {
  plan: BuildPlan;
  ticks: Readonly<Record<string, Tick>>;
  tick(line: string, was: Tick | undefined, set: Tick | undefined): void;
}) {
  const { words, settings } = useJobFile();
  const much = (l: BomLine) =>
    l.unit === 'm' ? `${lengthShown(l.quantity, settings.length).toFixed(1)} ${settings.length}` : `${l.quantity} ×`;
  return (
    <div className="sztable bdtable overflow-x-auto">
      <table className="w-full text-note tabular-nums max-phone:block">
        <thead className="max-phone:hidden">
          <tr className="max-phone:grid max-phone:border-b-1 max-phone:border-rule">
            <th className="align-top first:text-left" scope="col">
              How much
            </th>
            <th className="align-top" scope="col">
              What
            </th>
            <th className="align-top last:text-left" scope="col">
              It is
            </th>
          </tr>
        </thead>
        {(Object.keys(GROUPS) as (keyof typeof GROUPS)[]).map((group) => (
          <tbody className="max-phone:block" key={group}>
            {plan.parts.some((l) => l.group === group) && (
              <tr className="bdgrp max-phone:grid max-phone:border-b-1 max-phone:border-rule">
                <th
                  className={clsx(
                    'h-auto border-b border-ink',
                    'font-cond font-bold text-lead text-left text-ink-2 align-top',
                    'first:text-left last:text-left',
                  )}
                  colSpan={3}
                  scope="colgroup"
                >
                  {GROUPS[group]}
                </th>
              </tr>
            )}
            {plan.parts
              .filter((l) => l.group === group)
              .map((l) => (
                <tr className="max-phone:grid max-phone:border-b-1 max-phone:border-rule" key={l.id}>
                  <td className="num font-cond font-bold text-large align-top max-phone:h-auto max-phone:border-0">
                    {much(l)}
                  </td>
                  <td className="font-cond font-medium text-lead align-top max-phone:h-auto max-phone:border-0">
                    <b className="block font-cond font-semibold text-large leading-close">{words(l.what)}</b>
                    <small className="block basis-full font-sans font-normal text-note text-ink-2">
                      {words(l.needs)}
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
                    <select
                      className="select min-w-0 font-cond font-semibold"
                      aria-label={`${words(l.what)}: it is`}
                      value={ticks[l.id] ?? 'get'}
                      onChange={(e) =>
                        tick(l.id, ticks[l.id], e.target.value === 'get' ? undefined : (e.target.value as Tick))
                      }
                    >
                      {STATES.map((s) => (
                        <option key={s.id} value={s.id}>
                          {s.label}
                        </option>
                      ))}
                    </select>
                  </td>
                </tr>
              ))}
          </tbody>
        ))}
      </table>
    </div>
  );
}
