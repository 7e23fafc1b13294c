/**
 * What a job document must be beside its shape: whole in itself. Each check names the places; all of them speak. What
 * passes here the database takes: its keys, its references and its "one at a time" are the same rules.
 */
import type { Job } from '../job/job';
import { shown, type DocumentIssue } from '../rig/issue';

type Check = (job: Job, add: (pointer: string, found: unknown, wanted: string) => void) => void;

const listsOf = (job: Job): Readonly<Record<string, readonly { id: string }[]>> => ({
  revisions: job.revisions,
  readings: job.readings,
  observations: job.observations,
  verdicts: job.verdicts,
  approvals: job.approvals,
  repairs: job.repairs,
  photos: job.photos,
  choices: job.choices,
  waivers: job.waivers ?? [],
  checks: job.checks ?? [],
  signOffs: job.signOffs ?? [],
  followUps: job.followUps ?? [],
  bookings: job.bookings ?? [],
  planChanges: job.planChanges ?? [],
  logs: job.logs ?? [],
  'usage/scenarios': job.usage.scenarios,
  instruments: job.instruments,
});

const ownIds: Check = (job, add) => {
  for (const [name, list] of Object.entries(listsOf(job))) {
    const seen = new Set<string>();
    list.forEach((item, i) => {
      if (seen.has(item.id)) add(`/${name}/${i}/id`, item.id, 'an id of its own');
      seen.add(item.id);
    });
  }
};

/** Of entries that answer the same question one stands; the earlier ones are withdrawn. */
function oneStanding<T extends { withdrawn?: boolean }>(
  list: readonly T[],
  name: string,
  of: (item: T) => string,
  add: Parameters<Check>[1],
): void {
  const standing = new Set<string>();
  list.forEach((item, i) => {
    if (item.withdrawn) return;
    if (standing.has(of(item))) add(`/${name}/${i}`, 'a second one that stands', 'the earlier one withdrawn');
    standing.add(of(item));
  });
}

const oneAtATime: Check = (job, add) => {
  oneStanding(job.verdicts, 'verdicts', (v) => String(v.epoch), add);
  oneStanding(job.approvals, 'approvals', (a) => a.verdict, add);
  oneStanding(job.repairs, 'repairs', (r) => r.verdict, add);
  oneStanding(job.choices, 'choices', () => '', add);
};

const revisions: Check = (job, add) => {
  const before = new Set<string>();
  job.revisions.forEach((r, i) => {
    if (r.parent !== undefined && !before.has(r.parent))
      add(`/revisions/${i}/parent`, r.parent, 'the id of an earlier revision of this job');
    before.add(r.id);
  });
};

const readings: Check = (job, add) => {
  const epochs = new Set(job.revisions.map((r) => r.epoch));
  const keys = new Set(
    job.revisions.flatMap((r) => [
      ...r.doc.probes.map((p) => p.key),
      ...r.doc.grounds.flatMap((g) => g.points.map((p) => `${g.id}.${p.id}`)),
    ]),
  );
  if (!keys.has(job.blackLead)) add('/blackLead', job.blackLead, 'a probe or ground point of the rig');
  job.readings.forEach((r, i) => {
    if (!epochs.has(r.epoch)) add(`/readings/${i}/epoch`, r.epoch, `an epoch of a revision: ${[...epochs].join(', ')}`);
    if (!keys.has(r.probe)) add(`/readings/${i}/probe`, r.probe, 'a probe of the rig');
    if (r.ref !== undefined && !keys.has(r.ref)) add(`/readings/${i}/ref`, r.ref, 'a probe or ground point of the rig');
    if ((r.status === 'measured') !== (r.value !== undefined))
      add(`/readings/${i}/value`, r.value, r.status === 'measured' ? 'a number' : 'no value with this status');
  });
};

const instruments: Check = (job, add) => {
  const meters = new Set(job.instruments.map((m) => m.id));
  if (job.meter !== undefined && !meters.has(job.meter)) add('/meter', job.meter, 'an instrument of this job');
  job.readings.forEach((r, i) => {
    if (r.meter !== undefined && !meters.has(r.meter))
      add(`/readings/${i}/meter`, r.meter, 'an instrument of this job');
  });
};

const answers: Check = (job, add) =>
  job.observations.forEach((o, i) => {
    const answered = o.what !== undefined && o.answer !== undefined;
    if (answered !== (o.kind === 'seen'))
      add(
        `/observations/${i}/answer`,
        o.answer,
        o.kind === 'seen' ? 'what was asked and the answer' : 'no answer on a note',
      );
  });

const references: Check = (job, add) => {
  const verdicts = new Set(job.verdicts.map((v) => v.id));
  const ofKind = (kind?: string) =>
    new Set(job.revisions.filter((r) => kind === undefined || r.kind === kind).map((r) => r.id));
  const [any, proposed] = [ofKind(), ofKind('proposed')];
  const named = (pointer: string, id: string, among: ReadonlySet<string>, wanted: string) => {
    if (!among.has(id)) add(pointer, id, wanted);
  };
  job.approvals.forEach((a, i) =>
    named(`/approvals/${i}/verdict`, a.verdict, verdicts, 'the id of a verdict of this job'),
  );
  job.repairs.forEach((r, i) => {
    named(`/repairs/${i}/verdict`, r.verdict, verdicts, 'the id of a verdict of this job');
    named(`/repairs/${i}/revision`, r.revision, any, 'the id of a revision of this job');
  });
  job.signOffs?.forEach((s, i) =>
    named(`/signOffs/${i}/revision`, s.revision, any, 'the id of a revision of this job'),
  );
  job.choices.forEach((c, i) =>
    named(`/choices/${i}/revision`, c.revision, proposed, 'the id of a proposed revision of this job'),
  );
};

const CHECKS: readonly Check[] = [ownIds, oneAtATime, revisions, readings, instruments, answers, references];

/** Everything about a well-shaped job that does not hold together. */
export function inconsistencies(job: Job): DocumentIssue[] {
  const issues: DocumentIssue[] = [];
  for (const check of CHECKS)
    check(job, (pointer, found, wanted) => issues.push({ pointer, found: shown(found), wanted }));
  return issues;
}
