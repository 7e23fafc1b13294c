/// <reference lib="webworker" />
/** The core in a web worker: everything that takes longer than a click. */
import { expose } from 'comlink';
import { compileRig } from '../core/compile/compile';
import { Belief, type Evidence } from '../core/diagnose/belief';
import { diagnose, type DiagnoseOptions, type Diagnosis } from '../core/diagnose/diagnose';
import { rigFaults } from '../core/diagnose/faults';
import type { IntakeClue } from '../core/diagnose/intake';
import { observationsOf, type Observed } from '../core/diagnose/observations';
import type { ObservationKind } from '../core/diagnose/observations/observationKind';
import { explainPriors, type PriorLine } from '../core/diagnose/priors';
import { missingProbes } from '../core/diagnose/addedProbes';
import { BandTable, type BandWorking } from '../core/probe/bands';
import type { Band } from '../core/probe/judge';
import { pointPlace, rigMeasurements, type Measurement, type PointPlace } from '../core/probe/measurement';
import type { RigCheck } from '../core/prove/check';
import { rigChecks } from '../core/prove/checks';
import { proofs, type PointReading, type Proof } from '../core/prove/proofs';
import type { Job } from '../core/job/job';
import { practiceAnswer, practiceReading } from '../core/diagnose/practiceRig';
import type { Cases } from '../core/learn/cases';
import { caseOf } from '../core/learn/closedCase';
import { reportOf, type ReportData } from '../core/documents/report';
import { assumptionsOf, type Settings } from '../core/shop/shop';
import type { WireRow, Wiring } from '../core/documents/wiring/drawing';
import { wiringOf } from '../core/documents/wiring/sheet';
import { svgOf } from '../core/documents/wiring/svg';
import { rigInWords } from '../core/rig/inWords';
import type { Rig } from '../core/rig/schema';
import { remembered } from './remembered';

/** A rig document and a name for it that changes when it does. */
export interface NamedRig {
  key: string;
  doc: Rig;
}

export interface RigTable {
  measurements: Measurement[];
  /** Place and lead of every probe and ground point. */
  points: Record<string, PointPlace>;
  /** What can be looked at, listened to and tried. */
  questions: ObservationKind[];
  /** Points and clamps that have no probe yet. */
  missing: { key: string; name: string }[];
}

/** Bands of one operating state, by measurement id. */
export type StateBands = Record<string, Band>;

/** What of the assumptions the shop set. */
export type ShopAssumed = Pick<Settings, 'likelihoods' | 'openMinutes' | 'learnt'>;

const KEEP = 3;
const bandTables = new Map<string, BandTable>();
const beliefs = new Map<string, Belief>();

function memoised<T>(map: Map<string, T>, key: string, make: () => T): T {
  let value = map.get(key);
  if (!value) {
    value = make();
    map.set(key, value);
    if (map.size > KEEP) map.delete(map.keys().next().value!);
  }
  return value;
}

const bandTable = (rig: NamedRig) => memoised(bandTables, rig.key, () => new BandTable(compileRig(rig.doc)));

const api = {
  table(rig: NamedRig, blackLead: string): RigTable {
    const keys = [
      ...rig.doc.probes.filter((p) => !p.retired).map((p) => p.key),
      ...rig.doc.grounds.flatMap((g) => g.points.map((p) => `${g.id}.${p.id}`)),
    ];
    return {
      measurements: rigMeasurements(rig.doc, blackLead),
      points: Object.fromEntries(keys.map((k) => [k, pointPlace(rig.doc, k)])),
      questions: observationsOf(rig.doc, rigFaults(rig.doc)),
      missing: missingProbes(rig.doc).map(({ key, name }) => ({ key, name })),
    };
  },

  bands(rig: NamedRig, blackLead: string, state: string): StateBands {
    const table = bandTable(rig);
    return Object.fromEntries(
      rigMeasurements(rig.doc, blackLead).map((m) => [m.id, table.band(state, m.red, m.black)!]),
    );
  },

  bandWorking(rig: NamedRig, state: string, red: string, black?: string): BandWorking | undefined {
    return bandTable(rig).working(state, red, black);
  },

  diagnose(
    rig: NamedRig,
    clues: readonly IntakeClue[],
    assumed: ShopAssumed,
    evidence: readonly Evidence[],
    observed: readonly Observed[],
    options: DiagnoseOptions,
  ): Diagnosis {
    const belief = memoised(
      beliefs,
      `${rig.key} ${clues.join()} ${JSON.stringify(assumed)}`,
      () => new Belief(compileRig(rig.doc), clues, assumptionsOf(assumed)),
    );
    belief.setEvidence(evidence, observed);
    return diagnose(belief, options);
  },

  /** The report of a job, in the shop's words. */
  report(job: Job, settings: Settings): ReportData {
    return reportOf(job, settings);
  },

  /** What has to be proved of a rig that was repaired or built: readings, and checks that are more than one. */
  proving(
    rig: NamedRig,
    how: { made: 'repair' | 'build'; from?: Rig; fault?: string },
    before: readonly PointReading[],
    after: readonly PointReading[],
  ): { readings: Proof[]; checks: RigCheck[] } {
    const repaired = how.fault === undefined ? undefined : rigFaults(rig.doc).find((f) => f.id === how.fault)?.part;
    return {
      readings: proofs(bandTable(rig), before, after),
      checks: rigChecks({
        rig: rig.doc,
        from: how.from,
        made: how.made,
        ...(repaired === undefined ? {} : { repaired }),
      }),
    };
  },

  /** The wiring diagram of a rig as an SVG file, and its schedule, in the shop's words. */
  wiring(doc: Rig, settings: Settings): { svg: string; title: string; wires: WireRow[]; grounds: Wiring['grounds'] } {
    const { drawing, wires, grounds } = wiringOf(rigInWords(settings.vocabulary, doc), settings);
    return { svg: svgOf(drawing), title: drawing.title, wires, grounds };
  },

  /** What the meter shows at a point of a practice rig. */
  practiceReading,
  /** What one finds there on looking, listening or trying: the answer's label. */
  practiceAnswer(rig: Rig, mended: boolean, question: string): string | undefined {
    const kind = observationsOf(rig, rigFaults(rig)).find((q) => q.id === question);
    return kind && practiceAnswer(rig, mended, kind);
  },

  /** What a closed job teaches; undefined where it was not proved. */
  caseOf(job: Job): Cases | undefined {
    return caseOf(job);
  },

  /** How the intake sets the start, likeliest fault first. */
  priors(rig: NamedRig, clues: readonly IntakeClue[], assumed: ShopAssumed): PriorLine[] {
    return explainPriors(rigFaults(rig.doc), clues, assumptionsOf(assumed));
  },
};

/** The same, of what this device worked out before. */
const remembering = {
  ...api,
  bands: (...asked: Parameters<typeof api.bands>) => {
    const [{ doc }, ...rest] = asked;
    return remembered(['bands', doc, rest], () => api.bands(...asked));
  },
  diagnose: (...asked: Parameters<typeof api.diagnose>) => {
    const [{ doc }, ...rest] = asked;
    return remembered(['diagnosis', doc, rest], () => api.diagnose(...asked), true);
  },
};

export type CoreApi = typeof remembering;
expose(remembering);
