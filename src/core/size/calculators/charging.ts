/** Calculators of charging: charger input, alternator margin, delta amps, contact, lamp and diode. */
import { CONTINUOUS_SHARE } from '../protect';
import { lampCurrent } from '../../circuit/lamp';
import { LAMP_DIODE as DIODE } from '../../parts/entries/maintainers';
import { contactVerdict } from '../../probe/contact';
import { bisect } from '../../units/stats';
import { wireResistance, type Gauge } from '../../units/wire';
import { choice, figure, gaugeChoices, number, type Calculator } from './calculator';

/** A a converter takes at the end of a feed, the higher-voltage solution; undefined where the feed cannot carry it. */
export function inputAmps(sourceVolts: number, ohms: number, watts: number): number | undefined {
  const root = sourceVolts * sourceVolts - 4 * ohms * watts;
  if (root < 0) return undefined;
  // The form that keeps its digits as the ohms go to nothing.
  return (2 * watts) / (sourceVolts + Math.sqrt(root));
}

export const chargerInput: Calculator = {
  id: 'charger',
  title: 'Charger input',
  asks: 'What does a DC-DC charger take at the end of this cable?',
  inputs: [
    number('out', 'It gives', 'amps', 30, 0.5, 200),
    number('outVolts', 'It gives, at', 'volts', 14.2, 5, 60),
    number('source', 'Start battery, engine running', 'volts', 13.9, 10, 60),
    choice('gauge', 'Cable', gaugeChoices, '6'),
    number('length', 'Length, one way', 'length', 9.144, 0.05, 60),
    number('joints', 'Joints, fuse, connector', 'milliohms', 0.004, 0, 1),
    number('efficiency', 'Efficiency', 'share', 0.88, 0.4, 0.99),
    number('lockout', 'Input lockout under', 'volts', 12.2, 5, 60),
  ],
  formula: 'U · I = P and U = U0 − I · R, so I = 2P ÷ (U0 + √(U0² − 4 · R · P)); P is what it gives ÷ efficiency',
  source: 'Constant power on a resistive feed; efficiency 85–90 % is common practice.',
  answer(v) {
    const watts = (v.number('out') * v.number('outVolts')) / v.number('efficiency');
    const ohms = wireResistance(v.choice('gauge') as Gauge, 2 * v.number('length'), 40) + v.number('joints');
    const us = v.number('source');
    const amps = inputAmps(us, ohms, watts);
    const most = (us * us) / (4 * ohms);
    if (amps === undefined)
      return {
        figures: [figure('Most this feed can carry', most, 'watts', 'bad'), figure('It asks for', watts, 'watts')],
        says: 'The feed collapses: no current gives that power. It would hunt on its lockout. Thicker cable, or a smaller charger.',
        mark: 'bad',
        working: [figure('Loop', ohms, 'milliohms')],
      };
    const input = us - amps * ohms;
    const locks = input < v.number('lockout');
    return {
      figures: [
        figure('Takes', amps, 'amps'),
        figure('Input volts', input, 'volts', locks ? 'bad' : 'good'),
        figure('Lost in the feed', amps * amps * ohms, 'watts'),
      ],
      says: locks
        ? `Its input sags under ${v.number('lockout').toFixed(1)} V: it locks out, the volts come back, and it hunts.`
        : `${((100 * amps) / v.number('out') - 100).toFixed(0)} % more amps in than out: cable for ${amps.toFixed(0)} A, ` +
          `its fuse for ${(amps / CONTINUOUS_SHARE).toFixed(0)} A or more.`,
      mark: locks ? 'bad' : 'good',
      working: [
        figure('Input power', watts, 'watts'),
        figure('Loop', ohms, 'milliohms'),
        figure('Most this feed could carry', most, 'watts'),
      ],
    };
  },
};

