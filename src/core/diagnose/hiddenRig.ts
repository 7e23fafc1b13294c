/**
 * A rig with a hidden fault and a meter on it: the `measure` verb, the demo's readings, practice and the
 * trials. The truth is drawn once from a seed; the same seed always hides the same rig.
 */
import type { CompiledRig } from '../compile/compile';
import { RigModel } from '../operate/settle';
import { operatingState, statesOf, type OperatingState } from '../operate/states';
import { METER, meterNoise, roundToDisplay, SPOT_NOISE_VOLTS, USUAL_METER } from '../probe/meter';
import { readOutputs, rigOutputs, type Output } from '../probe/outputs';
import { seededRng, seedFrom, type Rng } from '../units/rng';
import { membersOf, rigFaults, type Fault } from './faults';
import { answerProbability } from './observations';
import type { ObservationKind } from './observations/observationKind';

export interface HiddenRigOptions {
  /** Truth is drawn from spreads this many times wider than the document states. */
  widen?: number;
  /** Share of readings that are blunders. */
  blunderShare?: number;
}

/** What each reading of a meter is off by on its own: its clamp's zero is the same in all of them. */
const OWN_NOISE = { ...USUAL_METER, ampFloor: METER.clampNoise };

export class HiddenRig {
  /** One, or the two of a pair (`first+second`). */
  readonly faults: readonly Fault[];
  private readonly outputs: Output[];
  private readonly index: Map<string, number>;
  private readonly truth: Float64Array;
  private readonly gain: number;
  private readonly clampZero: number;
  private readonly states: OperatingState[];
  /** Links that end closed, as `part/state`. */
  private readonly closed = new Set<string>();

  constructor(
    private readonly compiled: CompiledRig,
    faultId: string,
    private readonly seed: number,
    private readonly options: HiddenRigOptions = {},
  ) {
    const all = rigFaults(compiled.rig);
    this.faults = faultId.split('+').map((id) => {
      const fault = all.find((f) => f.id === id);
      if (!fault)
        throw new RangeError(
          `no fault ${id}; this rig can have: ${all
            .filter((f) => !f.members)
            .map((f) => f.id)
            .join(', ')}`,
        );
      return fault;
    });
    const effects = this.faults.flatMap((f) => f.effects);
    const rng = seededRng(seed);
    const widen = options.widen ?? 1;
    // Half the draw beyond three sigma is not a rig, it is a typing error: cap it.
    const normal = () => Math.max(-3, Math.min(3, rng.normal())) * widen;
    const z = Float64Array.from(compiled.params, normal);
    const severity = rng.uniform();
    this.gain = 1 + METER.gainSpread * normal();
    this.outputs = rigOutputs(compiled);
    this.states = statesOf(compiled.rig);
    this.index = new Map(this.outputs.map((o, i) => [o.key, i]));
    this.truth = new Float64Array(this.outputs.length * this.states.length);
    const model = new RigModel(compiled);
    this.states.forEach((state, s) => {
      // What no parameter covers: surface charge left by the last run, a set-point that wanders.
      const drift = Float64Array.from(z, (x) => x + 0.05 * rng.normal());
      const { modes } = model.settle(state.id, { z: drift, effects, severity });
      for (const [part, { mode }] of Object.entries(modes))
        if (mode === 'closed') this.closed.add(`${part}/${state.id}`);
      readOutputs(model, this.outputs, this.truth, s * this.outputs.length);
    });
    this.clampZero = METER.clampZero * normal();
  }

  /** What the points really carry. */
  private actual(stateIndex: number, probe: string, ref?: string): number {
    const at = (key: string) => {
      const o = this.index.get(key);
      if (o === undefined) throw new RangeError(`no probe ${key}; this rig has: ${[...this.index.keys()].join(', ')}`);
      return this.truth[stateIndex * this.outputs.length + o]!;
    };
    return at(probe) - (ref === undefined ? 0 : at(ref));
  }

  /** One reading, as the display shows it; `take` counts repeats of the same reading. */
  read(stateId: string, probe: string, ref?: string, take = 0): { value: number; unit: 'V' | 'A'; blunder: boolean } {
    operatingState(stateId);
    const s = this.states.findIndex((state) => state.id === stateId);
    if (s < 0)
      throw new RangeError(`this rig has no state ${stateId}; it has: ${this.states.map((x) => x.id).join(', ')}`);
    const rng = seededRng(seedFrom(`${this.seed}/${stateId}/${probe}/${ref ?? ''}/${take}`));
    const o = this.index.get(probe);
    const unit = o !== undefined && this.outputs[o]!.kind === 'amps' ? 'A' : 'V';
    let value = this.actual(s, probe, ref);
    const blunder = rng.uniform() < (this.options.blunderShare ?? 0);
    if (blunder) value = this.blundered(rng, s, probe, ref, value, unit);
    const noise = Math.hypot(meterNoise(unit, value, OWN_NOISE), unit === 'V' ? SPOT_NOISE_VOLTS : 0) * rng.normal();
    return {
      value: roundToDisplay(unit, (unit === 'V' ? value * this.gain : value + this.clampZero) + noise),
      unit,
      blunder,
    };
  }

  /** The answer to a question about what is seen, heard or tried, drawn from the chances the question states. */
  answer(question: ObservationKind): string {
    const rng = seededRng(seedFrom(`${this.seed}/${question.id}`));
    const chance = (answer: string) =>
      answerProbability(question, answer, {
        faults: this.faults.flatMap(membersOf),
        closes: (part, state) => this.closed.has(`${part}/${state}`),
        volts: (state, probe) => {
          const s = this.states.findIndex((x) => x.id === state);
          return s < 0 || !this.index.has(probe) ? undefined : this.actual(s, probe);
        },
        nominal: this.compiled.rig.vehicles[0]!.nominalVolts,
      });
    let u = rng.uniform();
    for (const { id } of question.answers) {
      u -= chance(id);
      if (u < 0) return id;
    }
    return question.answers.at(-1)!.id;
  }

  private blundered(
    rng: Rng,
    s: number,
    probe: string,
    ref: string | undefined,
    value: number,
    unit: 'V' | 'A',
  ): number {
    const kind = rng.uniform();
    if (kind < 0.3) return 0; // lead not touching
    if (kind < 0.55) {
      const others = this.outputs.filter((o) => (o.kind === 'amps') === (unit === 'A') && o.key !== probe);
      const other = others[Math.floor(rng.uniform() * others.length)];
      return other ? this.actual(s, other.key, ref) : 0; // neighbouring probe
    }
    if (kind < 0.75) return this.actual(Math.floor(rng.uniform() * this.states.length), probe, ref); // wrong state
    if (kind < 0.9) return -value; // swapped leads
    return rng.uniform() < 0.5 ? value * 10 : value / 10; // shifted decimal
  }
}
