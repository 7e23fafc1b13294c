/** Calculators of wire: drop and gauge, fuse window, unit conversion. */
import { gaugeFamily, gaugeName, gaugesOf, gaugeShown, wireArea, wireResistance, type Gauge } from '../../units/wire';
import {
  AIR,
  ampacity,
  BUNDLES,
  conductorCelsius,
  INSULATIONS,
  type Insulation,
  type WirePlace,
  UNREAD_INSULATION_CELSIUS,
} from '../../units/ampacity';
import { RULE_SETS, USUAL_JURISDICTION } from '../../codes';
import { JURISDICTIONS, type Jurisdiction } from '../../units/preferences';
import { fuseWindow } from '../protect';
import { choice, figure, gaugeChoices, number, type Calculator } from './calculator';

const insulationChoices = INSULATIONS.map((c) => ({ id: String(c), label: `${c} °C` }));
const placeChoices = [
  { id: 'open', label: 'Outside the engine bay' },
  { id: 'engine-space', label: 'Engine bay' },
] as const;

/** Thinnest size of a family that carries the amps and drops no more than `allowed` volts over `metres` out and back. */
export function thinnestFor(
  amps: number,
  metres: number,
  allowed: number,
  insulation: Insulation,
  place: WirePlace,
  family: 'awg' | 'mm2' = 'awg',
): Gauge | undefined {
  return gaugesOf(family).find((g) => {
    if (ampacity(g, insulation, place) < amps) return false;
    return amps * wireResistance(g, metres, conductorCelsius(g, insulation, place, amps)) <= allowed;
  });
}

export const drop: Calculator = {
  id: 'drop',
  title: 'Drop and gauge',
  asks: 'What does this cable lose, and which would do?',
  inputs: [
    choice('gauge', 'Gauge', gaugeChoices, '6'),
    number('length', 'Length, one way', 'length', 6.096, 0.05, 100),
    choice(
      'back',
      'Return',
      [
        { id: 'cable', label: 'Cable as long' },
        { id: 'frame', label: 'Frame' },
      ],
      'cable',
    ),
    number('amps', 'Current', 'amps', 40, 0.1, 1000),
    number('volts', 'System', 'volts', 12, 6, 60),
    number('allowed', 'Allowed drop', 'share', 0.03, 0.001, 0.5),
    choice('insulation', 'Insulation rating', insulationChoices, String(UNREAD_INSULATION_CELSIUS)),
    choice('place', 'Runs', placeChoices, 'open'),
  ],
  formula: 'drop = I · ρ(T) · L / A, L out and back; T = air + (insulation − 30 °C) · (I / ampacity)²',
  source:
    'Area by ASTM B258, copper by IEC 60028, ampacity by 33 CFR 183.425 table ' +
    '5 (from memory). Joints are not in it: a link has a few milliohms more.',
  answer(v) {
    const gauge = v.choice('gauge') as Gauge;
    const insulation = Number(v.choice('insulation')) as Insulation;
    const place = v.choice('place') as WirePlace;
    const amps = v.number('amps');
    const metres = v.number('length') * (v.choice('back') === 'cable' ? 2 : 1);
    const celsius = conductorCelsius(gauge, insulation, place, amps);
    const ohms = wireResistance(gauge, metres, celsius);
    const lost = amps * ohms;
    const allowed = v.number('allowed') * v.number('volts');
    const carries = ampacity(gauge, insulation, place);
    const best = thinnestFor(amps, metres, allowed, insulation, place, gaugeFamily(gauge));
    const hot = amps > carries;
    return {
      figures: [
        figure('Drop', lost, 'volts', lost <= allowed ? 'good' : 'bad'),
        figure('of the system', lost / v.number('volts'), 'share', lost <= allowed ? 'good' : 'bad'),
        figure('Lost as heat', lost * amps, 'watts'),
        figure('Conductor', celsius, 'celsius', hot ? 'bad' : 'good'),
      ],
      says: hot
        ? `${gaugeName(gauge)} carries ${carries.toFixed(0)} A here: too thin ` +
          `whatever the drop.${best ? ` ${gaugeName(best)} would do.` : ''}`
        : best
          ? best === gauge
            ? `${gaugeName(gauge)} is the thinnest that will do.`
            : `${gaugeName(best)}, ${gaugeShown(best, 'mm2')}, is the thinnest that keeps to ${allowed.toFixed(2)} V.`
          : `No single cable keeps to ${allowed.toFixed(2)} V: shorten the run, or put two in parallel.`,
      mark: hot || lost > allowed ? 'bad' : 'good',
      working: [
        figure('Length counted', metres, 'length'),
        figure('Resistance', ohms, 'milliohms'),
        figure('Area', wireArea(gauge), 'area'),
        figure('Ampacity', carries, 'amps'),
        figure('Air', AIR[place], 'celsius'),
        figure('Allowed', allowed, 'volts'),
      ],
    };
  },
};

