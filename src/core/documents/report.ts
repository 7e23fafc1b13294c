/** The one-page report of a job as data: what was wrong, how it was shown, what was done, that it is right now. */
import { compileRig } from '../compile/compile';
import { asDesigned } from '../diagnose/asDesigned';
import { NOTHING_WRONG } from '../diagnose/catalogue/nothingWrong';
import { Belief } from '../diagnose/belief';
import { complaintSays } from '../rig/complaintsOf';
import { suspectList } from '../diagnose/diagnose';
import { estimate, type Estimate } from '../price/estimate';
import { clueSays } from '../diagnose/intake';
import { operatingState } from '../operate/states';
import { BandTable } from '../probe/bands';
import { judge, type BandPosition as Judged } from '../probe/judge';
import type { CheckValue, RigCheck } from '../prove/check';
import { rigChecks } from '../prove/checks';
import { proofs, type Proof } from '../prove/proofs';
import type { Rig } from '../rig/schema';
import { rigFaults } from '../diagnose/faults';
import { inWordsConfidence, showBand, showPercent, showText } from '../units/format';
import { RULE_SETS } from '../codes';
import { celsiusShown } from '../units/preferences';
import { namesGiven } from '../rig/inWords';
import { allInWords, asWritten } from '../units/vocabulary';
import { jobEvidence } from '../jobAnswers/evidence';
import {
  currentRevision,
  intakeClues,
  madeBy,
  provedAgainst,
  standingAnswers,
  standingApproval,
  standingChecks,
  standingChoice,
  standingReadings,
  standingSignOff,
  standingVerdict,
  type Approval,
  type CheckRecord,
  type Job,
  type Reading,
  type Revision,
  type DeclaredFault,
} from '../job/job';
import { assumptionsOf, type Settings } from '../shop/shop';

export interface ReportReading {
  label: string;
  name: string;
  state: string;
  reading: string;
  judged?: Judged;
  healthy: string;
  says: string;
}

export interface ReportProof {
  label: string;
  name: string;
  state: string;
  before: string;
  after: string;
  judged?: Judged;
  healthy: string;
  why: string;
}

export interface ReportData {
  job: number;
  rig: string;
  kind: string;
  takenIn: string;
  outcome: { good: boolean; words: string };
  complaint: string;
  intake: string[];
  cameBack?: { job: number; warranty: boolean };
  verdict?: { name: string; confidence: string; shows?: string; settled: boolean; by: string; at: string };
  /** What to tell the customer when nothing is wrong. */
  designed: string[];
  /** The link that was picked, and why. */
  choice?: { name: string; reasons: string };
  estimate?: Estimate;
  approval?: Approval;
  readings: ReportReading[];
  seen: { ask: string; answer: string }[];
  meters: string[];
  repair?: { did: string; by: string; at: string };
  proofs: ReportProof[];
  checks: { name: string; result: string; values: string; note?: string }[];
  signed?: { words: string; by: string; at: string; elsewhere?: boolean };
  /** Times the signed record was opened again. */
  reopened: { reason: string; by: string; at: string }[];
  /** What made the rig as it is proved: the heading over the proofs says it. */
  made?: 'repair' | 'build';
  rules: string;
}

const value = (r: Reading) => ({
  state: r.state,
  probe: r.probe,
  ...(r.ref === undefined ? {} : { ref: r.ref }),
  value: r.value!,
});

/** What the sections of a report are written from. */
interface Matter {
  job: Job;
  settings: Settings;
  verdict: DeclaredFault | undefined;
  epoch: number;
  /** The rig as it was when the verdict was found: it may have been changed since it came in. */
  found: Revision;
  made: 'repair' | 'build' | undefined;
  /** The rig as it is to be proved. */
  built: Revision | undefined;
  belief: Belief;
  suspect: SuspectShown | undefined;
  told: readonly Reading[];
}
type SuspectShown = ReturnType<typeof suspectList>[number];

function matterOf(job: Job, settings: Settings): Matter {
  const verdict = standingVerdict(job);
  const standing = job.revisions.filter((r) => !r.withdrawn && r.kind !== 'proposed');
  const found = standing.find((r) => r.epoch === verdict?.epoch) ?? standing[0]!;
  const epoch = verdict?.epoch ?? found.epoch;
  const repair = job.repairs.findLast((r) => !r.withdrawn);
  const made = madeBy(job);
  const belief = new Belief(compileRig(found.doc), intakeClues(job), assumptionsOf(settings));
  belief.setEvidence(jobEvidence(job, epoch), standingAnswers(job, epoch));
  return {
    job,
    settings,
    verdict,
    epoch,
    found,
    made,
    built: made === 'build' ? currentRevision(job) : repair && job.revisions.find((r) => r.id === repair.revision),
    belief,
    // What to measure next is no matter of a report.
    suspect: verdict && suspectList(belief).find((s) => s.fault === verdict.fault),
    told: standingReadings(job, epoch).filter((r) => r.status === 'measured'),
  };
}

