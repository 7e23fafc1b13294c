'use client';
/** What to cut: length with its loops, what is made on each end, what stands on its label. */
import type { BuildPlan } from '../../core/plan/build/build';
import { lengthShown } from '../../core/units/preferences';
import { gaugeShown } from '../../core/units/wire';
import { useJobFile } from '../shell/jobPage';
import { BuildTable, Cell, Named, Row } from './cells';

const USE_WORDS = { feed: 'feed', return: 'return', control: 'control' } as const;

export function CutTable({ plan }: { plan: BuildPlan }) {
  const { words, settings } = useJobFile();
  const length = (m: number) =>
    `${lengthShown(m, settings.length).toFixed(settings.length === 'ft' ? 1 : 2)} ${settings.length}`;
  return (
    <>
      <BuildTable heads={['Cut', 'Wire', 'Ends and labels']}>
        <tbody className="max-phone:block">
          {plan.cuts.map((c) => (
            <Row key={c.id}>
              <Cell figure>
                <Named name={length(c.length)}>{gaugeShown(c.gauge, settings.gauge)}</Named>
              </Cell>
              <Cell>
                <Named name={words(c.name)}>
                  {USE_WORDS[c.use]}; heat-shrink {c.shrink} mm
                  {c.replaces ? '; in place of the one that is there' : ''}
                </Named>
              </Cell>
              <Cell wide>
                {c.ends.map((e) => (
                  <span key={e.label} className="block pb-1">
                    <Named name={words(e.label)}>{words(e.made)}</Named>
                  </span>
                ))}
              </Cell>
            </Row>
          ))}
        </tbody>
      </BuildTable>
      <p className="quiet px-3 py-2.5">
        A loop of {length(plan.serviceLoop)} at each end is in the length. Measure the way once more before you cut.
      </p>
    </>
  );
}
