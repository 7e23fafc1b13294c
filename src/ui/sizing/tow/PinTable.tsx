'use client';
/** A row for each position: what the vehicle gives and what was measured, what the trailer hangs on it, what flows. */
import { CircleCheck, TriangleAlert } from 'lucide-react';
import { connectorOf, POSITION_WORDS, positionShown } from '../../../core/parts/connectors';
import { pinFeed, pinUse } from '../../../core/parts/pinUses';
import type { TowPlug, TowWay } from '../../../core/rig/tow';
import type { TowSolution } from '../../../core/operate/tow/solveTow';
import { useJobPage } from '../../shell/jobPage';

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
  const { words } = useJobPage();
  const connector = connectorOf(plug.connector);
  const convention = connector.conventions.find((c) => c.id === plug.convention) ?? connector.conventions[0]!;
  return (
    <div className="sztable twtable">
      <table>
        <thead>
          <tr>
            <th scope="col">Pin</th>
            <th scope="col">{words('Vehicle supplies')}</th>
            <th scope="col">{words('On the trailer')}</th>
            <th scope="col">On the road</th>
            <th scope="col" aria-label="State" />
          </tr>
        </thead>
        <tbody>
          {connector.positions.map((p) => {
            const w = plug.ways.find((x) => x.pin === p.id);
            const flow = road.ways.get(`${plug.id}.${p.id}`);
            return (
              <tr key={p.id} className={picked === p.id ? 'on' : ''}>
                <th scope="row">
                  <button
                    type="button"
                    className="twrow"
                    aria-expanded={picked === p.id}
                    onClick={() => pick(picked === p.id ? undefined : p.id)}
                  >
                    <b>{positionShown(p.id)}</b> {words(POSITION_WORDS[convention.uses[p.id]!])}
                  </button>
                </th>
                <td>
                  {w ? words(pinFeed(w.feed).label) : 'nothing'}
                  {w?.fuse ? `, ${w.fuse} A` : ''}
                  {w?.from === 'accessory' ? words(', accessory battery') : ''}
                  {w?.seen?.length ? <small>measured {seen(w)}</small> : null}
                </td>
                <td>{w?.uses.length ? w.uses.map((u) => words(pinUse(u).label)).join(', ') : '–'}</td>
                <td>
                  {flow && Math.abs(flow.amps) >= FLOWS ? `${Math.abs(flow.amps).toFixed(1)} A of ${p.amps}` : '–'}
                </td>
                <td>
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
