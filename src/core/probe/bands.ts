/**
 * What a healthy rig would read: the middle 95 % of what the assumptions allow, meter and what the model itself is off by
 * included. Drawn from samples, not from slopes, because currents clip at limits and a link that does not close is no small
 * deviation.
 */
import { RigModel, type Settled } from '../operate/settle';
import { statesOf, type OperatingState } from '../operate/states';
import type { CompiledRig } from '../compile/compile';
import { seededRng } from '../units/rng';
import type { Band } from './judge';
import { meterSpread } from './meter';
import { MODEL_ERROR, modelSpread, reachOf } from './modelError';
import { dropLimit } from './tradeLimits';
import { Lineariser, readOutputs, rigOutputs, type Output } from './outputs';

export interface BandShare {
  label: string;
  value: number;
  unit: string;
  /** One standard deviation in the words of the parameter's scale: 0.3 is ±30 % on a ratio. */
  spread: number;
  scale: 'ratio' | 'offset';
  provenance: string;
  source?: string;
  /** What that spread alone, taken wider than stated, does to the reading, ± one standard deviation, V or A. */
  effect: number;
}

export interface BandWorking {
  band: Band;
  samples: number;
  shares: BandShare[];
  meter: number;
  /** What the model itself may be off by, ± one standard deviation, V or A. */
  model: number;
}

const SAMPLES = 192;

/** Samples under which a band of the intended ones alone would say nothing of its tails. */
const MIN_SAMPLES = 24;

/** What every controller does, and whether anything collapsed, as one word. */
const doing = (settled: Settled): string =>
  `${Object.values(settled.modes)
    .map((m) => m.mode)
    .join()} ${settled.collapsed.join()}`;

/** Healthy-rig samples of every output in one operating state. */
interface StateSamples {
  /** Output-major, then sample. */
  values: Float64Array;
  nominal: Float64Array;
  /** By sample: whether the rig's controllers do there what they do on the rig as described. */
  alike: Uint8Array;
}

/** Bands of any lead pair in any operating state; a state is drawn when it is first asked for, of the same rigs each. */
export class BandTable {
  readonly outputs: Output[];
  private readonly index: Map<string, number>;
  private readonly drawn = new Map<string, StateSamples>();
  private readonly model: RigModel;
  private readonly states: OperatingState[];
  private readonly reach: ReturnType<typeof reachOf>;
  /** The rigs drawn, each a point of spreads. */
  private rigs: Float64Array[] | undefined;

  constructor(readonly compiled: CompiledRig) {
    this.model = new RigModel(compiled);
    this.outputs = rigOutputs(compiled);
    this.states = statesOf(compiled.rig);
    this.reach = reachOf(compiled.rig);
    this.index = new Map(this.outputs.map((o, i) => [o.key, i]));
  }

  private draw(): Float64Array[] {
    const rng = seededRng(1);
    return Array.from({ length: SAMPLES }, () =>
      Float64Array.from(this.compiled.params, () => MODEL_ERROR.spreadFactor * rng.normal()),
    );
  }

  private samplesOf(state: string): StateSamples {
    const known = this.drawn.get(state);
    if (known) return known;
    this.rigs ??= this.draw();
    const width = this.outputs.length;
    const values = new Float64Array(width * SAMPLES);
    const nominal = new Float64Array(width);
    const alike = new Uint8Array(SAMPLES);
    const row = new Float64Array(width);
    const described = doing(this.model.settle(state));
    readOutputs(this.model, this.outputs, nominal);
    this.rigs.forEach((z, n) => {
      alike[n] = doing(this.model.settle(state, { z })) === described ? 1 : 0;
      readOutputs(this.model, this.outputs, row);
      for (let o = 0; o < width; o++) values[o * SAMPLES + n] = row[o]!;
    });
    const samples = { values, nominal, alike };
    this.drawn.set(state, samples);
    return samples;
  }

  /**
   * Band of red against black (or of a clamp) in an operating state; undefined for points it does not know.
   * `intended`: of the rigs whose controllers do what they are drawn to do there. A charger that has not
   * started is healthy, and no proof that it charges.
   */
  band(stateId: string, red: string, black?: string, intended = false): Band | undefined {
    const r = this.index.get(red);
    const b = black === undefined ? undefined : this.index.get(black);
    if (r === undefined || (black !== undefined && b === undefined)) return undefined;
    if (!this.states.some((state) => state.id === stateId)) return undefined;
    const samples = this.samplesOf(stateId);
    const unit = this.outputs[r]!.kind === 'amps' ? 'A' : 'V';
    const at = (o: number | undefined, n: number) => (o === undefined ? 0 : samples.values[o * SAMPLES + n]!);
    const every = Array.from({ length: SAMPLES }, (_, n) => n);
    const some = intended ? every.filter((n) => samples.alike[n] === 1) : every;
    const values = (some.length < MIN_SAMPLES ? every : some).map((n) => at(r, n) - at(b, n)).sort((x, y) => x - y);
    const count = values.length;
    const middle = values[count >> 1]!;
    const low = values[Math.floor(count * 0.025)]!;
    const high = values[Math.ceil(count * 0.975) - 1]!;
    const beyond =
      2 * Math.hypot(meterSpread(unit, middle), modelSpread(unit, middle, this.reach(stateId, red, black)));
    const lo = middle - Math.hypot(middle - low, beyond);
    const hi = middle + Math.hypot(high - middle, beyond);
    // Only where the samples are about that: an open contact is no drop.
    const limit = dropLimit(this.compiled.rig, red, black);
    const kept = limit !== undefined && low > -2 * limit && high < 2 * limit;
    return {
      lo: kept ? Math.max(lo, -limit) : lo,
      hi: kept ? Math.min(hi, limit) : hi,
      nominal: samples.nominal[r]! - (b === undefined ? 0 : samples.nominal[b]!),
      unit,
    };
  }

  /** How the band came about: the assumptions that widen it most, each with what it does alone. */
  working(stateId: string, red: string, black?: string): BandWorking | undefined {
    const band = this.band(stateId, red, black);
    if (!band) return undefined;
    this.model.settle(stateId);
    const lineariser = new Lineariser(this.model, this.outputs);
    const y = new Float64Array(this.outputs.length);
    const J = new Float64Array(this.outputs.length * lineariser.width);
    lineariser.write(y, J, 0);
    const row = (key: string | undefined, column: number) =>
      key === undefined ? 0 : J[this.index.get(key)! * lineariser.width + column]!;
    const shares = lineariser.columns
      .map((k) => this.compiled.params[k]!)
      .map((p, column): BandShare => ({
        label: p.label,
        value: p.parameter.value,
        unit: p.unit,
        spread: p.parameter.spread,
        scale: p.scale,
        provenance: p.parameter.provenance,
        ...(p.parameter.source === undefined ? {} : { source: p.parameter.source }),
        effect: Math.abs(row(red, column) - row(black, column)) * MODEL_ERROR.spreadFactor,
      }))
      .sort((a, b) => b.effect - a.effect);
    return {
      band,
      samples: SAMPLES,
      shares: shares.slice(0, 6),
      meter: meterSpread(band.unit, band.nominal),
      model: modelSpread(band.unit, band.nominal, this.reach(stateId, red, black)),
    };
  }
}