export const alternatorAtIdle: Calculator = {
  id: 'alternator',
  title: 'Alternator margin',
  asks: 'What is left for charging at idle and under way?',
  inputs: [
    number('rating', 'Rating, at speed', 'amps', 160, 10, 1000),
    number('idle', 'Of it at hot idle', 'share', 0.5, 0.1, 1),
    number('loads', 'Vehicle’s own loads', 'amps', 35, 0, 500),
    number('charger', 'Charger or link takes', 'amps', 50, 0, 500),
    number('limit', 'Upfit limit, 0 where none is given', 'amps', 0, 0, 500),
  ],
  formula: 'margin = rating · share − loads − charger',
  source:
    '40–60 % of the rating at idle; upfit limits of 40–80 A on vans: common practice. The vehicle maker’s guide comes first.',
  answer(v) {
    const atIdle = v.number('rating') * v.number('idle');
    const taken = v.number('loads') + v.number('charger');
    const margin = atIdle - taken;
    const limit = v.number('limit');
    const over = limit > 0 && v.number('charger') > limit;
    return {
      figures: [
        figure('Left at idle', margin, 'amps', margin < 0 ? 'bad' : margin < 0.1 * atIdle ? 'watch' : 'good'),
        figure('Left under way', v.number('rating') - taken, 'amps'),
        figure('Share used at idle', taken / atIdle, 'share'),
        figure(
          'Most a charger may take',
          Math.max(0, Math.min(limit > 0 ? limit : Infinity, 0.9 * atIdle - v.number('loads'))),
          'amps',
        ),
      ],
      says: over
        ? `Over the maker’s ${limit.toFixed(0)} A for upfits.`
        : margin < 0
          ? 'At idle the start battery makes up the shortfall: a switch, a smaller charger, or fast idle.'
          : margin < 0.1 * atIdle
            ? 'Hardly anything left at idle: measure its temperature after an hour.'
            : 'There is margin, even at hot idle.',
      mark: over || margin < 0 ? 'bad' : margin < 0.1 * atIdle ? 'watch' : 'good',
      working: [figure('It gives at idle', atIdle, 'amps'), figure('Taken in all', taken, 'amps')],
    };
  },
};

export const delta: Calculator = {
  id: 'delta',
  title: 'Delta amps',
  asks: 'What does the charger give, by the bank monitor before and after?',
  inputs: [
    number('before', 'Monitor, charger off', 'amps', 3, -500, 500),
    number('after', 'Monitor, charger on', 'amps', 37, -500, 500),
    number('sunBefore', 'Other sources, off', 'amps', 6, 0, 500),
    number('sunAfter', 'Other sources, on', 'amps', 6, 0, 500),
    number('loadBefore', 'Loads, off', 'amps', 0, 0, 500),
    number('loadAfter', 'Loads, on', 'amps', 0, 0, 500),
  ],
  formula: 'charger = (after − before) − (sources after − before) + (loads after − before)',
  source: 'Kirchhoff’s current law at the bank; reading a charger without a display this way is common practice.',
  answer(v) {
    const step = v.number('after') - v.number('before');
    const sun = v.number('sunAfter') - v.number('sunBefore');
    const loads = v.number('loadAfter') - v.number('loadBefore');
    const amps = step - sun + loads;
    const other = Math.abs(sun) + Math.abs(loads);
    return {
      figures: [
        figure('Charger gives', amps, 'amps', amps > 1 ? 'good' : 'bad'),
        figure('Step on the monitor', step, 'amps'),
      ],
      says:
        amps <= 1
          ? 'Nothing to speak of: enable, input, fuse, negative.'
          : other > Math.abs(amps)
            ? 'More changed beside it than it gives: do it again with the sun covered and loads off.'
            : 'Take both within a minute: sun and loads move.',
      mark: amps <= 1 ? 'bad' : other > Math.abs(amps) ? 'watch' : 'good',
      working: [figure('Change of other sources', sun, 'amps'), figure('Change of loads', loads, 'amps')],
    };
  },
};

