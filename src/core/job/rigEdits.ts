/** Which document an edit of a rig is about, and the job with it edited. */
import { checkRig } from '../rig/check';
import type { Pieces } from '../rig/edit';
import type { Rig } from '../rig/schema';
import { ok, type Result } from '../units/result';
import { canonical } from '../units/canonical';
import { currentRevision, type Job } from './job';
import { refuse, replace, type Refusal } from './refusal';

interface Edit {
  means: 'described-wrong' | 'changed' | 'proposed';
  revision?: string;
}

/** The document an edit is about; undefined where it names a proposal that does not stand. */
const described = (job: Job, edit: Edit): Rig | undefined =>
  edit.means === 'proposed'
    ? job.revisions.find((r) => r.id === edit.revision && r.kind === 'proposed' && !r.withdrawn)?.doc
    : currentRevision(job).doc;

/** An edit that only corrects the description. */
export const DESCRIBED_WRONG: Edit = { means: 'described-wrong' };

/** The epoch of a rig that was changed just now. */
export const nextEpoch = (job: Job): number => Math.max(...job.revisions.map((r) => r.epoch)) + 1;

/** Whether a revision has this id already. */
export const takenId = (job: Job, revision: string): boolean => job.revisions.some((r) => r.id === revision);

/**
 * The job with the document an edit is about replaced by what `change` makes of it: see `editMeaning`.
 * @param change the new document, or a refusal
 */
export function editedDocument(
  job: Job,
  edit: Edit,
  at: string,
  change: (doc: Rig) => Rig | Result<Job, Refusal>,
): Result<Job, Refusal> {
  const from = described(job, edit);
  if (!from) return refuse(`proposal ${edit.revision}`, 'a standing proposal of this job');
  const doc = change(from);
  return 'ok' in doc ? doc : edited(job, doc, edit, at);
}

/** The job with its rig described anew, or changed: see `editMeaning`. */
function edited(job: Job, doc: Rig, edit: Edit, at: string): Result<Job, Refusal> {
  const [issue] = checkRig(doc);
  if (issue) return refuse(`${issue.pointer}: ${issue.found}`, issue.wanted);
  if (edit.means === 'proposed')
    return ok({ ...job, revisions: replace(job.revisions, edit.revision!, (r) => ({ ...r, doc })) });
  const now = currentRevision(job);
  if (edit.means === 'described-wrong')
    return ok({ ...job, revisions: replace(job.revisions, now.id, (r) => ({ ...r, doc })) });
  if (edit.revision === undefined || takenId(job, edit.revision))
    return refuse('a change of the rig without a new revision', 'an id for it');
  const epoch = nextEpoch(job);
  return ok({
    ...job,
    revisions: [...job.revisions, { id: edit.revision, kind: 'as-built', parent: now.id, epoch, at, doc }],
  });
}

/** A refusal where a conductor that is to move does not end any more where this edit found it. */
export function movedSince(rig: Rig, moved: Pieces['moved'], which: 'was' | 'set'): Result<Job, Refusal> | undefined {
  const bad = moved?.find((m) => {
    const c = rig.conductors.find((x) => x.id === m.conductor);
    return !c || canonical({ from: c.from, to: c.to, length: c.length }) !== canonical(m[which]);
  });
  return (
    bad &&
    refuse(
      `conductor ${bad.conductor} between other points, or of another length`,
      'the edit made again on what stands now',
    )
  );
}

/** Whether a key is a probe or a ground point of the rig as it stands. */
export function knownPoint(job: Job, key: string): boolean {
  const { doc } = currentRevision(job);
  const [owner, terminal] = key.split('.');
  return (
    doc.probes.some((p) => p.key === key) ||
    doc.grounds.some((g) => g.id === owner && g.points.some((p) => p.id === terminal))
  );
}
