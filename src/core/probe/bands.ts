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

/** Healthy-rig samples of every output in every operating state; bands of any lead pair come from them. */
/** Samples under which a band of the intended ones alone would say nothing of its tails. */
const MIN_SAMPLES = 24;

/** What every controller does, and whether anything collapsed, as one word. */
const doing = (settled: Settled): string =>
  `${Object.values(settled.modes)
    .map((m) => m.mode)
    .join()} ${settled.collapsed.join()}`;

export class BandTable {
  readonly outputs: Output[];
  private readonly index: Map<string, number>;
  private readonly samples: Float64Array; // state-major, then output, then sample
  private readonly nominal: Float64Array;
  /** By state and sample: whether its controllers do there what they do on the rig as described. */
  private readonly alike: Uint8Array;
  private readonly model: RigModel;
  private readonly states: OperatingState[];
  private readonly reach: ReturnType<typeof reachOf>;

  constructor(readonly compiled: CompiledRig) {
    this.model = new RigModel(compiled);
    this.outputs = rigOutputs(compiled);
    this.states = statesOf(compiled.rig);
    this.reach = reachOf(compiled.rig);
    this.index = new Map(this.outputs.map((o, i) => [o.key, i]));
    const width = this.outputs.length;
    this.samples = new Float64Array(this.states.length * width * SAMPLES);
    this.nominal = new Float64Array(this.states.length * width);
    this.alike = new Uint8Array(this.states.length * SAMPLES);
    const rng = seededRng(1);
    const z = Array.from({ length: SAMPLES }, () =>
      Float64Array.from(compiled.params, () => MODEL_ERROR.spreadFactor * rng.normal()),
    );
    const row = new Float64Array(width);
    this.states.forEach((state, s) => {
      const described = doing(this.model.settle(state.id));
      readOutputs(this.model, this.outputs, this.nominal, s * width);
      for (let n = 0; n < SAMPLES; n++) {
        this.alike[s * SAMPLES + n] = doing(this.model.settle(state.id, { z: z[n]! })) === described ? 1 : 0;
        readOutputs(this.model, this.outputs, row);
        for (let o = 0; o < width; o++) this.samples[(s * width + o) * SAMPLES + n] = row[o]!;
      }
    });
  }

  /**
   * Band of red against black (or of a clamp) in an operating state; undefined for points it does not know.
   * `intended`: of the rigs whose controllers do what they are drawn to do there. A charger that has not
   * started is healthy, and no proof that it charges.
   */
  band(stateId: string, red: string, black?: string, intended = false): Band | undefined {
    const s = this.states.findIndex((state) => state.id === stateId);
    const r = this.index.get(red);
    const b = black === undefined ? undefined : this.index.get(black);
    if (s < 0 || r === undefined || (black !== undefined && b === undefined)) return undefined;
    const width = this.outputs.length;
    const unit = this.outputs[r]!.kind === 'amps' ? 'A' : 'V';
    const at = (o: number | undefined, n: number) =>
      o === undefined ? 0 : this.samples[(s * width + o) * SAMPLES + n]!;
    const every = Array.from({ length: SAMPLES }, (_, n) => n);
    const some = intended ? every.filter((n) => this.alike[s * SAMPLES + n] === 1) : every;
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
      nominal: this.nominal[s * width + r]! - (b === undefined ? 0 : this.nominal[s * width + b]!),
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
