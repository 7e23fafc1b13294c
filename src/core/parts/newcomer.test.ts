/**
 * The newcomer's trial: a link controller nobody has drawn before, added by writing its entry. Without a line changed
 * elsewhere it has faults, questions, wires on the strip, its thresholds checked, a price and an owner's sentence.
 */
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { motorhomeOf } from '../../../tests/motorhomes';
import { rigFaults } from '../diagnose/faults';
import { observationsOf } from '../diagnose/observations';
import { asDesigned } from '../diagnose/asDesigned';
import { compileRig } from '../compile/compile';
import { voltageLink } from '../control/voltageLink';
import { ownerSentences } from '../documents/ownerCard';
import { RigModel } from '../operate/settle';
import { changeCost } from '../price/prices';
import { techniqueFor } from '../probe/technique';
import type { Rig } from '../rig/schema';
import { DEFAULT_SETTINGS } from '../shop/shop';
import { thresholdsOf } from '../size/thresholds';
import { assumed } from '../units/parameter';
import { ANCHORS } from '../../ui/strip/anchors';
import { stripLayout } from '../../ui/strip/layout';
import { BY_VOLTS_FAULTS, CHASSIS_SENSE_WIRE_FAULTS, COIL_FEED_WIRE_FAULTS, MODULE_FAULTS } from './faults/modules';
import { PART_KINDS } from './kinds';
import { constant, definePart, param, type PartKind } from './part';
import { flat } from './price';

const volts = (label: string, value: number) =>
  ({ unit: 'V', scale: 'offset', label, min: 5, max: 64, default: assumed(value, 0.08) }) as const;

const made = definePart({
  id: 'made-up-module',
  label: 'Made-up module',
  role: 'control',
  traits: { module: true, engineOnly: true, byVolts: { sense: 'chassis', closes: 'closeAt', opens: 'openAt' } },
  terminals: [
    { id: 'chassis-sense', label: 'chassis sense', lead: 'chassis sense wire at the module' },
    { id: 'output', label: 'coil out', lead: 'coil wire at the module' },
    { id: 'ground', label: 'ground', lead: 'ground wire at the module' },
  ],
  params: {
    closeAt: volts('Closes above', 13.2),
    openAt: volts('Opens below', 12.8),
    hold: { unit: 's', scale: 'ratio', label: 'For at least', min: 0.1, max: 3600, default: assumed(10, 0.3) },
    contact: { unit: 'ohm', scale: 'ratio', label: 'Output', min: 1e-4, max: 10, default: assumed(0.1, 0.4) },
  },
  elements: [
    {
      kind: 'contact',
      id: 'driver',
      a: 'chassis-sense',
      b: 'output',
      ohms: param('contact'),
      closedBy: { controller: 'output' },
    },
    { kind: 'resistor', id: 'supply', a: 'chassis-sense', b: 'ground', ohms: constant(1200) },
  ],
  controller: () => ({
    kind: voltageLink,
    senses: { chassis: ['chassis-sense', 'ground'] },
    settings: ['closeAt', 'openAt', 'hold'],
  }),
  faults: [...MODULE_FAULTS, ...COIL_FEED_WIRE_FAULTS, ...CHASSIS_SENSE_WIRE_FAULTS, ...BY_VOLTS_FAULTS],
  price: { dollars: flat(61, 97), minutes: [31, 53] },
  owner: { works: [{ says: (p) => `The made-up module closes above ${p.value('closeAt').toFixed(1)} V.` }], care: [] },
  cautions: [],
  takes: null,
});

/** What a lacking field costs: the compiler says so. Never called. */
export function incomplete(): PartKind[] {
  const { faults: _f, ...noFaults } = made;
  const { price: _p, ...noPrice } = made;
  const { owner: _o, ...noOwner } = made;
  const { traits: _t, ...noTraits } = made;
  return [
    // @ts-expect-error an entry without faults does not compile
    definePart(noFaults),
    // @ts-expect-error nor one without a price
    definePart(noPrice),
    // @ts-expect-error nor one without the owner's sentences
    definePart(noOwner),
    // @ts-expect-error nor one without traits
    definePart(noTraits),
  ];
}

const catalogue = PART_KINDS as Map<string, PartKind>;
const anchors = ANCHORS as unknown as Record<string, (typeof ANCHORS)['voltage-link-module']>;
let rig: Rig;
let before: Rig;

beforeAll(() => {
  catalogue.set(made.id, made);
  anchors[made.id] = ANCHORS['voltage-link-module'];
  before = motorhomeOf({ link: 'one-way' });
  const swapped = JSON.stringify(before).replaceAll('"voltage-link-module"', `"${made.id}"`);
  rig = JSON.parse(swapped) as Rig;
  // What the document does not state is the new kind's usual figure.
  rig.parts.find((p) => (p.kind as string) === made.id)!.params = {};
});
afterAll(() => {
  catalogue.delete(made.id);
  delete anchors[made.id];
});

describe('a new link controller, by its entry alone', () => {
  const unit = () => rig.parts.find((p) => (p.kind as string) === made.id)!;

  it('has its faults, in itself and on its wires', () => {
    const own = rigFaults(rig).filter((f) => f.part === unit().id && !f.members);
    expect(own.map((f) => f.id.split('.')[1]).sort()).toEqual(
      ['broken', 'chassis-sense-open', 'corroded', 'dead', 'drifted-high', 'drifted-low', 'module-ground'].sort(),
    );
  });

  it('is asked about: its lamp, a swap, a bench supply', () => {
    const asked = observationsOf(rig, rigFaults(rig)).map((o) => o.id);
    for (const id of ['status-lamp', 'module-swap', 'bench-supply']) expect(asked).toContain(`${id}.${unit().id}`);
  });

  it('explains itself where nothing is wrong', () => {
    expect(asDesigned(rig, ['coach-not-charging']).map((r) => r.id)).toContain('waits-for-volts');
    expect(asDesigned(rig, ['chassis-flat']).map((r) => r.id)).toContain('one-way');
  });

  it('works: the link closes while the engine charges and lets go at rest', () => {
    const model = new RigModel(compileRig(rig));
    const link = rig.parts.find((p) => p.kind === 'link-solenoid')!.id;
    expect(model.settle('idle').modes[link]!.mode).toBe('closed');
    expect(model.settle('rested').modes[link]!.mode).toBe('open');
  });

  it('has its thresholds checked', () => {
    const found = thresholdsOf(compileRig(rig)).filter((t) => t.part === unit().id);
    expect(found).toHaveLength(1);
    expect(found[0]).toMatchObject({ closeAt: 13.2, openAt: 12.8, params: { closes: 'closeAt', opens: 'openAt' } });
  });

  it('has its price when a rig is built with it', () => {
    const without = { ...rig, parts: rig.parts.filter((p) => p !== unit()) };
    const cost = changeCost(without, rig);
    expect(cost.parts).toEqual([61, 97]);
    expect(cost.minutes).toEqual([31, 53]);
  });

  it('has its wires on the strip, as many as the unit it replaced', () => {
    const wires = (r: Rig) => stripLayout(r).wires.length;
    expect(wires(rig)).toBe(wires(before));
  });

  it('has a sentence on the owner’s card, and meter technique at its wires', () => {
    expect(ownerSentences('works', rig, DEFAULT_SETTINGS).join(' ')).toContain(
      'The made-up module closes above 13.2 V.',
    );
    expect(techniqueFor(rig, { kind: 'volts', red: `${unit().id}.chassis-sense` }, 'idle').join(' ')).toMatch(
      /No test lamp/,
    );
  });
});
