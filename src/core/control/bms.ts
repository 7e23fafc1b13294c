/**
 * Battery-management system of a lithium bank: refuses a charge when cold, hot or when a block is at its highest
 * volts, and lets go of everything when it is flat, overloaded or outside the temperatures it gives at. Refusing a
 * charge it still gives: it works like a diode. The part's `bms` choice goes by the name given here: `closed` or `open`.
 * With a heater it warms the cells on what a charger brings to the posts, until a charge may come in.
 */
import { enter, type ControllerKind, type Mode } from './controller';
import { TIMER_SLACK } from './voltageLink';

/** Seconds a limit must be passed, and for which it then stays open: from memory. */
const LIMIT_SECONDS = 3;
const OVERLOAD_SECONDS = 10;
const OPEN_SECONDS = 60;
/** A that count as giving. */
const GIVING_AMPS = 0.05;
/** K it has to come back within its temperatures by, before it lets a charge in again: from memory. */
const RECOVERS_KELVIN = 5;

/**
 * V of a 12 V block that say a charger stands at the posts, and under which it has gone: the heater runs on a charger,
 * never on the bank. From memory.
 */
const CHARGER_ABOVE = 13.2;
const CHARGER_GONE_BELOW = 12.5;

/** Modes in which nothing gets in. */
const OPEN = new Set(['too-cold', 'warming', 'too-hot', 'too-full', 'flat', 'overloaded', 'shut-off']);

interface Limits {
  coldest: number;
  hottest: number;
  coldestGiving: number;
  hottestGiving: number;
  highest: number;
  lowest: number;
  rest: number;
  capacity: number;
  most: number;
  /** 12 V blocks in series, and 1 where it heats itself. */
  blocks: number;
  heater: number;
}

/** K it has to come back by, once it has acted on a temperature. */
const slack = (mode: Mode, ...names: readonly string[]): number => (names.includes(mode.name) ? RECOVERS_KELVIN : 0);

/** Why no charge may come in at this temperature. */
function chargeBan(
  mode: Mode,
  celsius: number,
  { coldest, hottest }: Limits,
): { name: string; why: string } | undefined {
  const at = `${celsius.toFixed(0)} °C: charging is forbidden`;
  if (celsius < coldest + slack(mode, 'too-cold', 'warming'))
    return { name: 'too-cold', why: `${at} under ${coldest.toFixed(0)} °C` };
  if (celsius > hottest - slack(mode, 'too-hot'))
    return { name: 'too-hot', why: `${at} over ${hottest.toFixed(0)} °C` };
  return undefined;
}

/** Whether a bank that is too cold to charge has its heater on. */
function warms(mode: Mode, volts: number, { heater, blocks }: Limits): boolean {
  return heater > 0 && volts >= blocks * (mode.name === 'warming' ? CHARGER_GONE_BELOW : CHARGER_ABOVE);
}

/**
 * Inputs: `volts` at the posts, `gives` amps out of the bank, `celsius`. Settings: `coldest` and `hottest` °C it is
 * charged at, `coldestGiving` and `hottestGiving` °C it gives at, `highest`, `lowest` volts of the bank, `rest` the
 * volts under which something is drawing from it, `capacity` Ah and `most`, the share of it an hour it passes either
 * way, `blocks` in series and `heater`, 1 where it has one.
 */
