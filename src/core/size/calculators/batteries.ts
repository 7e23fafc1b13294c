/** Calculators of batteries: rested volts and charge, charge time, parasitic days, bank wiring. */
import {
  bankCrankVolts,
  bankOhms,
  bankOvervolts,
  bankRestVolts,
  CHEMISTRIES,
  chemistryOf,
  overvoltageShare,
  storedShare,
  type BankState,
} from '../../parts/chemistry';
import { coldOil, NO_START_VOLTS } from '../../simulate/starter';
import { bisect } from '../../units/stats';
import { choice, figure, number, type CalculatorAnswer, type Calculator, type CalculatorInputs } from './calculator';

const chemistryChoices = CHEMISTRIES.map(({ id, label }) => ({ id, label }));
const systemChoices = [
  { id: '1', label: '12 V' },
  { id: '2', label: '24 V' },
  { id: '4', label: '48 V' },
] as const;
const NEW = { ageing: 1, celsius: 25, blocks: 1 } as const;
const TABLE = 'Tables and fits of the chemistries in the models (common practice; from memory where said there).';

/** Charge at which a bank rests at so many volts; clamped to 0 and 1. */
export function socAtRest(volts: number, b: Omit<BankState, 'soc'>): number {
  if (volts <= bankRestVolts({ ...b, soc: 0 })) return 0;
  if (volts >= bankRestVolts({ ...b, soc: 1 })) return 1;
  return bisect(0, 1, (soc) => bankRestVolts({ ...b, soc }) < volts).low;
}

export const rested: Calculator = {
  id: 'rested',
  title: 'Rested volts and charge',
  asks: 'How full is a bank that rests at these volts?',
  inputs: [
    choice('chemistry', 'Chemistry', chemistryChoices, 'flooded'),
    choice('system', 'System', systemChoices, '1'),
    number('volts', 'Rested volts', 'volts', 12.4, 5, 60),
    number('celsius', 'Battery at', 'celsius', 25, -30, 60),
  ],
  formula: 'charge = OCV⁻¹(volts, T)',
  source: TABLE,
  caution: 'Hours of rest, no load, no charger: right after charging, voltage reads high (surface charge).',
  answer(v) {
    const chemistry = chemistryOf(v.choice('chemistry'));
    const b = { ...NEW, chemistry, capacity: 100, blocks: Number(v.choice('system')), celsius: v.number('celsius') };
    const volts = v.number('volts');
    const soc = socAtRest(volts, b);
    const half = 0.05 * b.blocks;
    const from = socAtRest(volts - half, b);
    const to = socAtRest(volts + half, b);
    const full = bankRestVolts({ ...b, soc: 1 });
    const flat = chemistry.id === 'lfp' && soc > 0.15 && soc < 0.95;
    const over = volts > full + 0.1 * b.blocks;
    return {
      figures: [
        figure('Charge', soc, 'share', flat || over ? 'watch' : soc < 0.5 ? 'bad' : 'good'),
        figure('at 0.05 V less', from, 'share'),
        figure('at 0.05 V more', to, 'share'),
      ],
      says: over
        ? 'More than it rests at when full: it is being charged, or still carries surface charge.'
        : flat
          ? `Lithium rests flat here: 0.05 V is ${Math.round((to - from) * 50)} % of charge. Go by the monitor instead.`
          : `Each 0.05 V is about ${Math.round((to - from) * 50)} % of charge.`,
      mark: flat || over ? 'watch' : soc < 0.5 ? 'bad' : 'good',
      working: [0, 0.25, 0.5, 0.75, 1].map((s) =>
        figure(`Rests at, ${s * 100} % full`, bankRestVolts({ ...b, soc: s }), 'volts'),
      ),
    };
  },
};

/** A a bank takes at a charger's volts, at most `most`, `seconds` after the charge began: its overvoltage builds up. */
export function acceptedAmps(b: BankState, setPoint: number, most: number, seconds = Infinity): number {
  const built = overvoltageShare(seconds, b.chemistry);
  const needs = (amps: number) => bankRestVolts(b) + amps * bankOhms(b, true) + built * bankOvervolts(b, amps);
  if (needs(most) <= setPoint) return most;
  return bisect(0, most, (amps) => needs(amps) < setPoint).low;
}