export const contact: Calculator = {
  id: 'contact',
  title: 'Contact',
  asks: 'Is this contact still good?',
  inputs: [
    number('drop', 'Drop across it', 'millivolts', 0.12, 0, 20),
    number('amps', 'Current through it', 'amps', 62, 0, 1000),
  ],
  formula: 'R = U / I',
  source: 'Good to 2 mΩ, watch to 4, replace above; valid above about 30 A: common practice.',
  caution: 'Leads on the two studs of the same piece. Never bridge them with a tool.',
  answer(v) {
    const { milliohms, says } = contactVerdict(v.number('drop'), v.number('amps'));
    const mark = says === 'good' ? 'good' : says === 'replace' ? 'bad' : 'watch';
    return {
      figures: [
        figure('Contact', milliohms / 1000, 'milliohms', mark),
        figure('Heat in it', v.number('drop') * v.number('amps'), 'watts'),
      ],
      says: `${says.charAt(0).toUpperCase()}${says.slice(1)}.`,
      mark,
      working: [],
    };
  },
};

/** Fuse, holder and leads, Ω: from memory. */
const LEAD_OHMS = 0.05;

/** A through fuse, lamp and diode from one voltage to another; none where the far side is higher. */
export function lampAndDiodeAmps(
  from: number,
  to: number,
  watts: number,
  nominal = 12,
): { amps: number; lamp: number; diode: number } {
  const out = new Float64Array(2);
  const across = (lamp: number) => {
    lampCurrent(nominal, watts, lamp, out);
    const amps = out[0]!;
    const diode = DIODE.emission * Math.log(amps / DIODE.saturation + 1) + amps * DIODE.ohms;
    return { total: lamp + diode + amps * LEAD_OHMS, amps, diode };
  };
  const gap = from - to;
  if (gap <= 0) return { amps: 0, lamp: 0, diode: gap };
  const { low } = bisect(0, gap, (lamp) => across(lamp).total <= gap, { rounds: 60 });
  const { amps, diode } = across(low);
  return { amps, lamp: low, diode };
}

export const lampAndDiode: Calculator = {
  id: 'lamp',
  title: 'Lamp and diode',
  asks: 'What trickle does a headlamp bulb let through?',
  inputs: [
    number('from', 'Source', 'volts', 14, 0, 30),
    number('to', 'Battery it helps', 'volts', 12.7, 0, 30),
    number('watts', 'Bulb, at 12 V', 'watts', 55, 5, 120),
  ],
  formula: 'volts of lamp + n · VT · ln(I ÷ Is + 1) + I · R = volts between the two, the lamp by its energy balance',
  source: 'About 5 A into a short, 1.3–1.5 A from 14 V into 12.7 V: common practice. Diode from memory.',
  caution: 'Lamp in a housing: it gets hot. Fuse sized to its full current.',
  answer(v) {
    const { amps, lamp, diode } = lampAndDiodeAmps(v.number('from'), v.number('to'), v.number('watts'));
    const short = lampAndDiodeAmps(v.number('from'), 0, v.number('watts')).amps;
    const glows = lamp > 6;
    return {
      figures: [
        figure('Trickle', amps, 'amps', amps > 0.05 ? 'good' : 'watch'),
        figure('Into a short', short, 'amps'),
        figure('In a night of 8 h', amps * 8, 'charge'),
      ],
      says:
        v.number('from') <= v.number('to')
          ? 'The diode blocks: nothing flows back.'
          : glows
            ? 'The lamp glows: the far battery is very low, or its wiring is shorted.'
            : amps < 0.05
              ? 'Next to nothing: the diode takes what difference there is.'
              : 'The lamp stays dark and the battery is kept up.',
      mark: glows ? 'watch' : amps < 0.05 ? 'watch' : 'good',
      working: [figure('Across the lamp', lamp, 'volts'), figure('Across the diode', diode, 'volts')],
    };
  },
};
