'use client';
/** What is to be had: each line with what one orders by, ticked as there, ordered or arrived. */
import type { BuildPlan } from '../../core/plan/build/build';
import type { BomLine } from '../../core/plan/build/bom';
import { lengthShown } from '../../core/units/preferences';
import { useJobPage } from '../shell/jobPage';

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
  const { words, settings } = useJobPage();
  const much = (l: BomLine) =>
    l.unit === 'm' ? `${lengthShown(l.quantity, settings.length).toFixed(1)} ${settings.length}` : `${l.quantity} ×`;
  return (
    <div className="sztable bdtable">
      <table>
        <thead>
          <tr>
            <th scope="col">How much</th>
            <th scope="col">What</th>
            <th scope="col">It is</th>
          </tr>
        </thead>
        {(Object.keys(GROUPS) as (keyof typeof GROUPS)[]).map((group) => (
          <tbody key={group}>
            {plan.parts.some((l) => l.group === group) && (
              <tr className="bdgrp">
                <th colSpan={3} scope="colgroup">
                  {GROUPS[group]}
                </th>
              </tr>
            )}
            {plan.parts
              .filter((l) => l.group === group)
              .map((l) => (
                <tr key={l.id}>
                  <td className="num">{much(l)}</td>
                  <td>
                    <b>{words(l.what)}</b>
                    <small>{words(l.needs)}</small>
                  </td>
                  <td>
                    <select
                      className="select"
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