const STEPS = 400;
/** Seconds from one charge to another at a charger of so many amps and volts; the part of them at full amps. */
export function chargeSeconds(
  b: BankState,
  to: number,
  amps: number,
  setPoint: number,
  load = 0,
): { seconds: number; bulk: number } {
  let seconds = 0;
  let bulk = 0;
  const step = (to - b.soc) / STEPS;
  for (let k = 0; k < STEPS; k++) {
    const soc = b.soc + (k + 0.5) * step;
    const got = acceptedAmps({ ...b, soc }, setPoint, Math.max(0, amps - load), seconds);
    if (got <= 1e-6) return { seconds: Infinity, bulk };
    const dt = (step * b.capacity * 3600) / (got * storedShare(soc, b.chemistry));
    seconds += dt;
    if (got >= amps - load - 1e-9) bulk += dt;
  }
  return { seconds, bulk };
}

export const chargeTime: Calculator = {
  id: 'charge',
  title: 'Charge and drive time',
  asks: 'How long at these amps until it is that full?',
  inputs: [
    choice('chemistry', 'Chemistry', chemistryChoices, 'lfp'),
    number('capacity', 'Bank', 'charge', 400, 1, 5000),
    number('from', 'From', 'share', 0, 0, 0.99),
    number('to', 'To', 'share', 0.95, 0.01, 1),
    number('amps', 'Charger gives', 'amps', 40, 0.1, 1000),
    number('load', 'Loads meanwhile', 'amps', 0, 0, 500),
    number('volts', 'Charger holds', 'volts', 14.4, 12, 16),
  ],
  formula: 't = ∫ Q · ds / (η(s) · I(s)), I the charger’s amps or what the bank takes at its volts, whichever is less',
  source: `${TABLE} 40 A into 400 Ah takes about ten hours (common practice).`,
  answer(v): CalculatorAnswer {
    const b: BankState = {
      ...NEW,
      chemistry: chemistryOf(v.choice('chemistry')),
      capacity: v.number('capacity'),
      soc: v.number('from'),
    };
    const to = v.number('to');
    const amps = v.number('amps');
    const load = v.number('load');
    if (to <= b.soc)
      return {
        figures: [figure('Time', 0, 'hours', 'good')],
        says: 'It is that full already.',
        mark: 'good',
        working: [],
      };
    const { seconds, bulk } = chargeSeconds(b, to, amps, v.number('volts'), load);
    const never = !Number.isFinite(seconds);
    const takes = acceptedAmps({ ...b, soc: to }, v.number('volts'), Math.max(0, amps - load));
    return {
      figures: [
        figure('Time', seconds, 'hours', never ? 'bad' : 'good'),
        figure('of it at full amps', bulk, 'hours'),
        figure('It takes at the end', takes, 'amps'),
      ],
      says: never
        ? load >= amps
          ? 'The loads take all the charger gives: it never gets there.'
          : 'At these volts it never gets there.'
        : `${seconds / 3600 < 1 ? `${Math.round(seconds / 60)} min` : `${(seconds / 3600).toFixed(1)} h`} ` +
          `of driving or charging without a ` +
          `pause${bulk < 0.7 * seconds ? ', most of it waiting for the last part to fill' : ''}.`,
      mark: never ? 'bad' : 'good',
      working: [
        figure('Charge to put in', (to - b.soc) * b.capacity, 'charge'),
        figure('Amps left for the bank', amps - load, 'amps'),
        figure('Stored of what goes in, at first', storedShare(b.soc, b.chemistry), 'share'),
      ],
    };
  },
};

/** Charge under which a start is luck, whatever the volts say: about 12.1 V rested. Common practice. */
const LEAST_START_SHARE = 0.4;

/** Charge below which one does not count on a start; 1 when it would not start even full. */
export function startLimitSoc(b: Omit<BankState, 'soc'>, starterAmps: number): number {
  const amps = starterAmps * coldOil(b.celsius);
  const limit = NO_START_VOLTS * b.blocks;
  if (bankCrankVolts({ ...b, soc: 1 }, amps) < limit) return 1;
  if (bankCrankVolts({ ...b, soc: LEAST_START_SHARE }, amps) >= limit) return LEAST_START_SHARE;
  return bisect(LEAST_START_SHARE, 1, (soc) => bankCrankVolts({ ...b, soc }, amps) < limit).high;
}

/** Seconds a start battery stands with a drain until the starter would fall under its limit; and the charge that is at. */
export function secondsToNoStart(
  b: Omit<BankState, 'soc'>,
  soc: number,
  starterAmps: number,
  amps: number,
): { seconds: number; limit: number; stands: number } {
  const limit = startLimitSoc(b, starterAmps);
  const stands = (b.chemistry.selfDischargePerDay / 24) * 2 ** ((b.celsius - 25) / 10) * b.capacity;
  return { seconds: soc <= limit ? 0 : ((soc - limit) * b.capacity * 3600) / (amps + stands), limit, stands };
}

