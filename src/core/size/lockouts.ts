/**
 * Input lockout of DC-DC chargers that a wire enables, against what their input sees at idle while they run: on
 * a feed that sags under it a charger lets go, the volts come back, it starts again. And whether the battery
 * that feeds it is drawn on: then no setting helps, what fills that battery has no more to give.
 */
import { emfAmps, resistorAmps } from '../circuit/readings';
import type { CompiledRig } from '../compile/compile';
import { is, nominalOf } from '../parts/kinds';
import type { Effect } from '../operate/effects';
import { RigModel } from '../operate/settle';
import { chargingStateOf } from '../operate/states';
import { follow } from '../rig/follow';
import type { Part, Rig } from '../rig/schema';
import { partOption, partValue } from '../rig/value';
import { seededRng } from '../units/rng';
import { middle95, type Interval } from '../units/stats';

/** Rigs drawn: enough for a share of 100 to within some seven. */
const SAMPLES = 48;
/** The lockout is put out of the way by this factor, so that the input is seen under load whatever it is set to. */
const OUT_OF_THE_WAY_FACTOR = 0.3;
/** V a lockout is set under the least it sees, and a restart above the lockout, per 12 V (assumed; 0.5 V apart is common practice). */
const IN_HAND_VOLTS = 0.15;
const RESTART_ABOVE_VOLTS = 0.5;
/** V per 12 V under which a lockout no longer spares a battery (from memory). */
const MIN_LOCKOUT_VOLTS = 11;
/** Of 100 rigs drawn: from so many on it is said. */
const SAID_FROM_PERCENT = 10;
/** A out of the feeding battery that are no rounding. */
const DRAWS_AMPS = 0.5;

export interface Lockout {
  part: string;
  name: string;
  lockout: number;
  restart: number;
  /** V at its input at idle: before it starts, and while it gives all it can. */
  before: Interval;
  loaded: Interval;
  /** Battery that feeds it, and Ω from its posts to the input, out and back. */
  fedBy?: string;
  loopOhms: number;
  /** Of 100 rigs as this one is assumed: its input falls under the lockout; the battery that feeds it is drawn on. */
  starved: number;
  drawnOn: number;
  verdict: 'holds' | 'may lock out' | 'more than its feed gives';
  says: string;
  wants?: { lockout: number; restart: number };
}

/**
 * Chargers that a wire tells when the engine runs. By volts they stop at other thresholds; always on, the lockout is
 * all that spares the battery.
 */
const wiredChargers = (rig: Rig): Part[] =>
  rig.parts.filter((p) => is(p, 'charger') && !['volts', 'always'].includes(partOption(p, 'enable')));

/** Its lockout out of the way: it runs whatever its input falls to. */
const runs = (p: Part): Effect => ({
  do: 'scale-param',
  param: `${p.id}.lockout`,
  from: OUT_OF_THE_WAY_FACTOR,
  to: OUT_OF_THE_WAY_FACTOR,
});

const across = ({ compiled, solver }: RigModel, part: string, plus: string, minus: string): number =>
  solver.volts[compiled.node.get(`${part}.${plus}`)!]! - solver.volts[compiled.node.get(`${part}.${minus}`)!]!;
const input = (model: RigModel, p: Part): number => across(model, p.id, 'input', 'ground');

/** What feeds a charger at idle. */
export interface Feed {
  battery?: Part;
  /** Ω from that battery's posts to the charger's input, out and back; 0 where it takes nothing. */
  loopOhms: number;
  /** V at its input before it starts, and Ω of all that sags behind it: alternator, its cable, the loop. */
  volts: number;
  ohms: number;
}

/** What feeds a charger, as solved at idle with and without it. */
export function feedOf(model: RigModel, charger: Part): Feed {
  const { rig, resistor } = model.compiled;
  // The one that feeds it, not a small one that hangs on the same line beside it.
  const banks = follow(rig, { part: charger.id, terminal: 'input' }).flatMap((s) =>
    s.part && is(s.part, 'battery') ? [s.part] : [],
  );
  const battery = banks.find((p) => p.vehicle !== charger.vehicle) ?? banks[0];
  const lead = rig.conductors.find((c) => [c.from, c.to].some((e) => e.part === charger.id && e.terminal === 'input'));
  const at = chargingStateOf(rig);
  model.settle(at, { effects: [{ do: 'dead-controller', part: charger.id }] });
  const volts = input(model, charger);
  if (!lead) return { loopOhms: 0, volts, ohms: 0 };
  model.settle(at, { effects: [runs(charger)] });
  const amps = Math.abs(resistorAmps(model.solver, model.values, resistor.get(lead.id)!));
  const by = (drop: number) => (amps > 1 ? Math.max(0, drop / amps) : 0);
  return {
    ...(battery ? { battery } : {}),
    loopOhms: battery ? by(across(model, battery.id, 'plus', 'minus') - input(model, charger)) : 0,
    volts,
    ohms: by(volts - input(model, charger)),
  };
}

