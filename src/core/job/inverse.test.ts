import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import {
  after,
  approved,
  BY,
  checked,
  command,
  coupled,
  declared,
  done,
  followUp,
  fused,
  hunt,
  link,
  meter,
  newId,
  noted,
  open,
  other,
  photo,
  pick,
  picked,
  pictured,
  probed,
  reading,
  repaired,
  towed,
  trip,
  waiver,
  wire,
} from '../../../tests/afternoon';
import { demoUuid } from '../../../db/demo/shop';
import type { Command, CommandType } from './command';
import { COMMAND_TYPES } from './commandSchema';
import {
  currentRevision,
  standingAnswers,
  standingApproval,
  standingChoice,
  standingReadings,
  standingVerdict,
  standingWaivers,
  type Job,
} from './job';
import { applyCommand, inverseOf, matterInWords, matterOf } from './applyCommand';

/** What stands of a job: what anybody would read off it, without what was taken back. */
function standing(job: Job) {
  const revision = currentRevision(job);
  const verdict = standingVerdict(job);
  const bare = <T extends { id: string }>(x: T | undefined) => x && { ...x, id: '', at: '', by: '' };
  return {
    status: job.status,
    complaint: job.complaint,
    intake: job.intake,
    cameBack: job.cameBack,
    rigState: job.rigState,
    blackLead: job.blackLead,
    meter: job.meter,
    doc: {
      ...revision.doc,
      probes: revision.doc.probes.filter((p) => !p.retired),
      parts: [...revision.doc.parts].sort(byId),
      conductors: [...revision.doc.conductors].sort(byId),
    },
    epoch: revision.epoch,
    readings: standingReadings(job, revision.epoch).map((r) => r.id),
    answers: standingAnswers(job, revision.epoch),
    notes: job.observations.filter((o) => !o.retracted).map((o) => o.id),
    photos: job.photos.filter((p) => !p.retracted).map((p) => p.id),
    verdict: bare(verdict),
    approval: verdict && bare({ ...standingApproval(job, verdict.id), id: '', verdict: '' }),
    waivers: standingWaivers(job).map((w) => [w.rule, w.at, w.reason]),
    build: job.build &&
      (job.build.done.length > 0 || Object.keys(job.build.ticks).length > 0 || job.build.order) && {
        ...job.build,
        done: job.build.done.map((d) => [d.step, d.minutes]),
      },
    usage: job.usage,
    choice: bare({ ...standingChoice(job), id: '', revision: '' }),
    followUps: job.followUps ?? [],
    bookings: job.bookings ?? [],
    planChanges: job.planChanges ?? [],
    logs: job.logs ?? [],
    hunt: job.hunt,
    checks: (job.checks ?? []).filter((c) => !c.retracted).map((c) => [c.check, c.result, c.values, c.note]),
    repair: job.repairs.filter((r) => !r.withdrawn).map((r) => r.did),
  };
}
const byId = (a: { id: string }, b: { id: string }) => (a.id < b.id ? -1 : 1);

