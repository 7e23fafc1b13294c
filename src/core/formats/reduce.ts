/**
 * What a command does to a job: one pure function, used by the server before it stores and by the client to
 * show what is still on its way. A refusal says what stands in the way and what to do.
 */
import { withConductor, withPart } from '../rig/applyEdit';
import { checkRig } from '../rig/check';
import type { Rig } from '../rig/schema';
import { err, ok, type Result } from '../units/result';
import type { Command } from './command';
import { currentRevision, type Job } from './job';

export interface Refusal {
  found: string;
  wanted: string;
}

type Listed = { id: string };
const replace = <T extends Listed>(list: readonly T[], id: string, change: (item: T) => T): T[] =>
  list.map((item) => (item.id === id ? change(item) : item));

const no = (found: string, wanted: string): Result<Job, Refusal> => err({ found, wanted });

/** The job after the command. Lists that did not change stay the same object. */
export function reduceJob(job: Job, command: Command): Result<Job, Refusal> {
  const epoch = currentRevision(job).epoch;
  const by = command.actor;
  const at = command.at;
  switch (command.type) {
    case 'state.set':
      return ok({ ...job, rigState: { id: command.payload.state, since: at } });

    case 'lead.move':
      if (!knownPoint(job, command.payload.point)) return no(command.payload.point, 'a point of this rig for the black lead');
      return ok({ ...job, blackLead: command.payload.point });

    case 'reading.keep': {
      const p = command.payload;
      if (job.readings.some((r) => r.id === p.id)) return no(`reading ${p.id}`, 'a new id: this one is kept already');
      if (!knownPoint(job, p.probe)) return no(p.probe, 'a probe of this rig');
      if (p.ref !== undefined && !knownPoint(job, p.ref)) return no(p.ref, 'a point of this rig for the black lead');
      if ((p.status === 'measured') !== (p.value !== undefined))
        return no(p.status, p.status === 'measured' ? 'a value with a measured reading' : 'no value with this status');
      return ok({ ...job, readings: [...job.readings, { ...p, epoch, takenAt: at, by }] });
    }

    case 'reading.retract':
    case 'reading.restore': {
      const { id } = command.payload;
      const reading = job.readings.find((r) => r.id === id);
      if (!reading) return no(`reading ${id}`, 'a reading of this job');
      const retracted = command.type === 'reading.retract';
      return ok({ ...job, readings: replace(job.readings, id, (r) => ({ ...r, retracted })) });
    }

    case 'note.add':
      if (job.observations.some((o) => o.id === command.payload.id)) return no('this note', 'a new id: it is kept already');
      return ok({
        ...job,
        observations: [...job.observations, { ...command.payload, kind: 'note', epoch, at, by }],
      });

    case 'observation.keep':
      if (job.observations.some((o) => o.id === command.payload.id)) return no('this answer', 'a new id: it is kept already');
      return ok({ ...job, observations: [...job.observations, { ...command.payload, kind: 'seen', epoch, at, by }] });

    case 'note.retract': {
      const { id } = command.payload;
      if (!job.observations.some((o) => o.id === id)) return no(`note ${id}`, 'a note of this job');
      return ok({ ...job, observations: replace(job.observations, id, (o) => ({ ...o, retracted: true })) });
    }

    case 'verdict.declare': {
      const standing = job.verdicts.find((v) => !v.withdrawn && v.epoch === epoch);
      if (standing) return no(`the verdict “${standing.name}”`, 'that verdict withdrawn first: one stands at a time');
      return ok({ ...job, verdicts: [...job.verdicts, { ...command.payload, epoch, at, by }] });
    }

    case 'verdict.withdraw': {
      const { id } = command.payload;
      const verdict = job.verdicts.find((v) => v.id === id && !v.withdrawn);
      if (!verdict) return no(`verdict ${id}`, 'a standing verdict of this job');
      if (job.repairs.some((r) => r.verdict === id && !r.withdrawn))
        return no('a repair recorded on this verdict', 'the repair taken back first');
      return ok({ ...job, verdicts: replace(job.verdicts, id, (v) => ({ ...v, withdrawn: true })) });
    }

    case 'repair.record': {
      const { id, verdict, revision, did } = command.payload;
      if (!job.verdicts.some((v) => v.id === verdict && !v.withdrawn)) return no(`verdict ${verdict}`, 'a standing verdict to repair');
      if (job.repairs.some((r) => r.verdict === verdict && !r.withdrawn)) return no('a second repair on one verdict', 'the first taken back, or a new verdict');
      const from = currentRevision(job);
      // The rig itself changed: what was measured before is kept, but is no evidence about it.
      const next = Math.max(...job.revisions.map((r) => r.epoch)) + 1;
      const built = { id: revision, kind: 'as-built' as const, parent: from.id, epoch: next, at, doc: from.doc };
      return ok({
        ...job,
        revisions: [...job.revisions, built],
        repairs: [...job.repairs, { id, verdict, revision, did, at, by }],
      });
    }

    case 'repair.withdraw': {
      const { id } = command.payload;
      const repair = job.repairs.find((r) => r.id === id && !r.withdrawn);
      if (!repair) return no(`repair ${id}`, 'a standing repair of this job');
      const built = job.revisions.find((r) => r.id === repair.revision);
      if (built && job.readings.some((r) => r.epoch === built.epoch && !r.retracted))
        return no('readings taken after this repair', 'those readings taken back first: they are about the repaired rig');
      return ok({
        ...job,
        revisions: replace(job.revisions, repair.revision, (r) => ({ ...r, withdrawn: true })),
        repairs: replace(job.repairs, id, (r) => ({ ...r, withdrawn: true })),
      });
    }

    case 'part.edit': {
      const p = command.payload;
      const { doc } = currentRevision(job);
      if (!doc.parts.some((x) => x.id === p.part)) return no(`part ${p.part}`, 'a part of this rig');
      return edited(job, withPart(doc, p.part, p.set), p, at);
    }

    case 'conductor.edit': {
      const p = command.payload;
      const { doc } = currentRevision(job);
      if (!doc.conductors.some((x) => x.id === p.conductor)) return no(`conductor ${p.conductor}`, 'a conductor of this rig');
      return edited(job, withConductor(doc, p.conductor, p.set), p, at);
    }

    case 'change.withdraw': {
      const { revision } = command.payload;
      const now = currentRevision(job);
      if (now.id !== revision || now.parent === undefined || job.repairs.some((r) => r.revision === revision && !r.withdrawn))
        return no(`revision ${revision}`, 'the newest change of the rig, not made by a repair');
      if (job.readings.some((r) => r.epoch === now.epoch && !r.retracted))
        return no('readings taken after this change', 'those readings taken back first: they are about the changed rig');
      return ok({ ...job, revisions: replace(job.revisions, revision, (r) => ({ ...r, withdrawn: true })) });
    }

    case 'job.set-status':
      return ok({ ...job, status: command.payload.status });
  }
}

/** The job with its rig described anew, or changed: see `editMeaning`. */
function edited(job: Job, doc: Rig, edit: { means: 'described-wrong' | 'changed'; revision?: string }, at: string): Result<Job, Refusal> {
  const [issue] = checkRig(doc);
  if (issue) return no(`${issue.pointer}: ${issue.found}`, issue.wanted);
  const now = currentRevision(job);
  if (edit.means === 'described-wrong') return ok({ ...job, revisions: replace(job.revisions, now.id, (r) => ({ ...r, doc })) });
  if (edit.revision === undefined || job.revisions.some((r) => r.id === edit.revision)) return no('a change of the rig without a new revision', 'an id for it');
  const epoch = Math.max(...job.revisions.map((r) => r.epoch)) + 1;
  return ok({ ...job, revisions: [...job.revisions, { id: edit.revision, kind: 'as-built', parent: now.id, epoch, at, doc }] });
}

function knownPoint(job: Job, key: string): boolean {
  const { doc } = currentRevision(job);
  const [owner, terminal] = key.split('.');
  return (
    doc.probes.some((p) => p.key === key) ||
    doc.grounds.some((g) => g.id === owner && g.points.some((p) => p.id === terminal))
  );
}
