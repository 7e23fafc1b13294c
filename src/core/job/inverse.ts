/**
 * What takes a command back: its inverse, from the job as it was before. Undo is another command; nothing
 * that was said is unsaid. Undefined where there is nothing to take back.
 */
import type { Command, CommandType, Payload } from './command';
import { currentRevision, type Job } from './job';

export type Undoing = { [T in CommandType]: { type: T; payload: Payload<T> } }[CommandType];

/** `before` is the job the command was given on; `newId` makes ids for what has to be entered anew. */
export function inverseOf(before: Job, command: Command, newId: () => string): Undoing | undefined {
  switch (command.type) {
    case 'intake.set':
    case 'identity.set':
      return { type: command.type, payload: { was: command.payload.set, set: command.payload.was } } as Undoing;
    case 'visit.link': {
      const { was, set } = command.payload;
      return { type: 'visit.link', payload: { ...(set ? { was: set } : {}), ...(was ? { set: was } : {}) } };
    }
    case 'meter.choose': {
      const { was, set } = command.payload;
      return { type: 'meter.choose', payload: { ...(set ? { was: set } : {}), ...(was ? { set: was } : {}) } };
    }
    case 'photo.keep':
    case 'photo.restore':
      return { type: 'photo.retract', payload: { id: command.payload.id } };
    case 'photo.retract':
      return { type: 'photo.restore', payload: { id: command.payload.id } };
    case 'state.set':
      return { type: 'state.set', payload: { state: before.rigState.id, since: before.rigState.since } };
    case 'lead.move':
      return { type: 'lead.move', payload: { point: before.blackLead } };
    case 'reading.keep':
    case 'reading.restore':
      return { type: 'reading.retract', payload: { id: command.payload.id } };
    case 'reading.retract':
      return { type: 'reading.restore', payload: { id: command.payload.id } };
    case 'note.add':
    case 'note.restore':
    case 'observation.keep':
      return { type: 'note.retract', payload: { id: command.payload.id } };
    case 'note.retract':
      return { type: 'note.restore', payload: { id: command.payload.id } };
    case 'verdict.declare':
      return { type: 'verdict.withdraw', payload: { id: command.payload.id } };
    case 'verdict.withdraw': {
      const v = before.verdicts.find((x) => x.id === command.payload.id);
      if (!v) return undefined;
      const { fault, name, repair, probability, settled } = v;
      return { type: 'verdict.declare', payload: { id: newId(), fault, name, repair, probability, settled } };
    }
    case 'approval.record':
      return { type: 'approval.withdraw', payload: { id: command.payload.id } };
    case 'approval.withdraw': {
      const a = before.approvals.find((x) => x.id === command.payload.id);
      if (!a) return undefined;
      const { verdict, upTo, currency, who, how, note } = a;
      return {
        type: 'approval.record',
        payload: { id: newId(), verdict, upTo, currency, who, how, ...(note === undefined ? {} : { note }) },
      };
    }
    case 'repair.record':
      return { type: 'repair.withdraw', payload: { id: command.payload.id } };
    case 'repair.withdraw': {
      const r = before.repairs.find((x) => x.id === command.payload.id);
      return (
        r && { type: 'repair.record', payload: { id: newId(), verdict: r.verdict, revision: newId(), did: r.did } }
      );
    }
    case 'part.edit':
    case 'conductor.edit':
    case 'tow.edit':
    case 'pieces.add':
    case 'pieces.remove':
      if (command.payload.means === 'changed')
        return { type: 'change.withdraw', payload: { revision: command.payload.revision! } };
      return undoneEdit(command);
    case 'probe.add':
      return { type: 'probe.retire', payload: { key: command.payload.key } };
    case 'probe.retire': {
      const probe = currentRevision(before).doc.probes.find((p) => p.key === command.payload.key);
      return probe && { type: 'probe.add', payload: { key: probe.key, name: probe.name } };
    }
    case 'followUp.set':
    case 'booking.set':
    case 'planChange.set':
    case 'log.set':
    case 'hunt.set':
    case 'build.tick':
    case 'build.order': {
      const { was, set, ...rest } = command.payload;
      return {
        type: command.type,
        payload: { ...rest, ...(set ? { was: set } : {}), ...(was ? { set: was } : {}) },
      } as Undoing;
    }
    case 'build.done':
      return { type: 'build.undone', payload: { candidate: command.payload.candidate, step: command.payload.step } };
    case 'build.undone': {
      const d = before.build?.done.find((x) => x.step === command.payload.step);
      return (
        d && {
          type: 'build.done',
          payload: {
            ...command.payload,
            ...(d.minutes === undefined ? {} : { minutes: d.minutes }),
            ...(d.planned === undefined ? {} : { planned: d.planned }),
          },
        }
      );
    }
    case 'build.finish':
      return { type: 'change.withdraw', payload: { revision: command.payload.built } };
    case 'waiver.record':
      return { type: 'waiver.withdraw', payload: { id: command.payload.id } };
    case 'usage.set':
      return { type: 'usage.set', payload: { was: command.payload.set, set: command.payload.was } };
    case 'option.choose':
      return { type: 'option.withdraw', payload: { id: command.payload.id } };
    case 'option.withdraw': {
      const c = before.choices.find((x) => x.id === command.payload.id);
      const proposed = c && before.revisions.find((r) => r.id === c.revision);
      if (!c || !proposed) return undefined;
      const { candidate, name, reasons, minutes, parts } = c;
      return {
        type: 'option.choose',
        payload: { id: newId(), candidate, name, reasons, minutes, parts, revision: newId(), doc: proposed.doc },
      };
    }
    case 'waiver.withdraw': {
      const w = before.waivers?.find((x) => x.id === command.payload.id);
      return w && { type: 'waiver.record', payload: { id: w.id, rule: w.rule, at: w.at, reason: w.reason } };
    }
    case 'check.record':
    case 'check.restore':
      return { type: 'check.retract', payload: { id: command.payload.id } };
    case 'check.retract':
      return { type: 'check.restore', payload: { id: command.payload.id } };
    case 'job.set-status':
      return { type: 'job.set-status', payload: { status: before.status } };
    // The rig was as it is before the change: what would bring the change back is to make it again.
    case 'change.withdraw':
    // A signature is not undone: the record is opened again, with a reason.
    case 'record.sign':
    case 'record.reopen':
      return undefined;
  }
}

type Edit = Extract<Command, { type: 'part.edit' | 'conductor.edit' | 'tow.edit' | 'pieces.add' | 'pieces.remove' }>;

function undoneEdit(command: Edit): Undoing {
  switch (command.type) {
    case 'part.edit':
    case 'conductor.edit': {
      const { was, set, ...rest } = command.payload;
      return { type: command.type, payload: { ...rest, was: set, set: was } } as Undoing;
    }
    case 'tow.edit': {
      const { was, set, ...rest } = command.payload;
      return { type: 'tow.edit', payload: { ...rest, ...(set ? { was: set } : {}), ...(was ? { set: was } : {}) } };
    }
    case 'pieces.add':
      return { type: 'pieces.remove', payload: command.payload };
    case 'pieces.remove':
      return { type: 'pieces.add', payload: command.payload };
  }
}