/** One example at least of every command, and the job it is given on. */
const EXAMPLES: Record<CommandType, [Job, Command][]> = {
  'intake.set': [
    [open, command('intake.set', { was: { facts: open.intake.facts }, set: { facts: ['slowly'] } })],
    [open, command('intake.set', { was: { words: open.complaint.words }, set: { words: 'other words' } })],
  ],
  'identity.set': [[open, command('identity.set', { was: {}, set: { plate: 'X' } })]],
  'visit.link': [
    [open, command('visit.link', { was: open.cameBack!, set: { job: 1009, warranty: true } })],
    [open, command('visit.link', { was: open.cameBack! })],
    [{ ...done }, command('visit.link', { set: { job: 900, warranty: false } })],
  ],
  'meter.choose': [
    [open, command('meter.choose', { was: meter, set: other })],
    [open, command('meter.choose', { was: meter })],
  ],
  'photo.keep': [[open, command('photo.keep', photo)]],
  'photo.retract': [[pictured, command('photo.retract', { id: photo.id })]],
  'photo.restore': [
    [after(pictured, command('photo.retract', { id: photo.id })), command('photo.restore', { id: photo.id })],
  ],
  'pieces.add': [
    [open, command('pieces.add', { ...fused, means: 'described-wrong' })],
    [
      open,
      command('pieces.add', {
        parts: [],
        conductors: [{ ...wire, id: 'second-boost-wire' }],
        means: 'described-wrong',
      }),
    ],
    [
      open,
      command('pieces.add', { parts: [], conductors: [{ ...wire, id: 'third' }], means: 'changed', revision: newId() }),
    ],
  ],
  'pieces.remove': [[open, command('pieces.remove', { parts: [], conductors: [wire], means: 'described-wrong' })]],
  'probe.add': [[open, command('probe.add', { key: 'house.plus', name: 'House panel' })]],
  'probe.retire': [[probed, command('probe.retire', { key: 'house.plus' })]],
  'part.edit': [
    [
      open,
      command('part.edit', {
        part: 'link',
        was: { note: link.note! },
        set: { note: '100 A' },
        means: 'described-wrong',
      }),
    ],
    [
      open,
      command('part.edit', {
        part: 'link',
        was: { note: link.note! },
        set: { note: '100 A' },
        means: 'changed',
        revision: newId(),
      }),
    ],
  ],
  'conductor.edit': [
    [
      open,
      command('conductor.edit', {
        conductor: wire.id,
        was: { gauge: wire.gauge },
        set: { gauge: '10' },
        means: 'described-wrong',
      }),
    ],
  ],
  'tow.edit': [
    [coupled, command('tow.edit', { set: towed, means: 'described-wrong' })],
    [
      after(coupled, command('tow.edit', { set: towed, means: 'described-wrong' })),
      command('tow.edit', {
        was: towed,
        set: { ...towed, brakes: { amps: 6, supply: 'pin' } },
        means: 'described-wrong',
      }),
    ],
    [coupled, command('tow.edit', { set: towed, means: 'changed', revision: newId() })],
  ],
  'usage.set': [[open, command('usage.set', { was: open.usage, set: { scenarios: [trip] } })]],
  'option.choose': [[open, command('option.choose', pick)]],
  'option.withdraw': [[picked, command('option.withdraw', { id: pick.id })]],
  'change.withdraw': [],
  'state.set': [[open, command('state.set', { state: 'shore' })]],
  'lead.move': [[open, command('lead.move', { point: 'coach-bank.minus' })]],
  'reading.keep': [
    [
      open,
      command('reading.keep', {
        id: newId(),
        state: 'idle',
        probe: 'link.coil-plus',
        ref: 'frame.bay-2',
        status: 'measured',
        value: 13,
        unit: 'V',
        secondsInState: 200,
      }),
    ],
  ],
  'reading.retract': [[open, command('reading.retract', { id: reading.id })]],
  'reading.restore': [
    [after(open, command('reading.retract', { id: reading.id })), command('reading.restore', { id: reading.id })],
  ],
  'note.add': [[open, command('note.add', { id: newId(), text: 'a note' })]],
  'observation.keep': [
    [open, command('observation.keep', { id: newId(), what: 'click-boost', answer: 'no', text: 'Click?' })],
  ],
  'note.retract': [[noted, command('note.retract', { id: demoUuid('note') })]],
  'note.restore': [
    [
      after(noted, command('note.retract', { id: demoUuid('note') })),
      command('note.restore', { id: demoUuid('note') }),
    ],
  ],
  'verdict.declare': [
    [
      open,
      command('verdict.declare', { id: newId(), fault: 'f', name: 'n', repair: 'r', probability: 0.5, settled: false }),
    ],
  ],
  'verdict.withdraw': [[declared, command('verdict.withdraw', { id: demoUuid('v') })]],
  'approval.record': [
    [
      declared,
      command('approval.record', {
        id: newId(),
        verdict: demoUuid('v'),
        upTo: 1,
        currency: 'EUR',
        who: 'w',
        how: 'signed',
      }),
    ],
  ],
  'approval.withdraw': [[approved, command('approval.withdraw', { id: demoUuid('a') })]],
  'repair.record': [
    [approved, command('repair.record', { id: newId(), verdict: demoUuid('v'), revision: newId(), did: 'x' })],
  ],
  'repair.withdraw': [[repaired, command('repair.withdraw', { id: demoUuid('r') })]],
  'build.tick': [
    [picked, command('build.tick', { candidate: pick.candidate, line: 'dcdc', set: 'ordered' })],
    [
      after(picked, command('build.tick', { candidate: pick.candidate, line: 'dcdc', set: 'ordered' })),
      command('build.tick', { candidate: pick.candidate, line: 'dcdc', was: 'ordered', set: 'arrived' }),
    ],
  ],
  'build.done': [[picked, command('build.done', { candidate: pick.candidate, step: 'isolate', minutes: 7 })]],
  'build.undone': [
    [
      after(picked, command('build.done', { candidate: pick.candidate, step: 'isolate', minutes: 7 })),
      command('build.undone', { candidate: pick.candidate, step: 'isolate' }),
    ],
  ],
  'build.order': [[picked, command('build.order', { candidate: pick.candidate, set: ['isolate', 'label'] })]],
  'build.finish': [[picked, command('build.finish', { revision: pick.revision, built: newId() })]],
  'waiver.record': [[open, command('waiver.record', waiver)]],
  'waiver.withdraw': [[after(open, command('waiver.record', waiver)), command('waiver.withdraw', { id: waiver.id })]],
  'check.record': [
    [open, command('check.record', { id: newId(), check: 'sleep', result: 'pass', values: { amps: 0.05 } })],
  ],
  'check.retract': [[checked, command('check.retract', { id: demoUuid('check') })]],
  'check.restore': [
    [
      after(checked, command('check.retract', { id: demoUuid('check') })),
      command('check.restore', { id: demoUuid('check') }),
    ],
  ],
  // Not undone: see reduce.test.ts.
  'record.sign': [],
  'record.reopen': [],
  'followUp.set': [
    [open, command('followUp.set', { set: followUp })],
    [
      after(open, command('followUp.set', { set: followUp })),
      command('followUp.set', { was: followUp, set: { ...followUp, done: '2027-05-01T09:00:00Z' } }),
    ],
    [after(open, command('followUp.set', { set: followUp })), command('followUp.set', { was: followUp })],
  ],
  'booking.set': [
    [
      open,
      command('booking.set', {
        set: { id: newId(), bay: 'Bay 1', start: '2026-12-01T15:00:00Z', minutes: 120, by: BY },
      }),
    ],
  ],
  'planChange.set': [
    [
      open,
      command('planChange.set', {
        set: {
          id: newId(),
          reason: 'The tunnel is full.',
          what: 'Link cable 3 m longer',
          at: '2026-11-24T17:00:00Z',
          by: BY,
        },
      }),
    ],
  ],
  'log.set': [
    [
      open,
      command('log.set', {
        set: {
          id: newId(),
          name: 'trip.csv',
          from: '2026-11-20T17:00:00Z',
          to: '2026-11-21T17:00:00Z',
          rows: 10,
          says: ['Nobody charged.'],
          estimates: [],
          at: '2026-11-24T17:00:00Z',
          by: BY,
        },
      }),
    ],
  ],
  'hunt.set': [
    [open, command('hunt.set', { set: hunt })],
    [
      after(open, command('hunt.set', { set: hunt })),
      command('hunt.set', { was: hunt, set: { ...hunt, after: 0.04 } }),
    ],
  ],
  'job.set-status': [[open, command('job.set-status', { status: 'waiting-parts' })]],
};

