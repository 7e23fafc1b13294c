/**
 * What the assumptions leave open: the same samples of every uncertain number run through every candidate, so
 * that their difference is not lost in the spread they share. Stratified (Latin hypercube, McKay, Beckman and
 * Conover 1979): each number takes each n-th of its distribution once.
 */
import { normalQuantile } from '../units/stats';
import { compileRig, type CompiledRig } from '../compile/compile';
import { seededRng, seedFrom } from '../units/rng';
import type { Scenario } from '../simulate/scenarioSchema';
import type { Candidate } from './candidates';
import { figuresOf, simulateCandidate } from './outcome';

export interface Sampled {
  sample: number;
  candidate: string;
  arrives: number;
  lowest: number;
  /** V in hand under the starter at the worst; 0 where there is no engine. */
  startVolts: number;
  idleShare: number;
}

/**
 * Ah of error a step of a sample may have, five times what a trip is told with: where it arrives moves by less than a
 * thousandth (measured over the usual candidates).
 */
const SAMPLE_TOLERANCE_AH = 0.01;

/** Draws of one number over all samples: one from each n-th, in an order of its own. Same for every rig it is in. */
function drawsOf(key: string, samples: number, seed: number): Float64Array {
  const rng = seededRng(seedFrom(`${seed} ${key}`));
  const order = Array.from({ length: samples }, (_, i) => i);
  for (let i = samples - 1; i > 0; i--) {
    const j = Math.floor(rng.uniform() * (i + 1));
    [order[i], order[j]] = [order[j]!, order[i]!];
  }
  return Float64Array.from(order, (stratum) =>
    normalQuantile((stratum + Math.min(0.999, Math.max(0.001, rng.uniform()))) / samples),
  );
}

/** z of every uncertain number of a rig, by sample. Numbers that two rigs share get the same draws. */
export class Draws {
  private readonly columns: Float64Array[];
  constructor(
    readonly compiled: CompiledRig,
    readonly samples: number,
    readonly seed: number,
  ) {
    this.columns = compiled.params.map((p) =>
      p.parameter.spread > 0 ? drawsOf(p.key, samples, seed) : new Float64Array(samples),
    );
  }
  z(sample: number): Float64Array {
    return Float64Array.from(this.columns, (c) => c[sample]!);
  }
}

/** Runs some samples of one candidate. */
export function sampleCandidate(
  candidate: Candidate,
  scenarios: readonly Scenario[],
  samples: number,
  seed: number,
  which: readonly number[],
): Sampled[] {
  const compiled = compileRig(candidate.rig);
  const draws = new Draws(compiled, samples, seed);
  return which.map((sample) => {
    const z = draws.z(sample);
    const runs = scenarios.map((scenario) =>
      simulateCandidate(candidate, compiled, scenario, z, { series: false, tolerance: SAMPLE_TOLERANCE_AH }),
    );
    const o = figuresOf(candidate.rig, runs);
    return {
      sample,
      candidate: candidate.id,
      arrives: o.arrives,
      lowest: o.lowest,
      startVolts: o.start ? o.start.volts - o.start.limit : 0,
      idleShare: o.alternator?.idleShare ?? 0,
    };
  });
}

export interface OutcomeBand {
  lo: number;
  middle: number;
  hi: number;
}

export interface Spread {
  candidate: string;
  arrives: OutcomeBand;
  startVolts: OutcomeBand;
  idleShare: OutcomeBand;
  /** Share of samples in which the engine starts every time. */
  starts: number;
}

/** Middle and nine tenths of a list. */
export function bandOf(values: readonly number[]): OutcomeBand {
  const sorted = [...values].sort((a, b) => a - b);
  const at = (p: number) => sorted[Math.min(sorted.length - 1, Math.max(0, Math.round(p * (sorted.length - 1))))] ?? 0;
  return { lo: at(0.05), middle: at(0.5), hi: at(0.95) };
}

export function spreadOf(candidate: string, samples: readonly Sampled[]): Spread {
  const of = samples.filter((s) => s.candidate === candidate);
  return {
    candidate,
    arrives: bandOf(of.map((s) => s.arrives)),
    startVolts: bandOf(of.map((s) => s.startVolts)),
    idleShare: bandOf(of.map((s) => s.idleShare)),
    starts: of.length === 0 ? 0 : of.filter((s) => s.startVolts >= 0).length / of.length,
  };
}

export interface Influence {
  key: string;
  label: string;
  /** Share of the spread of arrival it explains by itself, 0 to 1. */
  share: number;
  /** True when more of it means arriving fuller. */
  raises: boolean;
  assumed: boolean;
}

/** Which numbers the arrival hangs on most: squared correlation over the samples of one candidate. */
export function influences(
  candidate: Candidate,
  samples: readonly Sampled[],
  count: number,
  seed: number,
  most = 4,
): Influence[] {
  const of = samples.filter((s) => s.candidate === candidate.id);
  if (of.length < 8) return [];
  const compiled = compileRig(candidate.rig);
  const draws = new Draws(compiled, count, seed);
  const rows = of.map((s) => draws.z(s.sample));
  const mean = of.reduce((sum, s) => sum + s.arrives, 0) / of.length;
  const variance = of.reduce((sum, s) => sum + (s.arrives - mean) ** 2, 0);
  if (variance < 1e-10) return [];
  const list = compiled.params.flatMap((p, i): Influence[] => {
    if (p.parameter.spread === 0) return [];
    const zMean = rows.reduce((sum, z) => sum + z[i]!, 0) / rows.length;
    let both = 0;
    let zVariance = 0;
    rows.forEach((z, k) => {
      both += (z[i]! - zMean) * (of[k]!.arrives - mean);
      zVariance += (z[i]! - zMean) ** 2;
    });
    return [
      {
        key: p.key,
        label: p.label,
        share: (both * both) / (zVariance * variance),
        raises: both > 0,
        assumed: p.parameter.provenance === 'assumed',
      },
    ];
  });
  // Of seventy numbers that do nothing, the luckiest explains about eleven n-ths by chance.
  return list
    .filter((x) => x.share > 11 / of.length)
    .sort((a, b) => b.share - a.share)
    .slice(0, most);
}
