'use client';
/** What to cut: length with its loops, what is made on each end, what stands on its label. */
import type { BuildPlan } from '../../core/plan/build/build';
import { lengthShown } from '../../core/units/preferences';
import { gaugeShown } from '../../core/units/wire';
import { useJobPage } from '../shell/jobPage';

const USE_WORDS = { feed: 'feed', return: 'return', control: 'control' } as const;

export function CutTable({ plan }: { plan: BuildPlan }) {
  const { words, settings } = useJobPage();
  const length = (m: number) =>
    `${lengthShown(m, settings.length).toFixed(settings.length === 'ft' ? 1 : 2)} ${settings.length}`;
  return (
    <div className="sztable bdtable">
      <table>
        <thead>
          <tr>
            <th scope="col">Cut</th>
            <th scope="col">Wire</th>
            <th scope="col">Ends and labels</th>
          </tr>
        </thead>
        <tbody>
          {plan.cuts.map((c) => (
            <tr key={c.id}>
              <td className="num">
                <b>{length(c.length)}</b>
                <small>{gaugeShown(c.gauge, settings.gauge)}</small>
              </td>
              <td>
                <b>{words(c.name)}</b>
                <small>
                  {USE_WORDS[c.use]}; heat-shrink {c.shrink} mm
                  {c.replaces ? '; in place of the one that is there' : ''}
                </small>
              </td>
              <td>
                {c.ends.map((e) => (
                  <span key={e.label} className="bdend">
                    <b>{words(e.label)}</b>
                    <small>{words(e.made)}</small>
                  </span>
                ))}
              </td>
            </tr>
          ))}
        </tbody>
      </table>
      <p className="quiet pad">
        A loop of {length(plan.serviceLoop)} at each end is in the length. Measure the way once more before you cut.
      </p>
    </div>
  );
}