describe('undo', () => {
  it.each(COMMAND_TYPES.flatMap((type) => EXAMPLES[type].map((x, i) => [`${type} ${i}`, ...x] as const)))(
    'of %s leaves what stood before',
    (_, job, c) => {
      const changed = after(job, c);
      const back = inverseOf(job, c, newId)!;
      const restored = after(changed, command(back.type, back.payload as never));
      // A repair that is recorded again is another change of the rig: its epoch is a new one.
      const view = (j: Job) =>
        c.type === 'repair.withdraw' ? { ...standing(j), epoch: 0, readings: [] } : standing(j);
      expect(view(restored)).toEqual(view(job));
      if (c.type !== 'identity.set') expect(changed).not.toEqual(job);
    },
  );

  it.each(COMMAND_TYPES.flatMap((type) => EXAMPLES[type].map((x, i) => [`${type} ${i}`, ...x] as const)))(
    'of %s is about the same matter: who undoes collides with whoever decided meanwhile',
    (_, job, c) => {
      const back = inverseOf(job, c, newId)!;
      const matter = matterOf(c);
      // What only adds to a list never collides; taking it back is about that one thing. A change of the rig is taken back whole.
      const changed = 'means' in c.payload && c.payload.means === 'changed';
      if (matter !== undefined)
        expect(matterOf(command(back.type, back.payload as never))).toBe(changed ? 'revision' : matter);
      if (matter !== undefined) expect(matterInWords(matter)).not.toMatch(/undefined|-[0-9a-f]{4}-/);
    },
  );

  it('of a whole afternoon, last thing first, leaves the job as it came in', () => {
    const pool = Object.entries(EXAMPLES)
      .filter(
        ([type]) =>
          ![
            'visit.link',
            'verdict.withdraw',
            'approval.record',
            'approval.withdraw',
            'repair.record',
            'repair.withdraw',
            'photo.retract',
            'photo.restore',
            'note.retract',
            'note.restore',
            'check.retract',
            'check.restore',
            'probe.retire',
            'reading.restore',
            'identity.set',
            'option.withdraw',
          ].includes(type),
      )
      .flatMap(([, list]) => list.map(([, c]) => c));
    fc.assert(
      fc.property(fc.shuffledSubarray(pool, { minLength: 2, maxLength: 9 }), (list) => {
        let job = open;
        const trail: [Job, Command][] = [];
        for (const c of list) {
          const next = applyCommand(job, c);
          if (!next.ok) continue;
          trail.push([job, c]);
          job = next.value;
        }
        for (const [before, c] of trail.reverse()) {
          const back = inverseOf(before, c, newId)!;
          job = after(job, command(back.type, back.payload as never));
        }
        expect(standing(job)).toEqual(standing(open));
      }),
      { numRuns: 60 },
    );
  });
});
