'use client';
/** A row for each position: what the vehicle gives and what was measured, what the trailer hangs on it, what flows. */
import { clsx } from 'clsx';
import { CircleCheck, TriangleAlert } from 'lucide-react';
import { connectorOf, POSITION_WORDS, positionShown } from '../../../core/parts/connectors';
import { pinFeed, pinUse } from '../../../core/parts/pinUses';
import type { TowPlug, TowWay } from '../../../core/rig/tow';
import type { TowSolution } from '../../../core/operate/tow/solveTow';
import { useJobFile } from '../../shell/jobPage';

const CELL = clsx(
  'px-1.5 py-0.75',
  'font-cond font-medium text-plain text-left leading-close whitespace-normal',
  'max-phone:h-auto max-phone:px-3 max-phone:py-0.25 max-phone:border-0',
  'within-on:bg-ink within-on:text-paper',
);

const FLOWS = 0.05;
const seen = (way: TowWay): string =>
  way.seen!.map((s) => `${s.open.toFixed(1)}${s.loaded !== undefined ? ` → ${s.loaded.toFixed(1)}` : ''} V`).join(', ');

interface PinTableProps {
  plug: TowPlug;
  road: TowSolution;
  bad: ReadonlySet<string>;
  picked: string | undefined;
  pick(pin: string | undefined): void;
}

export function PinTable({ plug, road, bad, picked, pick }: PinTableProps) {
  const { words } = useJobFile();
  const connector = connectorOf(plug.connector);
  const convention = connector.conventions.find((c) => c.id === plug.convention) ?? connector.conventions[0]!;
  return (
    <div className="gauge-table -mx-3.5 overflow-x-auto">
      <table className="w-full text-note tabular-nums max-phone:block">
        <thead className="max-phone:hidden">
          <tr className="max-phone:grid max-phone:border-b-1 max-phone:border-rule">
            <th className="text-left max-phone:h-auto max-phone:px-3 max-phone:py-0.25" scope="col">
              Pin
            </th>
            <th className="text-left max-phone:h-auto max-phone:px-3 max-phone:py-0.25" scope="col">
              {words('Vehicle supplies')}
            </th>
            <th className="text-left max-phone:h-auto max-phone:px-3 max-phone:py-0.25" scope="col">
              {words('On the trailer')}
            </th>
            <th className="text-left max-phone:h-auto max-phone:px-3 max-phone:py-0.25" scope="col">
              On the road
            </th>
            <th
              className="text-left max-phone:h-auto max-phone:px-3 max-phone:py-0.25"
              scope="col"
              aria-label="State"
            />
          </tr>
        </thead>
        <tbody className="max-phone:block">
          {connector.positions.map((p) => {
            const w = plug.ways.find((x) => x.pin === p.id);
            const flow = road.ways.get(`${plug.id}.${p.id}`);
            return (
              <tr
                key={p.id}
                className={clsx(
                  'max-phone:grid max-phone:border-b-1 max-phone:border-rule',
                  picked === p.id ? 'on' : '',
                )}
              >
                <th
                  className={clsx(
                    'pr-1',
                    'font-cond font-bold text-left text-lead',
                    'first:pl-2.25 max-phone:h-auto max-phone:pl-3 max-phone:py-0.25',
                    'within-on:bg-ink within-on:text-paper',
                  )}
                  scope="row"
                >
                  <button
                    type="button"
                    className="twrow min-h-11 w-full pl-1.25 font-semibold text-left text-inherit whitespace-nowrap"
                    aria-expanded={picked === p.id}
                    onClick={() => pick(picked === p.id ? undefined : p.id)}
                  >
                    <b className="inline-block min-w-6 font-bold">{positionShown(p.id)}</b>{' '}
                    {words(POSITION_WORDS[convention.uses[p.id]!])}
                  </button>
                </th>
                <td className={CELL}>
                  {w ? words(pinFeed(w.feed).label) : 'nothing'}
                  {w?.fuse ? `, ${w.fuse} A` : ''}
                  {w?.from === 'accessory' ? words(', accessory battery') : ''}
                  {w?.seen?.length ? (
                    <small className="block basis-full text-fine text-ink-2 within-on:text-inherit">
                      measured {seen(w)}
                    </small>
                  ) : null}
                </td>
                <td className={CELL}>{w?.uses.length ? w.uses.map((u) => words(pinUse(u).label)).join(', ') : '–'}</td>
                <td className={CELL}>
                  {flow && Math.abs(flow.amps) >= FLOWS ? `${Math.abs(flow.amps).toFixed(1)} A of ${p.amps}` : '–'}
                </td>
                <td
                  className={clsx(
                    'px-1.5 py-0.75',
                    'font-cond font-medium text-plain text-left leading-close whitespace-normal',
                    'last:table-cell last:flex-wrap last:items-center last:gap-x-2.5',
                    'last:gap-y-0 last:h-auto last:min-h-8.5 last:w-8.5',
                    'max-phone:h-auto max-phone:px-3 max-phone:py-0.25',
                    'max-phone:border-0 max-phone:last:col-start-2 max-phone:last:row-start-1',
                    'within-on:bg-ink within-on:text-paper',
                  )}
                >
                  {bad.has(p.id) ? (
                    <TriangleAlert size={18} aria-label="something is wrong" />
                  ) : w && (w.feed !== 'none' || w.uses.length > 0) ? (
                    <CircleCheck size={18} aria-label="in order" />
                  ) : null}
                </td>
              </tr>
            );
          })}
        </tbody>
      </table>
    </div>
  );
}
