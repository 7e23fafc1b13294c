/**
 * Battery-management system of a lithium bank: refuses a charge when cold or when a block is at its highest
 * volts, lets go of everything when it is flat. Refusing a charge it still gives: it works like a diode.
 * The part's `bms` choice goes by the name given here: `closed` or `open`.
 */
import { enter, type ControllerKind } from './controller';
import { TIMER_SLACK } from './voltageLink';

/** Seconds a limit must be passed, and for which it then stays open: from memory. */
const LIMIT_SECONDS = 3;
const OPEN_SECONDS = 60;
/** A that count as giving. */
const GIVING_AMPS = 0.05;

/**
 * Inputs: `volts` at the posts, `gives` amps out of the bank, `celsius`. Settings: `coldest` °C, `highest`,
 * `lowest` volts of the bank, `rest` the volts under which something is drawing from it.
 */
export const bms: ControllerKind = {
  id: 'bms',
  initial: 'closed',
  words: {
    closed: 'is connected',
    high: 'is nearly full',
    low: 'is nearly flat',
    'too-cold': 'refuses the charge, too cold',
    'too-full': 'refuses the charge, full',
    giving: 'gives, and would refuse a charge',
    flat: 'has let go, flat',
  },
  // eslint-disable-next-line complexity -- a state machine, read as one: a mode a line
  step(mode, inputs, settings, dt) {
    const volts = inputs['volts'] ?? 0;
    const amps = -(inputs['gives'] ?? 0);
    const celsius = inputs['celsius'] ?? 25;
    const { coldest, highest, lowest } = settings as { coldest: number; highest: number; lowest: number };
    const to = (name: string, why: string, timer?: number) => ({
      mode: enter(mode, name, dt),
      closed: {},
      chosen: { bms: name === 'too-cold' || name === 'too-full' || name === 'flat' ? 'open' : 'closed' },
      why,
      ...(timer === undefined ? {} : { timer }),
    });
    const cold = celsius < coldest;
    if (mode.name === 'flat') {
      // A charger at the posts wakes it.
      return volts > lowest * 1.2
        ? to('closed', `${volts.toFixed(2)} V at its posts: a charger woke it`)
        : to('flat', 'flat: wants a charge');
    }
    if (volts < lowest && amps < 0) {
      const left = LIMIT_SECONDS - enter(mode, 'low', dt).seconds;
      return left > TIMER_SLACK
        ? to('low', `${volts.toFixed(2)} V under load, under ${lowest.toFixed(1)} V`, left)
        : to('flat', `under ${lowest.toFixed(1)} V: its BMS has opened`);
    }
    if (mode.name === 'too-cold') {
      if (!cold) return to('closed', `${celsius.toFixed(0)} °C: warm enough to charge`);
      return volts < settings['rest']!
        ? to('giving', 'gives; charging stays forbidden')
        : to('too-cold', `${celsius.toFixed(0)} °C: charging is forbidden under ${coldest.toFixed(0)} °C`);
    }
    if (mode.name === 'too-full') {
      if (volts < settings['rest']!) return to('giving', 'gives; it is full');
      const left = OPEN_SECONDS - enter(mode, 'too-full', dt).seconds;
      return left > TIMER_SLACK || volts > highest
        ? to(
            'too-full',
            `a block has reached its limit at ${highest.toFixed(1)} V`,
            left > TIMER_SLACK ? left : undefined,
          )
        : to('closed', 'has calmed down');
    }
    if (cold && amps > GIVING_AMPS)
      return to('too-cold', `${celsius.toFixed(0)} °C: charging is forbidden under ${coldest.toFixed(0)} °C`);
    if (mode.name === 'giving' && amps < -GIVING_AMPS) return to('giving', 'gives');
    if (volts > highest && amps > 0) {
      const left = LIMIT_SECONDS - enter(mode, 'high', dt).seconds;
      return left > TIMER_SLACK
        ? to('high', `${volts.toFixed(2)} V, over ${highest.toFixed(1)} V`, left)
        : to('too-full', `over ${highest.toFixed(1)} V: its BMS has stopped the charge`);
    }
    return to('closed', 'within its limits');
  },
};
