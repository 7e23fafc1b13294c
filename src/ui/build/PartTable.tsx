'use client';
/** What is to be had: each line with what one orders by, ticked as there, ordered or arrived. */
import type { BuildPlan } from '../../core/plan/build/build';
import type { BomLine } from '../../core/plan/build/bom';
import { lengthShown } from '../../core/units/preferences';
import { useJobFile } from '../shell/jobPage';
import { BuildTable, Cell, Named, Row } from './cells';

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
    <BuildTable heads={['How much', 'What', 'It is']}>
      {(Object.keys(GROUPS) as (keyof typeof GROUPS)[]).map((group) => (
        <tbody className="max-phone:block" key={group}>
          {plan.parts.some((l) => l.group === group) && (
            <Row>
              <th
                className="border-b-1 border-ink px-3 pt-3 pb-0.75 font-cond font-bold text-lead text-ink-2"
                colSpan={3}
                scope="colgroup"
              >
                {GROUPS[group]}
              </th>
            </Row>
          )}
          {plan.parts
            .filter((l) => l.group === group)
            .map((l) => (
              <Row key={l.id}>
                <Cell figure>{much(l)}</Cell>
                <Cell>
                  <Named name={words(l.what)}>{words(l.needs)}</Named>
                </Cell>
                <Cell wide>
                  <select
                    className="select w-33 border-ink font-cond font-semibold"
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
                </Cell>
              </Row>
            ))}
        </tbody>
      ))}
    </BuildTable>
  );
}
