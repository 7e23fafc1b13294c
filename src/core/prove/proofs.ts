/**
 * What has to be measured on a repaired or newly built rig, and whether it is right now: the readings that
 * spoke of the fault, and the link's own function, each against the healthy band.
 */
import { normalQuantile } from '../units/stats';
import type { BandTable } from '../probe/bands';
import { judge, type Band, type BandPosition } from '../probe/judge';
import { operatingState, STATE_IDS, statesOf } from '../operate/states';
import { pointName, rigMeasurements } from '../probe/measurement';
import { FUNCTION_TESTS } from './functions';

export interface PointReading {
  state: string;
  probe: string;
  ref?: string;
  value: number;
}

export interface Proof {
  state: string;
  probe: string;
  ref?: string;
  label: string;
  name: string;
  band: Band;
  why: string;
  /** Seconds the rig has to have been in the state. */
  wait: number;
  before?: { value: number; verdict: BandPosition };
  after?: { value: number; verdict: BandPosition };
}

/** Chance that a healthy rig misses any of its bands. Assumed. */
const MISSED_BY_CHANCE_SHARE = 0.05;

/**
 * Each band alone holds 95 % of healthy rigs; of several, one would often be missed by chance. How many times wider
 * each of `count` has to be for all of them together to hold 95 % (Bonferroni).
 */
export const bonferroni = (count: number): number =>
  normalQuantile(1 - MISSED_BY_CHANCE_SHARE / Math.max(1, count) / 2) / normalQuantile(0.975);

const widened = (b: Band, count: number): Band => {
  const by = bonferroni(count);
  const middle = Math.min(b.hi, Math.max(b.lo, b.nominal));
  return { ...b, lo: middle - (middle - b.lo) * by, hi: middle + (b.hi - middle) * by };
};

const idOf = (r: { state: string; probe: string; ref?: string }) => `${r.state}/${r.probe}~${r.ref ?? ''}`;

/** Proofs in the order to take them: by operating state, then nose to tail. */
export function proofs(bands: BandTable, before: readonly PointReading[], after: readonly PointReading[]): Proof[] {
  const { rig } = bands.compiled;
  const measurements = rigMeasurements(rig);
  const states = new Set(statesOf(rig).map((s) => s.id));
  const wanted = new Map<string, { state: string; probe: string; ref?: string; why: string }>();
  const add = (at: { state: string; probe: string; ref?: string }, why: string) => {
    if (!wanted.has(idOf(at)) && bands.band(at.state, at.probe, at.ref))
      wanted.set(idOf(at), { state: at.state, probe: at.probe, ...(at.ref === undefined ? {} : { ref: at.ref }), why });
  };
  for (const r of before) {
    const band = bands.band(r.state, r.probe, r.ref);
    if (band && judge(r.value, band) !== 'ok') add(r, 'it was out of its band');
  }
  // The link's own function, whatever was wrong.
  for (const test of FUNCTION_TESTS) {
    if (!states.has(test.state)) continue;
    for (const m of test.points(rig, measurements))
      add({ state: test.state, probe: m.red, ...(m.black === undefined ? {} : { ref: m.black }) }, test.why);
  }
  const taken = new Map(after.map((r) => [idOf(r), r.value]));
  const was = new Map(before.map((r) => [idOf(r), r.value]));
  return [...wanted.values()]
    .map((at): Proof => {
      const usual = bands.band(at.state, at.probe, at.ref, true)!;
      const band = widened(usual, wanted.size);
      const m = measurements.find((x) => x.red === at.probe && x.black === at.ref);
      const old = was.get(idOf(at));
      const now = taken.get(idOf(at));
      return {
        ...at,
        label:
          m?.label ??
          [at.probe, at.ref].flatMap((k) => rig.probes.filter((p) => p.key === k).map((p) => p.label)).join('–'),
        name: m?.name ?? pointName(rig, at.probe),
        band,
        wait: operatingState(at.state).inputs.dwell,
        ...(old === undefined ? {} : { before: { value: old, verdict: judge(old, usual) } }),
        ...(now === undefined ? {} : { after: { value: now, verdict: judge(now, band) } }),
      };
    })
    .sort((a, b) => STATE_IDS.indexOf(a.state) - STATE_IDS.indexOf(b.state));
}

/** All taken and all in their band. */
export const proven = (list: readonly Proof[]): boolean =>
  list.length > 0 && list.every((p) => p.after?.verdict === 'ok');
