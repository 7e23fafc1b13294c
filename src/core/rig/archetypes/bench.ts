/**
 * A bench: two batteries, a shop charger, a lamp as load and one unit on clips, to see what it does. The charger on
 * battery 1 stands for an engine that runs, on battery 2 for shore power. Common practice.
 */
import type { PartKindId } from '../../parts/kinds';
import { assumed, type Parameter } from '../../units/parameter';
import type { Conductor, Part, Probe, Rig } from '../schema';
import type { BenchUnit } from './benchChoices';
import type { BenchChoices } from './benchSchema';
import type { BankChoice } from './choicesSchema';
import { at, bankNote, bankOptions, cable, drawPart, fuseRating } from './drawing';

export const USUAL_BENCH: BenchChoices = {
  unit: 'dcdc',
  nominalVolts: 12,
  chargerAt: 'first',
  chargerAmps: 20,
  first: { chemistry: 'agm', layout: 'single', capacity: 70 },
  second: { chemistry: 'agm', layout: 'single', capacity: 70 },
};

const LENGTH_METRES = 2.4;
const PLACE = 'Bench';
/** A of both fuses, and of a charger small enough for clips. */
const FUSE_AMPS = 30;
const CHARGER_AMPS = 12;

/** Two clips on clean posts: some milliohms, and not the same twice. From memory. */
const clip = (id: string, use: Conductor['use'], from: string, to: string, metres = 0.8): Conductor =>
  cable(
    id,
    id.replaceAll('-', ' ').replace(/^./, (x) => x.toUpperCase()),
    use,
    from,
    to,
    '8',
    metres,
    0.006,
  );
/** A clip lead is a clip lead: as thick as the others, since the same fuse protects it. */
const signal = (id: string, from: string, to: string): Conductor => clip(id, 'control', from, to);

interface Unit {
  parts: Part[];
  conductors: Conductor[];
  probes: [key: string, name: string][];
  /** What the clip from each battery's fuse goes to. */
  first: string;
  second: string;
}

