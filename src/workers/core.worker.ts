/// <reference lib="webworker" />
/** The core in a web worker: everything that takes longer than a click. */
import { expose } from 'comlink';
import { compileRig } from '../core/compile/compile';
import type { Complaint } from '../core/diagnose/complaints';
import { ASSUMPTIONS, type Assumptions } from '../core/diagnose/assumptions';
import { Belief, type Evidence } from '../core/diagnose/belief';
import { diagnose, type DiagnoseOptions, type Diagnosis } from '../core/diagnose/diagnose';
import type { Observed } from '../core/diagnose/observations';
import { statesOf } from '../core/operate/states';
import { BandTable, type BandWorking } from '../core/probe/bands';
import type { Band } from '../core/probe/judge';
import { pointPlace, rigMeasurements, type Measurement, type PointPlace } from '../core/probe/measurement';
import { proofs, type PointReading, type Proof } from '../core/prove/proofs';
import type { Rig } from '../core/rig/schema';

/** A rig document and a name for it that changes when it does. */
export interface NamedRig {
  key: string;
  doc: Rig;
}

export interface RigTable {
  measurements: Measurement[];
  /** By operating state, then measurement id. */
  bands: Record<string, Record<string, Band>>;
  /** Place and lead of every probe and ground point. */
  points: Record<string, PointPlace>;
}

const KEEP = 3;
const bandTables = new Map<string, BandTable>();
const beliefs = new Map<string, Belief>();

function kept<T>(map: Map<string, T>, key: string, make: () => T): T {
  let value = map.get(key);
  if (!value) {
    value = make();
    map.set(key, value);
    if (map.size > KEEP) map.delete(map.keys().next().value!);
  }
  return value;
}

const bandTable = (rig: NamedRig) => kept(bandTables, rig.key, () => new BandTable(compileRig(rig.doc)));

const api = {
  table(rig: NamedRig, blackLead: string): RigTable {
    const table = bandTable(rig);
    const measurements = rigMeasurements(rig.doc, blackLead);
    const bands: RigTable['bands'] = {};
    for (const state of statesOf(rig.doc)) {
      const row: Record<string, Band> = {};
      for (const m of measurements) row[m.id] = table.band(state.id, m.red, m.black)!;
      bands[state.id] = row;
    }
    const keys = [
      ...rig.doc.probes.map((p) => p.key),
      ...rig.doc.grounds.flatMap((g) => g.points.map((p) => `${g.id}.${p.id}`)),
    ];
    return { measurements, bands, points: Object.fromEntries(keys.map((k) => [k, pointPlace(rig.doc, k)])) };
  },

  bandWorking(rig: NamedRig, state: string, red: string, black?: string): BandWorking | undefined {
    return bandTable(rig).working(state, red, black);
  },

  /** Bands of readings whatever their leads were, in the order asked. */
  bandsOf(rig: NamedRig, wanted: readonly { state: string; probe: string; ref?: string }[]): (Band | undefined)[] {
    const table = bandTable(rig);
    return wanted.map((w) => table.band(w.state, w.probe, w.ref));
  },

  diagnose(rig: NamedRig, complaints: readonly Complaint[], evidence: readonly Evidence[], observed: readonly Observed[], options: DiagnoseOptions): Diagnosis {
    const belief = kept(beliefs, `${rig.key} ${complaints.join()}`, () => new Belief(compileRig(rig.doc), complaints));
    belief.setEvidence(evidence, observed);
    return diagnose(belief, options);
  },

  proofs(rig: NamedRig, before: readonly PointReading[], after: readonly PointReading[]): Proof[] {
    return proofs(bandTable(rig), before, after);
  },

  assumptions(): Assumptions {
    return ASSUMPTIONS;
  },
};

export type CoreApi = typeof api;
expose(api);