/** Every charger that a wire enables, on the same rigs drawn from what is assumed. */
export function lockoutsOf(compiled: CompiledRig): Lockout[] {
  const { rig } = compiled;
  const chargers = wiredChargers(rig).filter((p) => compiled.controllers.some((c) => c.part === p.id));
  if (chargers.length === 0) return [];
  const model = new RigModel(compiled);
  const rng = seededRng(7);
  const draws = Array.from({ length: SAMPLES }, () => Float64Array.from(compiled.params, () => rng.normal()));
  const running = chargers.map(runs);
  const at = chargingStateOf(rig);
  return chargers.map((part): Lockout => {
    const { battery: feed, loopOhms } = feedOf(model, part);
    const cells = compiled.topology.emfs.flatMap((e, i) => (feed && e.id.startsWith(`${feed.id}.`) ? [i] : []));
    const before: number[] = [];
    const loaded: number[] = [];
    const fed: number[] = [];
    let [starved, drawnOn] = [0, 0];
    const [lockout, restart] = [partValue(part, 'lockout'), partValue(part, 'restart')];
    for (const z of draws) {
      model.settle(at, { z, effects: [...running, { do: 'dead-controller', part: part.id }] });
      before.push(input(model, part));
      const { collapsed } = model.settle(at, { z, effects: running });
      const volts = input(model, part);
      loaded.push(volts);
      if (collapsed.includes(part.id) || volts < lockout) starved += 1;
      if (cells.some((i) => emfAmps(model.solver, model.values, i) < -DRAWS_AMPS)) drawnOn += 1;
      else fed.push(volts);
    }

    const blocks =
      nominalOf(
        feed ?? part,
        rig.vehicles.find((v) => v.id === (feed ?? part).vehicle)!,
      ) / 12;
    const [b, l] = [middle95(before), middle95(loaded)];
    // Where its battery is drawn on the lockout shall act: it is set for where it is not.
    const least = fed.length > 0 ? middle95(fed).lo : l.lo;
    const of100 = (n: number) => Math.round((100 * n) / SAMPLES);
    const verdict =
      of100(drawnOn) >= SAID_FROM_PERCENT ? 'more than its feed gives' : least < lockout ? 'may lock out' : 'holds';
    const lower = Math.floor((least - IN_HAND_VOLTS) * 10) / 10;
    const wants =
      verdict === 'may lock out' && lower >= MIN_LOCKOUT_VOLTS * blocks
        ? {
            lockout: lower,
            restart: Number(Math.min(lower + RESTART_ABOVE_VOLTS * blocks, b.lo - IN_HAND_VOLTS).toFixed(1)),
          }
        : undefined;
    const V = (x: number) => `${x.toFixed(1)} V`;
    const says = {
      holds: `Running at idle its input stays above ${V(least)}: over the ${V(lockout)} it locks out at.`,
      'may lock out':
        `Running at idle its input may fall to ${V(least)}, under the ${V(lockout)} it locks out at: it ` +
        `lets go, the volts come back, it starts again. ` +
        (wants
          ? 'Its enable wire says that the engine runs, so it may be set lower.'
          : 'A thicker or shorter line, better joints, or a smaller charger.'),
      'more than its feed gives':
        `On ${of100(drawnOn)} of 100 rigs as this one is assumed ${feed?.name ?? 'its battery'} ` +
        `is drawn on at idle while it runs: what fills it has no more to give. A smaller charger.`,
    }[verdict];
    return {
      part: part.id,
      name: part.name,
      lockout,
      restart,
      before: b,
      loaded: l,
      ...(feed ? { fedBy: feed.name } : {}),
      loopOhms,
      starved: of100(starved),
      drawnOn: of100(drawnOn),
      verdict,
      says,
      ...(wants ? { wants } : {}),
    };
  });
}