// eslint-disable-next-line max-lines-per-function -- a table: one row a unit
function unitOf(c: BenchChoices): Unit {
  const volts = c.nominalVolts / 12;
  const scaled = (value: number, spread = 0.08): Parameter => assumed(value * volts, spread * volts);
  const part = (
    id: string,
    kind: PartKindId,
    name: string,
    note: string,
    params: Record<string, Parameter> = {},
    options: Record<string, string> = {},
    station = 1.2,
  ): Part => drawPart({ id, kind, vehicle: 'bench', station, side: 'both', place: PLACE, name, note, params, options });
  const ground = (of: string) => signalGround(`${of}-ground`, `${of}.ground`);
  const signalGround = (id: string, from: string): Conductor => ({ ...clip(id, 'return', from, 'bar.middle', 0.4) });
  const charger = (dual: boolean): Unit => ({
    parts: [
      part(
        'unit',
        dual ? 'dual-charger' : 'dcdc-charger',
        dual ? 'Dual charger' : 'DC-DC charger',
        `${CHARGER_AMPS} A`,
        {
          limit: assumed(CHARGER_AMPS, 0.05),
          inLimit: assumed(Math.round(1.5 * CHARGER_AMPS), 0.1),
          tail: assumed(Number((0.03 * c.second.capacity).toFixed(1)), 0.2),
          absorb: scaled(14.4, 0.06),
          float: scaled(13.5, 0.06),
          rebulk: scaled(12.8, 0.1),
          on: scaled(13.8, 0.06),
          off: scaled(13.2, 0.06),
          lockout: scaled(10.8, 0.06),
          restart: scaled(12, 0.06),
          ...(dual ? { panel: assumed(0, 0), amps: assumed(0, 0) } : {}),
        },
        { enable: 'ignition' },
      ),
    ],
    conductors: [signal('enable-clip', 'key.run', 'unit.enable'), ground('unit')],
    probes: [
      ['unit.input', 'Unit in'],
      ['unit.output', 'Unit out'],
      ['unit.enable', 'Unit enable'],
    ],
    first: 'unit.input',
    second: 'unit.output',
  });
  const module = (kind: PartKindId, senses: readonly ('chassis' | 'coach')[], byKey: boolean): Unit => ({
    parts: [
      part('unit', kind, 'Link module', byKey ? 'by the key' : 'by volts', byKey ? {} : MODULE_VOLTS(scaled), {}, 1.1),
      part(
        'link',
        'link-solenoid',
        'Solenoid',
        '200 A',
        {
          coil: assumed(15 * volts * volts, 0.1, 'from memory: continuous-duty coils 12–18 Ω at 12 V'),
          pullIn: scaled(8.2, 0.4),
          dropOut: scaled(4, 0.4),
        },
        {},
        1.5,
      ),
    ],
    conductors: [
      ...(byKey ? [signal('ignition-clip', 'key.run', 'unit.ignition')] : []),
      ...senses.map((s) =>
        signal(
          `${s === 'chassis' ? 'first' : 'second'}-sense`,
          s === 'chassis' ? 'first-fuse.load' : 'second-fuse.load',
          `unit.${s}-sense`,
        ),
      ),
      signal('coil-clip', 'unit.output', 'link.coil-plus'),
      clip('coil-ground', 'return', 'link.coil-minus', 'bar.middle', 0.4),
      ground('unit'),
    ],
    probes: [
      ['unit.output', 'Module out'],
      ['link.coil-plus', 'Coil +'],
      ['link.chassis-stud', 'Stud toward 1'],
      ['link.coach-stud', 'Stud toward 2'],
      ...senses.map((s): [string, string] => [`unit.${s}-sense`, s === 'chassis' ? 'Sense of 1' : 'Sense of 2']),
    ],
    first: 'link.chassis-stud',
    second: 'link.coach-stud',
  });
  const maintainer = (kind: PartKindId, name: string, note: string, params: Record<string, Parameter> = {}): Unit => ({
    parts: [part('unit', kind, name, note, params)],
    conductors: kind === 'diode-lamp' ? [] : [ground('unit')],
    probes: [
      ['unit.from', 'Unit in'],
      ['unit.to', 'Unit out'],
    ],
    first: 'unit.to',
    second: 'unit.from',
  });
  const units: Readonly<Record<BenchUnit, () => Unit>> = {
    dcdc: () => charger(false),
    dual: () => charger(true),
    delay: () => module('ignition-delay-module', [], true),
    'one-way': () => module('voltage-link-module', ['chassis'], false),
    'two-way': () => module('bidirectional-module', ['chassis', 'coach'], false),
    differential: () => maintainer('differential-maintainer', 'Maintainer', 'differential'),
    triggered: () =>
      maintainer('triggered-maintainer', 'Maintainer', 'from 13.6 V', {
        startAt: scaled(13.6, 0.06),
        stopAt: scaled(13.1, 0.06),
        absorb: scaled(14.2, 0.06),
        float: scaled(13.4, 0.06),
      }),
    'diode-lamp': () => maintainer('diode-lamp', 'Diode and lamp', '55 W'),
    diodes: () => ({
      parts: [part('unit', 'diode-isolator', 'Diode isolator', '2 × 120 A')],
      conductors: [],
      probes: [['unit.input', 'Isolator in']],
      first: 'unit.chassis-stud',
      second: 'unit.coach-stud',
    }),
  };
  return units[c.unit]();
}

const MODULE_VOLTS = (scaled: (value: number) => Parameter): Record<string, Parameter> => ({
  closeAt: scaled(13),
  openAt: scaled(12.8),
});

