/**
 * A rear-engine motorhome with an isolator solenoid closed by an ignition-delay module or by the boost
 * switch. Coach bank and house amidships, engine side at the tail, dash at the nose.
 *
 * Lengths, gauges and joint resistances are a plausible rig's: every one is marked assumed until somebody
 * measures it on the real one.
 */
import { partKind } from '../../parts/kinds';
import { assumed, type Parameter } from '../../units/parameter';
import type { Gauge } from '../../units/wire';
import type { Conductor, Endpoint, Part, Rig } from '../schema';

const FEET = 0.3048;
const at = (key: string): Endpoint => {
  const [part, terminal] = key.split('.');
  return { part: part!, terminal: terminal! };
};

/** A part with its kind's default parameters, some replaced. */
function part(
  id: string,
  kind: string,
  feet: number,
  side: Part['side'],
  place: string,
  name: string,
  note: string,
  params: Record<string, Parameter> = {},
): Part {
  const defaults = Object.fromEntries(
    Object.entries(partKind(kind).params).map(([key, spec]) => [key, { ...spec.default }]),
  );
  return { id, kind, vehicle: 'coach', station: feet * FEET, side, place, name, note, params: { ...defaults, ...params } };
}

/** Two crimped lugs on clean studs: about 0.3 mΩ heavy, a few mΩ on small terminals (from memory). */
function cable(
  id: string,
  name: string,
  use: Conductor['use'],
  from: string,
  to: string,
  gauge: Gauge,
  feet: number,
  jointOhms: number,
): Conductor {
  return { id, name, use, from: at(from), to: at(to), gauge, length: feet * FEET, joints: assumed(jointOhms, 0.45) };
}

