/** Rigs of two or three parts, for comparison with what can be worked out by hand. */
import type { PartKindId } from '../src/core/parts/kinds';
import type { Rig } from '../src/core/rig/schema';
import { assumed, type Parameter } from '../src/core/units/parameter';
import { partKind } from '../src/core/parts/kinds';

const exact = (value: number): Parameter => assumed(value, 0);

export function smallPart(
  id: string,
  kind: PartKindId,
  side: 'engine' | 'coach',
  params: Record<string, number>,
  options?: Record<string, string>,
): Rig['parts'][number] {
  const defaults = Object.fromEntries(
    Object.entries(partKind(kind).params).map(([key, spec]) => [key, { ...spec.default, spread: 0 }]),
  );
  return {
    id,
    kind,
    vehicle: 'coach',
    station: 1,
    side,
    place: 'Bench',
    name: id,
    params: { ...defaults, ...Object.fromEntries(Object.entries(params).map(([k, v]) => [k, exact(v)])) },
    ...(options ? { options } : {}),
  };
}

/** Joins terminals of parts with cables of stated ohms; a zero length of 4/0 is not allowed, so a foot of it is in each. */
export function smallRig(
  parts: Rig['parts'],
  wires: readonly (readonly [from: string, to: string, ohms: number])[],
): Rig {
  const end = (key: string) => ({ part: key.split('.')[0]!, terminal: key.split('.')[1]! });
  return {
    id: 'small',
    name: 'Small',
    kind: 'bench',
    vehicles: [{ id: 'coach', role: 'motorhome', length: 5, nominalVolts: 12 }],
    parts,
    conductors: wires.map(([from, to, ohms], i) => ({
      id: `w${i}`,
      name: `w${i}`,
      use: 'feed',
      from: end(from),
      to: end(to),
      gauge: '4/0',
      length: 0.3,
      joints: exact(ohms),
    })),
    grounds: [
      {
        id: 'frame',
        vehicle: 'coach',
        name: 'Frame',
        points: [{ id: 'bolt', label: 'bolt', station: 1, place: 'Bench' }],
      },
    ],
    bonds: [],
    probes: [],
    reference: { part: 'frame', terminal: 'bolt' },
  };
}