function partsOf(c: BenchChoices): Part[] {
  const volts = c.nominalVolts / 12;
  const scaled = (value: number, spread: number): Parameter => assumed(value * volts, spread * volts);
  const battery = (id: string, name: string, side: Part['side'], station: number, b: BankChoice): Part =>
    drawPart({
      id,
      kind: 'battery-bank',
      vehicle: 'bench',
      station,
      side,
      place: PLACE,
      name,
      note: bankNote(b),
      params: { capacity: assumed(b.capacity, 0.1), soc: assumed(side === 'engine' ? 0.85 : 0.5, 0.12) },
      options: bankOptions(b),
    });
  const fuse = (id: string, name: string, side: Part['side'], station: number): Part =>
    drawPart({
      id,
      kind: 'link-fuse',
      vehicle: 'bench',
      station,
      side,
      place: PLACE,
      name,
      note: `${FUSE_AMPS} A`,
      params: { element: assumed(0.0018, 0.35, 'from memory'), rating: fuseRating(FUSE_AMPS) },
      options: { type: 'terminal' },
    });
  const [side, station] = c.chargerAt === 'first' ? (['engine', 0.05] as const) : (['coach', 2.35] as const);
  return [
    battery('chassis-bank', 'Battery 1', 'engine', 0.4, c.first),
    fuse('first-fuse', 'Fuse of 1', 'engine', 0.4 + 0.15),
    battery('coach-bank', 'Battery 2', 'coach', 2, c.second),
    fuse('second-fuse', 'Fuse of 2', 'coach', 2 - 0.15),
    drawPart({
      id: 'charger',
      kind: 'shore-charger',
      vehicle: 'bench',
      station,
      side,
      place: PLACE,
      name: 'Shop charger',
      note: `${c.chargerAmps} A`,
      params: {
        setPoint: scaled(14.2, 0.12),
        float: scaled(13.6, 0.08),
        limit: assumed(c.chargerAmps, 0.1),
        tail: assumed(2, 0.3),
      },
    }),
    drawPart({
      id: 'house',
      kind: 'house-loads',
      vehicle: 'bench',
      station: 2.2,
      side: 'coach',
      place: PLACE,
      name: 'Test lamp',
      note: '55 W on 2',
      params: { draw: assumed(4.5, 0.3) },
    }),
    drawPart({
      id: 'key',
      kind: 'ignition-switch',
      vehicle: 'bench',
      station: 0.8,
      side: 'engine',
      place: PLACE,
      name: 'Key clip',
      note: 'a switch on a clip',
      params: { others: assumed(0.01, 0.1) },
    }),
  ];
}

/** A bench from the choices. `id` and `name` are the rig's own. */
export function benchRig(id: string, name: string, c: BenchChoices): Rig {
  const unit = unitOf(c);
  // An isolator is fed in its middle, not through a battery.
  const charged =
    c.unit === 'diodes' ? 'unit.input' : c.chargerAt === 'first' ? 'chassis-bank.plus' : 'coach-bank.plus';
  const probes: [string, string][] = [
    ['chassis-bank.plus', 'Battery 1 +'],
    ['chassis-bank.minus', 'Battery 1 –'],
    ['coach-bank.plus', 'Battery 2 +'],
    ['coach-bank.minus', 'Battery 2 –'],
    ['key.run', 'Key clip out'],
    ...unit.probes,
    ['charger.plus', 'Shop charger +'],
    ['first-clip.clamp', 'Amps out of 1'],
    ['second-clip.clamp', 'Amps into 2'],
  ];
  return {
    id,
    name,
    made: { family: 'bench', choices: c },
    kind: 'Bench',
    vehicles: [{ id: 'bench', role: 'bench', length: LENGTH_METRES, nominalVolts: c.nominalVolts }],
    parts: [...partsOf(c), ...unit.parts],
    conductors: [
      clip('first-lead', 'feed', 'chassis-bank.plus', 'first-fuse.source', 0.12),
      clip('first-clip', 'feed', 'first-fuse.load', unit.first),
      clip('second-clip', 'feed', unit.second, 'second-fuse.load'),
      clip('second-lead', 'feed', 'second-fuse.source', 'coach-bank.plus', 0.12),
      clip('charger-clip', 'feed', 'charger.plus', charged),
      signal('key-clip', 'first-fuse.load', 'key.feed'),
      clip('lamp-clip', 'feed', 'second-fuse.load', 'house.plus', 0.4),
      ...unit.conductors,
      clip('first-negative', 'return', 'chassis-bank.minus', 'bar.left', 0.4),
      clip('second-negative', 'return', 'coach-bank.minus', 'bar.right', 0.4),
      clip('charger-negative', 'return', 'charger.minus', c.chargerAt === 'first' ? 'bar.left' : 'bar.right', 0.6),
      clip('lamp-negative', 'return', 'house.minus', 'bar.right', 0.4),
    ],
    grounds: [
      {
        id: 'bar',
        vehicle: 'bench',
        name: 'Negative bar',
        points: [
          { id: 'left', label: 'negative bar, left', station: 0.5, place: PLACE },
          { id: 'middle', label: 'negative bar, middle', station: 1.2, place: PLACE },
          { id: 'right', label: 'negative bar, right', station: 1.9, place: PLACE },
        ],
      },
    ],
    bonds: [],
    probes: probes.map(([key, label], i): Probe => ({ key, label: `P${i + 1}`, name: label })),
    reference: at('bar.middle'),
  };
}