export function rearEngineCoach(id: string, name: string): Rig {
  return {
    id,
    name,
    kind: '36-ft rear-engine diesel coach',
    vehicles: [{ id: 'coach', role: 'motorhome', length: 36 * FEET, engineAt: 'rear', nominalVolts: 12 }],
    parts: [
      part('ignition', 'ignition-switch', 2, 'engine', 'Dash', 'Ignition', 'dash'),
      part('boost', 'boost-switch', 4, 'coach', 'Dash', 'Boost switch', 'dash, hold'),
      part('house', 'house-loads', 12, 'coach', 'Coach bay', 'House loads', 'fuse panel'),
      part('charger', 'shore-charger', 13, 'coach', 'Coach bay', 'Shore charger', '45 A'),
      part('disconnect', 'disconnect', 15, 'coach', 'Coach bay', 'Disconnect', '300 A rotary'),
      part('coach-bank', 'battery-bank', 17, 'coach', 'Coach bay', 'Coach bank', '4 × 6 V, 440 Ah', {
        capacity: assumed(440, 0.1),
        soc: assumed(0.68, 0.15),
      }),
      part('delay', 'ignition-delay-module', 28, 'both', 'Link box', 'Delay module', '25 s'),
      part('link', 'link-solenoid', 29, 'both', 'Link box', 'Isolator', '200 A'),
      part('link-fuse', 'link-fuse', 30, 'engine', 'Link box', 'Link fuse', '150 A'),
      part('chassis-bank', 'battery-bank', 32, 'engine', 'Engine bay', 'Chassis bank', '2 × 105 Ah', {
        capacity: assumed(210, 0.1),
        soc: assumed(0.88, 0.08),
      }),
      part('chassis-loads', 'chassis-loads', 33, 'engine', 'Engine bay', 'Chassis loads', 'fuse panel'),
      part('alternator', 'alternator', 34.5, 'engine', 'Engine bay', 'Alternator', '160 A', {
        idleLimit: assumed(100, 0.18),
      }),
    ],
    conductors: [
      cable('alternator-cable', 'Alternator to chassis bank', 'feed', 'alternator.output', 'chassis-bank.plus', '2', 5, 0.0004),
      cable('chassis-feed', 'Chassis bank to its fuse panel', 'feed', 'chassis-bank.plus', 'chassis-loads.plus', '4', 3, 0.0006),
      cable('fuse-lead', 'Chassis bank to link fuse', 'feed', 'chassis-bank.plus', 'link-fuse.source', '1/0', 4, 0.0005),
      cable('link-lead', 'Link fuse to isolator', 'feed', 'link-fuse.load', 'link.chassis-stud', '1/0', 2, 0.0005),
      cable('link-cable', 'Isolator to coach bank', 'feed', 'link.coach-stud', 'coach-bank.plus', '1/0', 16, 0.0008),
      cable('bank-lead', 'Coach bank to disconnect', 'feed', 'coach-bank.plus', 'disconnect.battery', '2/0', 3, 0.0005),
      cable('house-feed', 'Disconnect to house panel', 'feed', 'disconnect.house', 'house.plus', '2', 5, 0.0006),
      cable('charger-cable', 'Shore charger to disconnect', 'feed', 'disconnect.house', 'charger.plus', '6', 4, 0.0012),
      cable('dash-feed', 'Chassis bank to ignition', 'feed', 'chassis-bank.plus', 'ignition.feed', '8', 34, 0.006),
      cable('boost-feed', 'Coach bank to boost fuse', 'feed', 'coach-bank.plus', 'boost.feed', '12', 16, 0.01),
      cable('boost-wire', 'Boost switch to coil', 'control', 'boost.output', 'link.coil-plus', '14', 30, 0.02),
      cable('ignition-wire', 'Ignition to delay module', 'control', 'ignition.run', 'delay.ignition', '14', 30, 0.02),
      cable('coil-feed', 'Delay module to coil', 'control', 'delay.output', 'link.coil-plus', '14', 1.5, 0.01),
      cable('coil-ground', 'Coil to frame', 'return', 'link.coil-minus', 'frame.bay-2', '14', 3, 0.01),
      cable('delay-ground', 'Delay module to frame', 'return', 'delay.ground', 'frame.bay-2', '14', 3, 0.01),
      cable('chassis-negative', 'Chassis bank to frame', 'return', 'chassis-bank.minus', 'frame.bay-3', '2/0', 2, 0.0004),
      cable('engine-strap', 'Engine to frame', 'return', 'engine.block', 'frame.bay-3', '2/0', 2, 0.0004),
      cable('chassis-loads-negative', 'Chassis panel to frame', 'return', 'chassis-loads.minus', 'frame.bay-3', '4', 3, 0.0008),
      cable('coach-negative', 'Coach bank to house frame', 'return', 'coach-bank.minus', 'house-frame.bay-1', '2/0', 3, 0.0005),
      cable('charger-negative', 'Shore charger to house frame', 'return', 'charger.minus', 'house-frame.bay-1', '6', 4, 0.0012),
      cable('house-negative', 'House panel to house frame', 'return', 'house.minus', 'house-frame.bay-1', '2', 4, 0.0008),
    ],
    grounds: [
      {
        id: 'frame',
        vehicle: 'coach',
        name: 'Chassis frame',
        points: [
          { id: 'bay-2', label: 'frame bolt, bay 2', station: 29 * FEET, place: 'Link box' },
          { id: 'bay-3', label: 'frame bolt, bay 3', station: 33 * FEET, place: 'Engine bay' },
        ],
      },
      {
        id: 'house-frame',
        vehicle: 'coach',
        name: 'House frame',
        points: [{ id: 'bay-1', label: 'house frame bolt, bay 1', station: 16 * FEET, place: 'Coach bay' }],
      },
      {
        id: 'engine',
        vehicle: 'coach',
        name: 'Engine block',
        points: [{ id: 'block', label: 'engine block, bare boss', station: 34 * FEET, place: 'Engine bay' }],
      },
    ],
    bonds: [
      { id: 'frame-splice', name: 'House frame to chassis frame, bolted splices', from: at('house-frame.bay-1'), to: at('frame.bay-2'), resistance: assumed(0.0015, 0.4, 'from memory') },
      { id: 'alternator-mount', name: 'Alternator case to engine block', from: at('alternator.case'), to: at('engine.block'), resistance: assumed(0.0002, 0.5, 'from memory') },
    ],
    probes: [
      { key: 'ignition.run', label: 'P1', name: 'Ignition out' },
      { key: 'boost.fused', label: 'P2', name: 'Boost fuse out' },
      { key: 'boost.output', label: 'P3', name: 'Boost switch out' },
      { key: 'charger.plus', label: 'P4', name: 'Charger +' },
      { key: 'coach-bank.plus', label: 'P5', name: 'Coach +' },
      { key: 'coach-bank.minus', label: 'P6', name: 'Coach –' },
      { key: 'delay.ignition', label: 'P7', name: 'Ignition at module' },
      { key: 'delay.output', label: 'P8', name: 'Module out' },
      { key: 'link.coach-stud', label: 'P9', name: 'Isolator coach stud' },
      { key: 'link.coil-plus', label: 'P10', name: 'Coil +' },
      { key: 'link.coil-minus', label: 'P11', name: 'Coil –' },
      { key: 'link.chassis-stud', label: 'P12', name: 'Isolator chassis stud' },
      { key: 'link-fuse.source', label: 'P13', name: 'Link fuse in' },
      { key: 'chassis-bank.plus', label: 'P14', name: 'Chassis +' },
      { key: 'chassis-bank.minus', label: 'P15', name: 'Chassis –' },
      { key: 'alternator.output', label: 'P16', name: 'Alternator stud' },
      { key: 'link-cable.clamp', label: 'P17', name: 'Link cable amps' },
      { key: 'coil-ground.clamp', label: 'P18', name: 'Coil wire amps' },
    ],
    reference: at('frame.bay-2'),
  };
}