export const parasitic: Calculator = {
  id: 'parasitic',
  title: 'Days until no start',
  asks: 'How long may it stand with this drain?',
  inputs: [
    choice('chemistry', 'Start battery', chemistryChoices, 'flooded'),
    number('capacity', 'Capacity', 'charge', 90, 1, 2000),
    number('cca', 'Cold cranking amps', 'amps', 800, 0, 5000),
    number('soc', 'Charge now', 'share', 0.95, 0.01, 1),
    number('amps', 'Sleeping current', 'amps', 0.07, 0, 50),
    number('starter', 'Starter takes', 'amps', 200, 10, 3000),
    number('celsius', 'Outside', 'celsius', 10, -30, 45),
    number('ageing', 'Resistance against new', 'times', 1.2, 0.5, 10),
  ],
  formula: 'days = (charge − charge at which the start fails) · Q / (24 · (I + standing loss))',
  source:
    'No start: under 8.5 V at the starter (from memory), or under 40 % charge (common practice). Battery by its ' +
    'CCA: SAE J537, 7.2 V at −18 °C (from memory). ' +
    '0.025 to 0.05 A asleep is usual, 0.25 A is a fault (common practice).',
  answer(v) {
    const b = {
      ...NEW,
      chemistry: chemistryOf(v.choice('chemistry')),
      capacity: v.number('capacity'),
      celsius: v.number('celsius'),
      ageing: v.number('ageing'),
      cca: v.number('cca'),
    };
    const soc = v.number('soc');
    const amps = v.number('amps');
    const { seconds, limit, stands } = secondsToNoStart(b, soc, v.number('starter'), amps);
    const fault = amps >= 0.25;
    return {
      figures: [
        figure(
          'Days until no-start',
          seconds,
          'days',
          seconds < 7 * 86_400 ? 'bad' : seconds < 30 * 86_400 ? 'watch' : 'good',
        ),
        figure('No start under', limit, 'share'),
      ],
      says:
        soc <= limit
          ? 'It would not start as it is.'
          : fault
            ? `${amps} A asleep is a fault: find it by millivolts across the fuses, before any is pulled.`
            : 'From then on it cranks too low to start.',
      mark: soc <= limit || fault ? 'bad' : seconds < 30 * 86_400 ? 'watch' : 'good',
      working: [
        figure('Charge to spare', Math.max(0, soc - limit) * b.capacity, 'charge'),
        figure('Standing loss', stands, 'milliamps'),
        figure('Starter in this cold', v.number('starter') * coldOil(b.celsius), 'amps'),
        figure('Least volts under it', NO_START_VOLTS, 'volts'),
      ],
    };
  },
};

export const bank: Calculator = {
  id: 'bank',
  title: 'Bank wiring',
  asks: 'What do these blocks make together?',
  inputs: [
    choice(
      'block',
      'Each block',
      [
        { id: '6', label: '6 V' },
        { id: '12', label: '12 V' },
        { id: '24', label: '24 V' },
      ],
      '6',
    ),
    number('capacity', 'Each block', 'charge', 225, 1, 2000),
    number('series', 'In series', 'number', 2, 1, 16),
    number('parallel', 'Strings in parallel', 'number', 2, 1, 16),
  ],
  formula: 'volts = blocks in series · volts of one; Ah = strings in parallel · Ah of one',
  source: 'Series and parallel circuits. Lead from opposite corners, equal links: common practice.',
  caution: 'Same kind, age and charge in one bank. Join strings only at equal volts.',
  answer(v: CalculatorInputs): CalculatorAnswer {
    const series = Math.round(v.number('series'));
    const parallel = Math.round(v.number('parallel'));
    const volts = Number(v.choice('block')) * series;
    const ah = v.number('capacity') * parallel;
    const usual = [12, 24, 36, 48].includes(volts);
    return {
      figures: [
        figure('Bank', volts, 'volts', usual ? 'good' : 'bad'),
        figure('Capacity', ah, 'charge'),
        figure('Energy', volts * ah, 'watthours'),
        figure('Blocks', series * parallel, 'number'),
      ],
      says: !usual
        ? `${volts} V is no usual system: check the number in series.`
        : parallel > 1
          ? 'Take + from one end and – from the other, so that every string sees as much cable.'
          : 'One string: every block carries the whole current.',
      mark: usual ? 'good' : 'bad',
      working: [],
    };
  },
};