function readingRows({ job, found, belief, suspect, told }: Matter): ReportReading[] {
  const bands = new BandTable(belief.compiled);
  const grounds = found.doc.grounds.flatMap((g) => g.points.map((p) => ({ key: `${g.id}.${p.id}`, label: p.label })));
  const label = (key: string) => [...found.doc.probes, ...grounds].find((p) => p.key === key)?.label ?? key;
  const clues = [...(suspect?.for ?? []), ...(suspect?.against ?? [])];
  return told.map((r) => {
    const band = bands.band(r.state, r.probe, r.ref);
    const clue = clues.find((c) => c.reading === r.id);
    const elsewhere = r.ref && r.ref !== job.blackLead ? ` to ${label(r.ref)}` : '';
    return {
      label: label(r.probe),
      name: `${found.doc.probes.find((p) => p.key === r.probe)?.name ?? r.probe}${elsewhere}`,
      state: operatingState(r.state).label,
      reading: showText(r.value!, r.unit),
      ...(band ? { judged: judge(r.value!, band) } : {}),
      healthy: band ? showBand(band.lo, band.hi, band.unit) : 'no band',
      says: clue ? `${clue.logOdds > 0 ? 'points at it' : 'speaks against it'}, ${clue.strength}` : '',
    };
  });
}

function proofsOf({ job, made, built, told }: Matter): Proof[] {
  if (!built) return [];
  const after = standingReadings(job, built.epoch).filter((r) => r.status === 'measured');
  return proofs(new BandTable(compileRig(built.doc)), made === 'build' ? [] : told.map(value), after.map(value));
}

const proofRows = (list: readonly Proof[]): ReportProof[] =>
  list.map((p) => ({
    label: p.label,
    name: p.name,
    state: operatingState(p.state).label,
    before: p.before ? showText(p.before.value, p.band.unit) : 'not taken',
    after: p.after ? showText(p.after.value, p.band.unit) : 'to take',
    ...(p.after ? { judged: p.after.verdict } : {}),
    healthy: showBand(p.band.lo, p.band.hi, p.band.unit),
    why: p.why,
  }));

interface CheckWithResult {
  check: RigCheck;
  result: CheckRecord | undefined;
}

/** The checks that are due, and those somebody made all the same. */
function checksOf({ job, found, made, built }: Matter): CheckWithResult[] {
  if (!built || !made) return [];
  const results = standingChecks(job, built.epoch);
  const against = provedAgainst(job);
  return rigChecks({ rig: built.doc, from: against.from, made, ...partOfFault(found.doc, against.fault) })
    .map((check) => ({ check, result: results.get(check.id) }))
    .filter(({ check, result }) => check.required || result);
}

const RESULT_WORDS: Record<CheckRecord['result'], string> = {
  pass: 'passed',
  fail: 'failed',
  'does-not-apply': 'does not apply',
  entry: '',
};

const checkRows = (list: readonly CheckWithResult[], settings: Settings): ReportData['checks'] =>
  list.map(({ check, result }) => ({
    name: check.name,
    result: result ? RESULT_WORDS[result.result] : 'to do',
    values: check.values
      .filter((v) => result?.values?.[v.id] !== undefined)
      .map((v) => `${v.label.toLowerCase()} ${inUnit(result!.values![v.id]!, v.unit, settings)}`)
      .join(', '),
    ...(result?.note ? { note: asWritten(result.note) } : {}),
  }));

function intakeLines({ facts, usage, told }: Job['intake']): string[] {
  const { driveHours, nights, storedMonths } = usage;
  return [
    ...facts.map(clueSays),
    ...(driveHours === undefined ? [] : [`${driveHours} h of driving on a travel day`]),
    ...(nights === undefined ? [] : [`${nights} nights off grid in a row`]),
    ...(storedMonths === undefined ? [] : [`${storedMonths} months in storage a year`]),
    // The list ends with a full stop of its own.
    ...(told ? [asWritten(told.trim().replace(/\.$/, ''))] : []),
  ];
}

const verdictSection = ({ verdict, suspect }: Matter): Pick<ReportData, 'verdict'> =>
  verdict
    ? {
        verdict: {
          name: verdict.name,
          confidence: `${inWordsConfidence(verdict.probability)}, ${showPercent(verdict.probability)} %`,
          ...(suspect ? { shows: suspect.shows } : {}),
          settled: verdict.settled,
          by: asWritten(verdict.by),
          at: verdict.at,
        },
      }
    : {};

/** The link that was picked and what it costs, or what the repair does. */
function priceSection({ job, settings, suspect }: Matter): Pick<ReportData, 'choice' | 'estimate'> {
  const choice = standingChoice(job);
  if (choice)
    return { choice: { name: choice.name, reasons: asWritten(choice.reasons) }, estimate: estimate(choice, settings) };
  return suspect?.minutes && suspect.parts
    ? { estimate: estimate({ minutes: suspect.minutes, parts: suspect.parts }, settings) }
    : {};
}

function seenRows({ job, epoch, belief }: Matter): ReportData['seen'] {
  const asked = new Map(belief.questions.map((q) => [q.id, q]));
  return standingAnswers(job, epoch).flatMap((a) => {
    const q = asked.get(a.what);
    return q ? [{ ask: q.ask, answer: q.answers.find((x) => x.id === a.answer)?.label ?? a.answer }] : [];
  });
}

