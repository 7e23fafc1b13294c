/**
 * What has to be measured again after a repair, and whether it is right now: the readings that spoke of the
 * fault, and the link's own function, each against the healthy band.
 */
import type { BandTable } from '../probe/bands';
import { judge, type Band, type Verdict } from '../probe/judge';
import { STATE_IDS } from '../operate/states';
import { pointName, rigMeasurements } from '../probe/measurement';

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
  before?: { value: number; verdict: Verdict };
  after?: { value: number; verdict: Verdict };
}

/**
 * Each band alone holds 95 % of healthy rigs; of several, one would often be missed by chance. Widened by
 * the ratio of the 99 % to the 95 % normal quantile, 2.58 to 1.96.
 */
const WIDEN = 2.576 / 1.96;

const proofBand = (b: Band): Band => {
  const middle = (b.lo + b.hi) / 2;
  const half = ((b.hi - b.lo) / 2) * WIDEN;
  return { ...b, lo: middle - half, hi: middle + half };
};

const idOf = (r: { state: string; probe: string; ref?: string }) => `${r.state}/${r.probe}~${r.ref ?? ''}`;

/** Proofs in the order to take them: by operating state, then nose to tail. */
export function proofs(bands: BandTable, before: readonly PointReading[], after: readonly PointReading[]): Proof[] {
  const { rig } = bands.compiled;
  const measurements = rigMeasurements(rig);
  const labels = new Map(rig.probes.map((p) => [p.key, p.label]));
  const list = new Map<string, Proof>();
  const taken = new Map(after.map((r) => [idOf(r), r]));
  const add = (at: { state: string; probe: string; ref?: string }, why: string, was?: number) => {
    if (list.has(idOf(at))) return;
    const usual = bands.band(at.state, at.probe, at.ref);
    if (!usual) return;
    const band = proofBand(usual);
    const now = taken.get(idOf(at));
    list.set(idOf(at), {
      state: at.state,
      probe: at.probe,
      ...(at.ref === undefined ? {} : { ref: at.ref }),
      label:
        measurements.find((m) => m.red === at.probe && m.black === at.ref)?.label ??
        [at.probe, at.ref].flatMap((k) => (k && labels.has(k) ? [labels.get(k)!] : [])).join('–'),
      name: measurements.find((m) => m.red === at.probe && m.black === at.ref)?.name ?? pointName(rig, at.probe),
      band,
      why,
      ...(was === undefined ? {} : { before: { value: was, verdict: judge(was, usual) } }),
      ...(now ? { after: { value: now.value, verdict: judge(now.value, band) } } : {}),
    });
  };
  for (const r of before) {
    const band = bands.band(r.state, r.probe, r.ref);
    if (band && judge(r.value, band) !== 'ok') add(r, 'it was out of its band', r.value);
  }
  // The link's own function, whatever was wrong: it closes, carries, and answers the boost switch.
  const was = new Map(before.map((r) => [idOf(r), r.value]));
  for (const m of measurements) {
    const link = rig.parts.find((p) => p.id === m.red.split('.')[0] && p.kind === 'link-solenoid');
    const across = m.kind === 'drop' && link !== undefined;
    const bank = rig.parts.find((p) => p.id === m.red.split('.')[0] && p.kind === 'battery-bank' && p.side === 'coach');
    const rises = m.kind === 'volts' && bank !== undefined && m.red.endsWith('.plus');
    const at = (state: string) => ({ state, probe: m.red, ...(m.black === undefined ? {} : { ref: m.black }) });
    if (across) {
      add(at('idle'), 'the link closes and carries with the engine running', was.get(idOf(at('idle'))));
      add(at('boost-engine-off'), 'the link answers the boost switch', was.get(idOf(at('boost-engine-off'))));
    }
    if (rises) add(at('idle'), 'the coach bank rises with the engine running', was.get(idOf(at('idle'))));
  }
  return [...list.values()].sort((a, b) => STATE_IDS.indexOf(a.state) - STATE_IDS.indexOf(b.state));
}

/** All taken and all in their band. */
export const proven = (list: readonly Proof[]): boolean => list.length > 0 && list.every((p) => p.after?.verdict === 'ok');
