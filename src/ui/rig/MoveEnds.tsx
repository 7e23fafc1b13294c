'use client';
/** A wire that ends elsewhere than it is drawn: moved to another terminal, its gauge, length and joints kept. */
import { useState } from 'react';
import type { Conductor, Endpoint } from '../../core/rig/schema';
import { endpoint, Means, Pick, useAddPieces, usePoints, type MeansId } from './points';

const keyOf = (e: Endpoint): string => `${e.part}.${e.terminal}`;

export function MoveEnds({ conductor }: { conductor: Conductor }) {
  const addPieces = useAddPieces();
  const points = usePoints();
  const [from, setFrom] = useState(keyOf(conductor.from));
  const [to, setTo] = useState(keyOf(conductor.to));
  const moved = from !== keyOf(conductor.from) || to !== keyOf(conductor.to);
  const move = (means: MeansId) => {
    const { length } = conductor;
    const was = { from: conductor.from, to: conductor.to, length };
    const set = { from: endpoint(from), to: endpoint(to), length };
    addPieces({ parts: [], conductors: [], moved: [{ conductor: conductor.id, was, set }] }, means);
  };
  return (
    <details className="collapse collapse-arrow border border-base-300">
      <summary className="collapse-title font-semibold">Move an end</summary>
      <div className="collapse-content">
        <Pick label="From" value={from} onChange={setFrom} points={points.filter((p) => p.key !== to)} />
        <Pick label="To" value={to} onChange={setTo} points={points.filter((p) => p.key !== from)} />
        {moved && <Means disabled={!from || !to} add={move} />}
      </div>
    </details>
  );
}