export const bms: ControllerKind = {
  id: 'bms',
  initial: 'closed',
  words: {
    closed: 'is connected',
    high: 'is nearly full',
    low: 'is nearly flat',
    strained: 'passes more than its BMS allows for long',
    'too-cold': 'refuses the charge, too cold',
    warming: 'warms itself on the charger before it takes a charge',
    'too-hot': 'refuses the charge, too hot',
    'too-full': 'refuses the charge, full',
    giving: 'gives, and would refuse a charge',
    flat: 'has let go, flat',
    overloaded: 'has let go, too much current',
    'shut-off': 'has let go, outside its temperatures',
  },
  // eslint-disable-next-line complexity -- a state machine, read as one: a mode a line
  step(mode, inputs, settings, dt) {
    const volts = inputs['volts'] ?? 0;
    const amps = -(inputs['gives'] ?? 0);
    const celsius = inputs['celsius'] ?? 25;
    const limit = settings as unknown as Limits;
    const { highest, lowest } = limit;
    const most = limit.most * limit.capacity;
    const to = (name: string, why: string, timer?: number) => ({
      mode: enter(mode, name, dt),
      closed: { heater: name === 'warming' },
      chosen: { bms: OPEN.has(name) ? 'open' : 'closed' },
      why,
      ...(timer === undefined ? {} : { timer }),
    });
    const left = (name: string, seconds: number) => seconds - enter(mode, name, dt).seconds;
    const outside = slack(mode, 'shut-off');
    if (celsius < limit.coldestGiving + outside || celsius > limit.hottestGiving - outside)
      return to(
        'shut-off',
        `${celsius.toFixed(0)} °C: it works from ${limit.coldestGiving.toFixed(0)} to ${limit.hottestGiving.toFixed(0)} °C`,
      );
    if (mode.name === 'flat') {
      // A charger at the posts wakes it.
      return volts > lowest * 1.2
        ? to('closed', `${volts.toFixed(2)} V at its posts: a charger woke it`)
        : to('flat', 'flat: wants a charge');
    }
    if (mode.name === 'overloaded') {
      const rest = left('overloaded', OPEN_SECONDS);
      return rest > TIMER_SLACK
        ? to('overloaded', `more than ${most.toFixed(0)} A: it waits`, rest)
        : to('closed', 'tries again');
    }
    if (volts < lowest && amps < 0) {
      const rest = left('low', LIMIT_SECONDS);
      return rest > TIMER_SLACK
        ? to('low', `${volts.toFixed(2)} V under load, under ${lowest.toFixed(1)} V`, rest)
        : to('flat', `under ${lowest.toFixed(1)} V: its BMS has opened`);
    }
    const banned = chargeBan(mode, celsius, limit);
    if (banned && amps > GIVING_AMPS) return to(banned.name, banned.why);
    if (mode.name === 'too-cold' || mode.name === 'warming' || mode.name === 'too-hot') {
      if (banned?.name === 'too-cold' && warms(mode, volts, limit))
        return to('warming', `${celsius.toFixed(0)} °C: its heater runs on the charger`);
      if (!banned) return to('closed', `${celsius.toFixed(0)} °C: within what it may be charged at`);
      return volts < limit.rest ? to('giving', 'gives; charging stays forbidden') : to(banned.name, banned.why);
    }
    if (mode.name === 'too-full') {
      if (volts < limit.rest) return to('giving', 'gives; it is full');
      const rest = left('too-full', OPEN_SECONDS);
      return rest > TIMER_SLACK || volts > highest
        ? to(
            'too-full',
            `a block has reached its limit at ${highest.toFixed(1)} V`,
            rest > TIMER_SLACK ? rest : undefined,
          )
        : to('closed', 'has calmed down');
    }
    if (Math.abs(amps) > most) {
      const rest = left('strained', OVERLOAD_SECONDS);
      return rest > TIMER_SLACK
        ? to('strained', `${Math.abs(amps).toFixed(0)} A, more than ${most.toFixed(0)} A`, rest)
        : to('overloaded', `over ${most.toFixed(0)} A for ${OVERLOAD_SECONDS} s: its BMS has opened`);
    }
    if (mode.name === 'giving' && amps < -GIVING_AMPS) return to('giving', 'gives');
    if (volts > highest && amps > 0) {
      const rest = left('high', LIMIT_SECONDS);
      return rest > TIMER_SLACK
        ? to('high', `${volts.toFixed(2)} V, over ${highest.toFixed(1)} V`, rest)
        : to('too-full', `over ${highest.toFixed(1)} V: its BMS has stopped the charge`);
    }
    return to('closed', 'within its limits');
  },
};
