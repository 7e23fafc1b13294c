'use client';
/** How a candidate came to its points: each criterion with what it got and why. */
import type { Scored } from '../../core/plan/recommend';
import { useJobFile } from '../shell/jobPage';
import { Sheet } from '../Dialog';

export function PointsDialog({ scored, name, onClose }: { scored: Scored; name: string; onClose(): void }) {
  const { words } = useJobFile();
  return (
    <Sheet title={`${words(name)}: ${scored.total.toFixed(0)} of 100 points`} onClose={onClose}>
      <table className="w-full mb-2 text-note">
        <tbody>
          {scored.points.map((p) => (
            <tr key={p.criterion}>
              <th className="py-1.5 border-b-1 border-rule font-semibold text-left" scope="row">
                {p.criterion}
                <small className="block font-normal text-ink-2 text-fine">{words(p.because)}</small>
              </th>
              <td className="border-b-1 border-rule font-cond font-bold text-right text-large whitespace-nowrap">
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
