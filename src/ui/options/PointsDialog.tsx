'use client';
/** How a candidate came to its points: each criterion with what it got and why. */
import type { Scored } from '../../core/plan/recommend';
import { useJobPage } from '../shell/jobPage';
import { Sheet } from '../Dialog';

export function PointsDialog({ scored, name, onClose }: { scored: Scored; name: string; onClose(): void }) {
  const { words } = useJobPage();
  return (
    <Sheet title={`${words(name)}: ${scored.total.toFixed(0)} of 100 points`} onClose={onClose}>
      <table className="opointstable">
        <tbody>
          {scored.points.map((p) => (
            <tr key={p.criterion}>
              <th scope="row">
                {p.criterion}
                <small>{words(p.because)}</small>
              </th>
              <td>
                {p.got.toFixed(1)} of {p.of.toFixed(1)}
              </td>
            </tr>
          ))}
        </tbody>
      </table>
      <p className="quiet">
        The weights are assumed: how the trade usually weighs a link. They order the list, they do not decide. One that
        leaves the engine without a start comes after every one that does not, whatever its points.
      </p>
    </Sheet>
  );
}