/** Who approved, repaired and signed, and when it was opened again. */
function signedSections({ job, verdict }: Matter): Pick<ReportData, 'approval' | 'repair' | 'signed' | 'reopened'> {
  const approval = verdict && standingApproval(job, verdict.id);
  const repair = job.repairs.findLast((r) => !r.withdrawn);
  const signed = standingSignOff(job);
  return {
    ...(approval ? { approval: asWritten(approval) } : {}),
    ...(repair ? { repair: asWritten({ did: repair.did, by: repair.by, at: repair.at }) } : {}),
    ...(signed
      ? {
          signed: {
            ...asWritten({ words: signed.words, by: signed.by, at: signed.at }),
            ...(signed.elsewhere ? { elsewhere: true } : {}),
          },
        }
      : {}),
    reopened: (job.signOffs ?? []).flatMap(({ reopened: r }) =>
      r ? [asWritten({ reason: r.reason, by: r.by, at: r.at })] : [],
    ),
  };
}

/** Everything the report says, in the shop's vocabulary; times stay instants for the page to format. */
export function reportOf(job: Job, settings: Settings): ReportData {
  const matter = matterOf(job, settings);
  const { verdict, found, made, told } = matter;
  const proofList = proofsOf(matter);
  const checks = checksOf(matter);
  const data: ReportData = {
    job: job.number,
    rig: asWritten(found.doc.name),
    kind: found.doc.kind,
    takenIn: job.revisions.find((r) => !r.withdrawn && r.kind !== 'proposed')!.at,
    outcome: outcome(
      verdict !== undefined,
      verdict?.fault,
      made,
      proofList,
      checks.filter((c) => c.check.required).map((c) => c.result?.result),
    ),
    complaint: job.complaint.words
      ? asWritten(job.complaint.words)
      : job.complaint.codes.map((c) => complaintSays(c, found.doc)).join('. '),
    intake: intakeLines(job.intake),
    ...(job.cameBack ? { cameBack: asWritten(job.cameBack) } : {}),
    ...verdictSection(matter),
    designed: verdict?.fault === NOTHING_WRONG.id ? asDesigned(found.doc, job.complaint.codes).map((a) => a.says) : [],
    ...priceSection(matter),
    readings: readingRows(matter),
    seen: seenRows(matter),
    meters: job.instruments
      .filter((i) => told.some((r) => r.meter === i.id))
      .map((i) => `${asWritten(i.name)}${i.calibratedOn ? `, compared ${i.calibratedOn}` : ', never verified'}`),
    proofs: proofRows(proofList),
    checks: checkRows(checks, settings),
    ...signedSections(matter),
    ...(made ? { made } : {}),
    rules: RULE_SETS[settings.jurisdiction].standards,
  };
  return allInWords(
    settings.vocabulary,
    data,
    job.revisions.flatMap((r) => namesGiven(r.doc)),
  );
}

const partOfFault = (rig: Rig, fault: string | undefined): { repaired?: string } => {
  const part = fault === undefined ? undefined : rigFaults(rig).find((f) => f.id === fault)?.part;
  return part === undefined ? {} : { repaired: part };
};

const inUnit = (value: number, unit: CheckValue['unit'], settings: Settings): string =>
  unit === '°C'
    ? `${Math.round(celsiusShown(value, settings.temperature))} °${settings.temperature}`
    : unit === 'times'
      ? `${value} times`
      : `${Number(value.toPrecision(3))} ${unit}`;

/** @param checks results of the checks that are due; undefined where one is still to do. */
function outcome(
  declared: boolean,
  fault: string | undefined,
  made: 'repair' | 'build' | undefined,
  list: readonly Proof[],
  checks: readonly (CheckRecord['result'] | undefined)[],
): ReportData['outcome'] {
  const missing = list.filter((p) => !p.after).length;
  const toDo = checks.filter((c) => c === undefined).length;
  const good =
    list.length > 0 &&
    list.every((p) => p.after?.verdict === 'ok') &&
    checks.every((c) => c === 'pass' || c === 'does-not-apply');
  const did = made === 'build' ? 'Built' : 'Repaired';
  if (good)
    return {
      good,
      words:
        made === 'build'
          ? 'Built as proposed, and proven right by measurement.'
          : 'Found, put right, and proven right by measurement.',
    };
  if (made && missing > 0)
    return { good, words: `${did}; ${missing} proof ${missing === 1 ? 'reading' : 'readings'} still to take.` };
  if (made && list.some((p) => p.after?.verdict !== 'ok'))
    return { good, words: `${did}, but not every proof reading is in its band: not proven.` };
  if (made && checks.includes('fail')) return { good, words: `${did}, but a check failed: not proven.` };
  if (made && toDo > 0)
    return { good, words: `${did}, every proof in its band; ${toDo} ${toDo === 1 ? 'check' : 'checks'} still to do.` };
  if (declared && fault === NOTHING_WRONG.id) return { good: true, words: 'Nothing is wrong: it works like that.' };
  return { good, words: declared ? 'Found; not yet repaired.' : 'Not yet found.' };
}