export const fuse: Calculator = {
  id: 'fuse',
  title: 'Fuse window',
  asks: 'Which fuse carries the load and protects the wire?',
  inputs: [
    number('amps', 'Continuous current', 'amps', 25, 0.1, 500),
    choice('gauge', 'Thinnest wire behind it', gaugeChoices, '8'),
    choice('insulation', 'Insulation rating', insulationChoices, String(UNREAD_INSULATION_CELSIUS)),
    choice('place', 'Runs', placeChoices, 'open'),
    choice('bundled', 'Bundled with', BUNDLES, '1'),
    choice('jurisdiction', 'Rules of', JURISDICTIONS, USUAL_JURISDICTION),
  ],
  formula: 'I ÷ 0.8 ≤ rating ≤ ampacity of the weakest wire, and the code’s own figure on small wire',
  source:
    '÷ 0.8: common practice. Ampacity: 33 CFR 183.425 table 5. In the US and Canada 6, 8, 15, 20 and 30 A on 18 to ' +
    '10 AWG: NEC 551.10(E)(1). Within 7 in of each battery that can feed the wire (33 CFR 183.455, for boats), at most ' +
    '18 in (NEC 551.10(E)(4)). All from memory.',
  caution: 'A cable with a battery at each end needs a fuse at each end.',
  answer(v) {
    const w = fuseWindow(
      v.number('amps'),
      [
        {
          gauge: v.choice('gauge') as Gauge,
          insulation: Number(v.choice('insulation')) as Insulation,
          place: v.choice('place') as WirePlace,
          bundled: Number(v.choice('bundled')),
        },
      ],
      RULE_SETS[v.choice('jurisdiction') as Jurisdiction],
    );
    const mark = w.verdict === 'fits' ? 'good' : w.verdict === 'tight' ? 'watch' : 'bad';
    return {
      figures: [
        ...(w.pick === undefined ? [] : [figure('Take', w.pick, 'rating', mark)]),
        figure('At least', w.from, 'amps'),
        figure('At most', w.to, 'amps'),
      ],
      says: w.says,
      mark,
      working: [...w.fits.map((r) => figure('Fits', r, 'rating')), ...w.tight.map((r) => figure('Tight', r, 'rating'))],
    };
  },
};

const CONVERSIONS = {
  length: { label: 'Feet and meters', a: 'ft', b: 'm', to: (x: number) => x * 0.3048 },
  inch: { label: 'Inches and millimetres', a: 'in', b: 'mm', to: (x: number) => x * 25.4 },
  temperature: { label: 'Fahrenheit and Celsius', a: '°F', b: '°C', to: (x: number) => (x - 32) / 1.8 },
  torque: { label: 'Inch-pounds and newton-metres', a: 'in·lb', b: 'N·m', to: (x: number) => x * 0.112984829 },
  power: { label: 'Horsepower and watts', a: 'hp', b: 'W', to: (x: number) => x * 745.699872 },
} as const;

export const conversion: Calculator = {
  id: 'units',
  title: 'Units',
  asks: 'What is it in the other unit?',
  inputs: [
    choice(
      'what',
      'Convert',
      Object.entries(CONVERSIONS).map(([id, c]) => ({ id, label: c.label })),
      'torque',
    ),
    number('x', 'Figure', 'number', 100, -1e6, 1e6),
    choice('gauge', 'And a gauge', gaugeChoices, '4'),
  ],
  formula:
    '1 ft = 0.3048 m · 1 in = 25.4 mm · °C = (°F − 32) ÷ 1.8 · 1 in·lb = 0.11298 N·m · d = 0.005 in · 92^((36 − n)/39)',
  source: 'International yard and pound agreement; ASTM B258 for gauges.',
  answer(v) {
    const c = CONVERSIONS[v.choice('what') as keyof typeof CONVERSIONS];
    const x = v.number('x');
    const there = c.to(x);
    const back = c.to(1) === c.to(0) ? 0 : (x - c.to(0)) / (c.to(1) - c.to(0));
    const gauge = v.choice('gauge') as Gauge;
    return {
      figures: [
        figure(`${x} ${c.a}, in ${c.b}`, there, 'number'),
        figure(`${x} ${c.b}, in ${c.a}`, back, 'number'),
        figure(`${gaugeName(gauge)}`, wireArea(gauge), 'area'),
      ],
      says: `${x} ${c.a} is ${Number(there.toPrecision(5))} ${c.b}; ${x} ${c.b} is ${Number(back.toPrecision(5))} ${c.a}.`,
      working: [],
    };
  },
};
