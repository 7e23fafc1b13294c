/** A closed job as a case: which fault it was proved to be, and how far the rig put right reads from a sound one. */
import { compileRig } from '../compile/compile';
import { ASSUMPTIONS } from '../diagnose/assumptions';
import { NOTHING_WRONG } from '../diagnose/catalogue/nothingWrong';
import { faultKey, membersOf, rigFaults } from '../diagnose/faults';
import { priors } from '../diagnose/priors';
import { currentRevision, intakeClues, madeBy, provedAgainst, standingReadings, standingVerdict } from '../job/job';
import type { Job, Reading } from '../job/job';
import { BandTable } from '../probe/bands';
import { proofs, proven, type PointReading } from '../prove/proofs';
import type { Rig } from '../rig/schema';

import { NO_CASES, type Cases } from './cases';

/** What one job teaches; undefined of one that is open, or closed without proof. Takes some tenths of a second. */
export function caseOf(job: Job): Cases | undefined {
  // Nothing is learnt from a rig that was made up.
  if (job.status !== 'done' || currentRevision(job).doc.practice) return undefined;
  const verdict = standingVerdict(job);
  if (!verdict) return undefined;
  if (verdict.fault === NOTHING_WRONG.id)
    return verdict.settled
      ? { ...NO_CASES, jobs: 1, faults: toldOf(job, currentRevision(job).doc, verdict.fault) }
      : undefined;
  const { readings, from, fault } = provedAgainst(job);
  if (madeBy(job) !== 'repair' || !from || fault === undefined) return undefined;
  const now = currentRevision(job);
  const after = asPoints(standingReadings(job, now.epoch));
  const bands = new BandTable(compileRig(now.doc));
  if (!proven(proofs(bands, asPoints(readings), after))) return undefined;
  const faults = toldOf(job, from, fault);
  return Object.keys(faults).length === 0 ? undefined : { jobs: 1, faults, spread: spreadOf(bands, after) };
}

/** Seen and expected of every fault the rig could have had. Empty where the verdict is none of the list as it is now. */
function toldOf(job: Job, rig: Rig, verdict: string): Cases['faults'] {
  const list = rigFaults(rig);
  const was = list.find((f) => f.id === verdict);
  if (!was) return {};
  const keys = new Set(membersOf(was).map((id) => faultKey(list.find((f) => f.id === id)!)));
  const before = priors(list, intakeClues(job), ASSUMPTIONS);
  const faults: Cases['faults'] = {};
  list.forEach((fault, i) => {
    // A pair is its two members.
    if (fault.members) return;
    const key = faultKey(fault);
    const entry = (faults[key] ??= { seen: keys.has(key) ? 1 : 0, expected: 0 });
    entry.expected += before[i]!;
  });
  return faults;
}

/** Half the width of a band that holds 95 % of a normal, in standard deviations. */
const BAND_HALF_WIDTH = 1.96;
/** One reading that lies further off says no more of the spreads: something else was the matter. */
const FARTHEST = 4;

function spreadOf(bands: BandTable, after: readonly PointReading[]): Cases['spread'] {
  const squares = after.flatMap((r) => {
    const band = bands.band(r.state, r.probe, r.ref, true);
    if (!band || !(band.hi > band.lo)) return [];
    const side = r.value > band.nominal ? band.hi - band.nominal : band.nominal - band.lo;
    const off = side > 0 ? (Math.abs(r.value - band.nominal) / side) * BAND_HALF_WIDTH : 0;
    return [Math.min(FARTHEST, off) ** 2];
  });
  return squares.length === 0
    ? NO_CASES.spread
    : { jobs: 1, squares: squares.reduce((s, x) => s + x, 0) / squares.length };
}

const asPoints = (readings: readonly Reading[]): PointReading[] =>
  readings.flatMap(({ state, probe, ref, value }) =>
    value === undefined ? [] : [{ state, probe, ...(ref === undefined ? {} : { ref }), value }],
  );
