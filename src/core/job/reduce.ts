/**
 * What a command does to a job: one pure function, used by the server before it stores and by the client to
 * show what is still on its way. A refusal says what stands in the way and what to do.
 */
import { withConductor, withoutPieces, withPart, withPieces } from '../rig/applyEdit';
import { checkRig, nextProbeLabel } from '../rig/check';
import { ok, type Result } from '../units/result';
import { canonical } from '../units/canonical';
import type { Command } from './command';
import { withItem } from './itemList';
import { buildOf, builtOf, currentRevision, proposedRevision, standingChoice, standingSignOff, type Job } from './job';
import { no, replace, type Refusal } from './refusal';
import { described, edited, knownPoint, movedSince } from './rigEdits';

/** The job after the command. Lists that did not change stay the same object. */
export function reduceJob(job: Job, command: Command): Result<Job, Refusal> {
  const epoch = currentRevision(job).epoch;
  const by = command.actor;
  const at = command.at;
  if (standingSignOff(job) && !AFTER_SIGNING.has(command.type))
    return no('a record that is signed', 'the record opened again first, under Prove, with a reason');
  switch (command.type) {
    case 'state.set':
      return ok({ ...job, rigState: { id: command.payload.state, since: command.payload.since ?? at } });

    case 'intake.set': {
      const { codes, words, ...rest } = command.payload.set;
      return ok({
        ...job,
        complaint: { codes: codes ?? job.complaint.codes, words: words ?? job.complaint.words },
        intake: { ...job.intake, ...rest },
      });
    }

    // Whose rig it is stands beside the job, not in it.
    case 'identity.set':
      return ok(job);

    case 'visit.link': {
      const { set } = command.payload;
      if (set?.job === job.number) return no(`job ${set.job}`, 'the number of an earlier job');
      const { cameBack: _, ...rest } = job;
      return ok(set ? { ...rest, cameBack: set } : rest);
    }

    case 'meter.choose': {
      const { set } = command.payload;
      const { meter: _, ...rest } = job;
      if (!set) return ok(rest);
      return ok({ ...rest, meter: set.id, instruments: [...job.instruments.filter((i) => i.id !== set.id), set] });
    }

    case 'photo.keep':
      if (job.photos.some((p) => p.id === command.payload.id)) return no('this photo', 'a new id: it is kept already');
      return ok({ ...job, photos: [...job.photos, { ...command.payload, at, by }] });

    case 'photo.retract':
    case 'photo.restore': {
      const { id } = command.payload;
      if (!job.photos.some((p) => p.id === id)) return no(`photo ${id}`, 'a photo of this job');
      return ok({
        ...job,
        photos: replace(job.photos, id, (p) => ({ ...p, retracted: command.type === 'photo.retract' })),
      });
    }

    case 'lead.move':
      if (!knownPoint(job, command.payload.point))
        return no(command.payload.point, 'a point of this rig for the black lead');
      return ok({ ...job, blackLead: command.payload.point });

    case 'reading.keep': {
      const p = command.payload;
      if (job.readings.some((r) => r.id === p.id)) return no(`reading ${p.id}`, 'a new id: this one is kept already');
      if (!knownPoint(job, p.probe)) return no(p.probe, 'a probe of this rig');
      if (p.ref !== undefined && !knownPoint(job, p.ref)) return no(p.ref, 'a point of this rig for the black lead');
      if (p.meter !== undefined && !job.instruments.some((i) => i.id === p.meter))
        return no(`meter ${p.meter}`, 'an instrument chosen on this job');
      if ((p.status === 'measured') !== (p.value !== undefined))
        return no(p.status, p.status === 'measured' ? 'a value with a measured reading' : 'no value with this status');
      if (p.takenAt !== undefined && Date.parse(p.takenAt) > Date.parse(at))
        return no(`a reading of ${p.takenAt}`, 'a time that is past');
      return ok({ ...job, readings: [...job.readings, { ...p, epoch, takenAt: p.takenAt ?? at, by }] });
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
      if (job.observations.some((o) => o.id === command.payload.id))
        return no('this note', 'a new id: it is kept already');
      return ok({
        ...job,
        observations: [...job.observations, { ...command.payload, kind: 'note', epoch, at, by }],
      });

    case 'observation.keep':
      if (job.observations.some((o) => o.id === command.payload.id))
        return no('this answer', 'a new id: it is kept already');
      return ok({ ...job, observations: [...job.observations, { ...command.payload, kind: 'seen', epoch, at, by }] });

    case 'note.retract':
    case 'note.restore': {
      const { id } = command.payload;
      if (!job.observations.some((o) => o.id === id)) return no(`note ${id}`, 'a note of this job');
      return ok({
        ...job,
        observations: replace(job.observations, id, (o) => ({ ...o, retracted: command.type === 'note.retract' })),
      });
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

    case 'approval.record': {
      const { verdict } = command.payload;
      if (!job.verdicts.some((v) => v.id === verdict && !v.withdrawn))
        return no(`verdict ${verdict}`, 'a standing verdict to approve');
      if (job.approvals.some((a) => a.verdict === verdict && !a.withdrawn))
        return no('a second approval of one verdict', 'the first taken back');
      return ok({ ...job, approvals: [...job.approvals, { ...command.payload, at, by }] });
    }

    case 'approval.withdraw': {
      const { id } = command.payload;
      if (!job.approvals.some((a) => a.id === id && !a.withdrawn))
        return no(`approval ${id}`, 'a standing approval of this job');
      return ok({ ...job, approvals: replace(job.approvals, id, (a) => ({ ...a, withdrawn: true })) });
    }

    case 'repair.record': {
      const { id, verdict, revision, did } = command.payload;
      if (!job.verdicts.some((v) => v.id === verdict && !v.withdrawn))
        return no(`verdict ${verdict}`, 'a standing verdict to repair');
      if (job.repairs.some((r) => r.verdict === verdict && !r.withdrawn))
        return no('a second repair on one verdict', 'the first taken back, or a new verdict');
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
        return no(
          'readings taken after this repair',
          'those readings taken back first: they are about the repaired rig',
        );
      return ok({
        ...job,
        revisions: replace(job.revisions, repair.revision, (r) => ({ ...r, withdrawn: true })),
        repairs: replace(job.repairs, id, (r) => ({ ...r, withdrawn: true })),
      });
    }

    case 'part.edit': {
      const p = command.payload;
      const doc = described(job, p);
      if (!doc) return no(`proposal ${p.revision}`, 'a standing proposal of this job');
      if (!doc.parts.some((x) => x.id === p.part)) return no(`part ${p.part}`, 'a part of this rig');
      return edited(job, withPart(doc, p.part, p.set), p, at);
    }

    case 'conductor.edit': {
      const p = command.payload;
      const doc = described(job, p);
      if (!doc) return no(`proposal ${p.revision}`, 'a standing proposal of this job');
      if (!doc.conductors.some((x) => x.id === p.conductor))
        return no(`conductor ${p.conductor}`, 'a conductor of this rig');
      return edited(job, withConductor(doc, p.conductor, p.set), p, at);
    }

    case 'tow.edit': {
      const p = command.payload;
      const doc = described(job, p);
      if (!doc) return no(`proposal ${p.revision}`, 'a standing proposal of this job');
      if ((p.was === undefined) !== (doc.tow === undefined))
        return no(
          doc.tow ? 'a plug somebody has described meanwhile' : 'a plug nobody has described',
          'the edit made again on what stands now',
        );
      const { tow: _, ...rest } = doc;
      return edited(job, p.set ? { ...rest, tow: p.set } : rest, p, at);
    }

    case 'pieces.add': {
      const p = command.payload;
      const doc = described(job, p);
      if (!doc) return no(`proposal ${p.revision}`, 'a standing proposal of this job');
      const taken = [...p.parts, ...p.conductors].find((x) =>
        [...doc.parts, ...doc.conductors, ...doc.grounds, ...doc.bonds].some((y) => y.id === x.id),
      );
      if (taken) return no(taken.id, 'an id of its own');
      return movedSince(doc, p.moved, 'was') ?? edited(job, withPieces(doc, p), p, at);
    }

    case 'pieces.remove': {
      const p = command.payload;
      const doc = described(job, p);
      if (!doc) return no(`proposal ${p.revision}`, 'a standing proposal of this job');
      const gone = new Set([...p.parts, ...p.conductors].map((x) => x.id));
      const missing = [...gone].find((id) => ![...doc.parts, ...doc.conductors].some((x) => x.id === id));
      if (missing !== undefined) return no(missing, 'a part or conductor of this rig');
      const bonded = doc.bonds.find((b) => gone.has(b.from.part) || gone.has(b.to.part));
      if (bonded) return no(`${bonded.name}, which is bolted to it`, 'a part that is not bolted to metal');
      return movedSince(doc, p.moved, 'set') ?? edited(job, withoutPieces(doc, p), p, at);
    }

    case 'probe.add': {
      const { key, name } = command.payload;
      const { doc } = currentRevision(job);
      const known = doc.probes.find((x) => x.key === key);
      if (known && !known.retired) return no(`${known.label} on this point`, 'a point without a probe');
      const probes = known
        ? doc.probes.map((x) => (x === known ? { key: x.key, label: x.label, name: x.name } : x))
        : [...doc.probes, { key, label: nextProbeLabel(doc), name }];
      return edited(job, { ...doc, probes }, { means: 'described-wrong' }, at);
    }

    case 'probe.retire': {
      const { key } = command.payload;
      const { doc } = currentRevision(job);
      if (!doc.probes.some((x) => x.key === key && !x.retired)) return no(key, 'a probe in use on this rig');
      if (job.readings.some((r) => !r.retracted && (r.probe === key || r.ref === key) && r.epoch === epoch))
        return no('readings taken at this probe', 'those readings taken back first');
      return edited(
        job,
        { ...doc, probes: doc.probes.map((x) => (x.key === key ? { ...x, retired: true } : x)) },
        { means: 'described-wrong' },
        at,
      );
    }

    case 'change.withdraw': {
      const { revision } = command.payload;
      const now = currentRevision(job);
      if (
        now.id !== revision ||
        now.parent === undefined ||
        job.repairs.some((r) => r.revision === revision && !r.withdrawn)
      )
        return no(`revision ${revision}`, 'the newest change of the rig, not made by a repair');
      if (job.readings.some((r) => r.epoch === now.epoch && !r.retracted))
        return no(
          'readings taken after this change',
          'those readings taken back first: they are about the changed rig',
        );
      return ok({ ...job, revisions: replace(job.revisions, revision, (r) => ({ ...r, withdrawn: true })) });
    }

    case 'usage.set': {
      const { set } = command.payload;
      const twice = set.scenarios.find((s, i) => set.scenarios.findIndex((x) => x.id === s.id) !== i);
      if (twice) return no(`two scenarios ${twice.id}`, 'an id of its own for each');
      return ok({ ...job, usage: set });
    }

    case 'option.choose': {
      const { doc, revision, ...choice } = command.payload;
      if (job.choices.some((c) => !c.withdrawn)) return no('a second pick', 'the first taken back');
      if (job.revisions.some((r) => r.id === revision))
        return no(`revision ${revision}`, 'a new id for the proposed rig');
      const [issue] = checkRig(doc, '/doc');
      if (issue) return no(`${issue.pointer}: ${issue.found}`, issue.wanted);
      const from = currentRevision(job);
      // Proposed is not built: what was measured stays evidence about the rig as it stands.
      const proposed = { id: revision, kind: 'proposed' as const, parent: from.id, epoch: from.epoch, at, doc };
      return ok({
        ...job,
        revisions: [...job.revisions, proposed],
        choices: [...job.choices, { ...choice, revision, at, by }],
      });
    }

    case 'option.withdraw': {
      const { id } = command.payload;
      const choice = job.choices.find((c) => c.id === id && !c.withdrawn);
      if (!choice) return no(`pick ${id}`, 'a standing pick of this job');
      return ok({
        ...job,
        revisions: replace(job.revisions, choice.revision, (r) => ({ ...r, withdrawn: true })),
        choices: replace(job.choices, id, (c) => ({ ...c, withdrawn: true })),
      });
    }

    case 'build.tick': {
      const { candidate, line, set } = command.payload;
      if (standingChoice(job)?.candidate !== candidate) return no(`pick ${candidate}`, 'the pick that stands');
      const build = buildOf(job, candidate);
      if (build.ticks[line] !== command.payload.was)
        return no(`${line}, ticked ${build.ticks[line] ?? 'not at all'} meanwhile`, 'the tick made again');
      const { [line]: _, ...ticks } = build.ticks;
      return ok({ ...job, build: { ...build, ticks: set ? { ...ticks, [line]: set } : ticks } });
    }

    case 'build.done': {
      const { candidate, step, minutes, planned } = command.payload;
      if (standingChoice(job)?.candidate !== candidate) return no(`pick ${candidate}`, 'the pick that stands');
      const build = buildOf(job, candidate);
      if (build.done.some((d) => d.step === step)) return no('a step that is done', 'it taken back first');
      return ok({
        ...job,
        build: {
          ...build,
          done: [
            ...build.done,
            {
              step,
              ...(minutes === undefined ? {} : { minutes }),
              ...(planned === undefined ? {} : { planned }),
              at,
              by,
            },
          ],
        },
      });
    }

    case 'build.undone': {
      const { candidate, step } = command.payload;
      const build = buildOf(job, candidate);
      if (!build.done.some((d) => d.step === step)) return no(`step ${step}`, 'a step that is done');
      if (builtOf(job, proposedRevision(job)?.id ?? ''))
        return no('a build that is finished', 'the finished build taken back first');
      return ok({ ...job, build: { ...build, done: build.done.filter((d) => d.step !== step) } });
    }

    case 'build.order': {
      const { candidate, set } = command.payload;
      if (standingChoice(job)?.candidate !== candidate) return no(`pick ${candidate}`, 'the pick that stands');
      const { order, ...build } = buildOf(job, candidate);
      if (JSON.stringify(order) !== JSON.stringify(command.payload.was))
        return no('steps somebody has put in another order meanwhile', 'the move made again');
      return ok({ ...job, build: set ? { ...build, order: set } : build });
    }

    case 'build.finish': {
      const { revision, built } = command.payload;
      const proposed = proposedRevision(job);
      if (!proposed || proposed.id !== revision) return no(`proposal ${revision}`, 'the pick that stands');
      if (builtOf(job, revision)) return no('a second build of one proposal', 'the first taken back');
      if (job.revisions.some((r) => r.id === built)) return no(`revision ${built}`, 'a new id for the built rig');
      // The rig itself is another now: what was measured before is kept, but is no evidence about it.
      const next = Math.max(...job.revisions.map((r) => r.epoch)) + 1;
      return ok({
        ...job,
        revisions: [
          ...job.revisions,
          { id: built, kind: 'as-built', parent: revision, epoch: next, at, doc: proposed.doc },
        ],
      });
    }

    case 'waiver.record': {
      const p = command.payload;
      const standing = job.waivers ?? [];
      // One that was taken back stands again under its own id.
      const again = standing.find((w) => w.id === p.id);
      if (again && !(again.withdrawn && again.rule === p.rule && again.at === p.at))
        return no(`waiver ${p.id}`, 'a new id: this one is kept already');
      if (standing.some((w) => !w.withdrawn && w.rule === p.rule && w.at === p.at))
        return no(`a second waiver of ${p.rule}`, 'the first taken back');
      return ok({ ...job, waivers: [...standing.filter((w) => w.id !== p.id), { ...p, when: at, by }] });
    }

    case 'waiver.withdraw': {
      const { id } = command.payload;
      if (!job.waivers?.some((w) => w.id === id && !w.withdrawn))
        return no(`waiver ${id}`, 'a standing waiver of this job');
      return ok({ ...job, waivers: replace(job.waivers, id, (w) => ({ ...w, withdrawn: true })) });
    }

    case 'check.record': {
      const p = command.payload;
      if (job.checks?.some((c) => c.id === p.id)) return no(`check ${p.id}`, 'a new id: this one is kept already');
      return ok({ ...job, checks: [...(job.checks ?? []), { ...p, epoch, at, by }] });
    }

    case 'check.retract':
    case 'check.restore': {
      const { id } = command.payload;
      if (!job.checks?.some((c) => c.id === id)) return no(`check ${id}`, 'a check of this job');
      return ok({
        ...job,
        checks: replace(job.checks, id, (c) => ({ ...c, retracted: command.type === 'check.retract' })),
      });
    }

    case 'record.sign': {
      const p = command.payload;
      if (currentRevision(job).id !== p.revision)
        return no(`revision ${p.revision}`, 'the rig as it stands: it was changed meanwhile');
      if (job.signOffs?.some((s) => s.id === p.id)) return no(`signature ${p.id}`, 'a new id');
      return ok({ ...job, signOffs: [...(job.signOffs ?? []), { ...p, at, by }] });
    }

    case 'record.reopen': {
      const { id, reason, revision } = command.payload;
      if (standingSignOff(job)?.id !== id) return no(`signature ${id}`, 'the signature that stands');
      if (job.revisions.some((r) => r.id === revision)) return no(`revision ${revision}`, 'a new id');
      const now = currentRevision(job);
      // The rig is as it was: its readings stay evidence. What is written from here on hangs on the reason.
      return ok({
        ...job,
        status: job.status === 'done' ? 'in-the-bay' : job.status,
        revisions: [
          ...job.revisions,
          { id: revision, kind: 'as-built', parent: now.id, epoch: now.epoch, at, reason, doc: now.doc },
        ],
        signOffs: replace(job.signOffs!, id, (s) => ({ ...s, reopened: { reason, revision, at, by } })),
      });
    }

    case 'followUp.set': {
      const list = withItem(job.followUps, command.payload, by);
      return list.ok ? ok({ ...job, followUps: list.value }) : list;
    }

    case 'booking.set': {
      const list = withItem(job.bookings, command.payload, by);
      return list.ok ? ok({ ...job, bookings: list.value }) : list;
    }

    case 'planChange.set': {
      const list = withItem(job.planChanges, command.payload, by);
      return list.ok ? ok({ ...job, planChanges: list.value }) : list;
    }

    case 'log.set': {
      const list = withItem(job.logs, command.payload, by);
      return list.ok ? ok({ ...job, logs: list.value }) : list;
    }

    case 'hunt.set': {
      const { was, set } = command.payload;
      if (canonical(job.hunt) !== canonical(was))
        return no('figures somebody has changed meanwhile', 'the entry made again');
      const { hunt: _, ...rest } = job;
      return ok(set ? { ...rest, hunt: set } : rest);
    }

    case 'job.set-status':
      return ok({ ...job, status: command.payload.status });
  }
}

/** What a signed record still takes: whose rig it is stands beside it, and the ticket may move on the board. */
const AFTER_SIGNING: ReadonlySet<Command['type']> = new Set([
  'record.reopen',
  'job.set-status',
  'identity.set',
  'followUp.set',
  'booking.set',
  'log.set',
]);
