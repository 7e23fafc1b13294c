import { describe, expect, it } from 'vitest';
import {
  after,
  approved,
  checked,
  command,
  coupled,
  declared,
  followUp,
  fused,
  hunt,
  newId,
  noted,
  open,
  photo,
  pick,
  picked,
  pictured,
  probed,
  proved,
  reading,
  repaired,
  towed,
  trip,
  waiver,
  wire,
} from '../../../tests/afternoon';
import { demoUuid } from '../../../db/demo/shop';
import type { Command } from './command';
import { currentRevision, type Job } from './job';
import { applyCommand } from './applyCommand';

const nobody = demoUuid('nobody');
const ghost = { means: 'proposed' as const, revision: nobody };
const ticked = after(picked, command('build.tick', { candidate: pick.candidate, line: 'dcdc', set: 'ordered' }));
const stepped = after(picked, command('build.done', { candidate: pick.candidate, step: 'isolate', minutes: 7 }));
const finished = after(stepped, command('build.finish', { revision: pick.revision, built: demoUuid('built') }));
const waived = after(open, command('waiver.record', waiver));
const signature = { id: demoUuid('sign'), revision: currentRevision(proved).id, words: 'Right.' };
const signed = after(proved, command('record.sign', signature));
const sign = (job: Job) => command('record.sign', { id: newId(), revision: currentRevision(job).id, words: 'Right.' });
const reopened = after(
  signed,
  command('record.reopen', { id: signature.id, reason: 'One figure was misread.', revision: demoUuid('again') }),
);
const followed = after(open, command('followUp.set', { set: followUp }));
const measuredAfter = (job: Job): Job =>
  after(
    job,
    command('reading.keep', {
      id: newId(),
      state: 'idle',
      probe: 'link.coil-plus',
      ref: 'frame.bay-2',
      status: 'measured',
      value: 13,
      unit: 'V',
      secondsInState: 60,
    }),
  );
const changed = after(
  open,
  command('part.edit', {
    part: 'link',
    was: { note: '200 A' },
    set: { note: '100 A' },
    means: 'changed',
    revision: demoUuid('changed'),
  }),
);
const kept = {
  id: newId(),
  state: 'idle' as const,
  probe: 'link.coil-plus',
  ref: 'frame.bay-2',
  status: 'measured' as const,
  value: 13,
  unit: 'V' as const,
  secondsInState: 60,
};
const verdict = { id: newId(), fault: 'f', name: 'n', repair: 'r', probability: 0.5, settled: false };

/** What is asked of a job that cannot be, what the refusal says it found, and what it says is wanted. */
const REFUSED: [what: string, job: Job, c: Command, found: RegExp, wanted: RegExp][] = [
  [
    'a visit after itself',
    open,
    command('visit.link', { set: { job: open.number, warranty: false } }),
    /job 1042/,
    /an earlier job/,
  ],
  ['a photo twice', pictured, command('photo.keep', photo), /this photo/, /new id/],
  ['a photo that is not there', open, command('photo.retract', { id: nobody }), /photo/, /of this job/],
  ['the black lead nowhere', open, command('lead.move', { point: 'moon.base' }), /moon.base/, /a point of this rig/],
  ['a reading twice', open, command('reading.keep', { ...kept, id: reading.id }), /reading/, /new id/],
  [
    'a reading at no probe',
    open,
    command('reading.keep', { ...kept, probe: 'moon.base' }),
    /moon.base/,
    /a probe of this rig/,
  ],
  [
    'a reading against nothing',
    open,
    command('reading.keep', { ...kept, ref: 'moon.base' }),
    /moon.base/,
    /black lead/,
  ],
  [
    'a reading by a meter nobody chose',
    open,
    command('reading.keep', { ...kept, meter: 'borrowed' }),
    /meter borrowed/,
    /chosen on this job/,
  ],
  ['measured without a value', open, command('reading.keep', (({ value: _, ...k }) => k)(kept)), /measured/, /a value/],
  [
    'a value that could not be reached',
    open,
    command('reading.keep', { ...kept, status: 'cannot-reach' }),
    /cannot-reach/,
    /no value/,
  ],
  [
    'a reading of tomorrow',
    open,
    command('reading.keep', { ...kept, takenAt: '2027-01-01T00:00:00Z' }),
    /2027-01-01/,
    /past/,
  ],
  [
    'a reading taken back that is not there',
    open,
    command('reading.retract', { id: nobody }),
    /reading/,
    /of this job/,
  ],
  ['a note twice', noted, command('note.add', { id: demoUuid('note'), text: 'hot' }), /this note/, /new id/],
  [
    'an answer under a note’s id',
    noted,
    command('observation.keep', { id: demoUuid('note'), what: 'click-boost', answer: 'no', text: 'Click?' }),
    /this answer/,
    /new id/,
  ],
  ['a note taken back that is not there', open, command('note.retract', { id: nobody }), /note/, /of this job/],
  ['a second verdict', declared, command('verdict.declare', verdict), /the verdict “n”/, /withdrawn first/],
  [
    'a verdict taken back that does not stand',
    open,
    command('verdict.withdraw', { id: nobody }),
    /verdict/,
    /standing/,
  ],
  [
    'a verdict taken back under its repair',
    repaired,
    command('verdict.withdraw', { id: demoUuid('v') }),
    /a repair/,
    /taken back first/,
  ],
  [
    'approval of nothing',
    open,
    command('approval.record', { id: newId(), verdict: nobody, upTo: 1, currency: 'EUR', who: 'w', how: 'phone' }),
    /verdict/,
    /to approve/,
  ],
  [
    'a second approval',
    approved,
    command('approval.record', {
      id: newId(),
      verdict: demoUuid('v'),
      upTo: 1,
      currency: 'EUR',
      who: 'w',
      how: 'phone',
    }),
    /second approval/,
    /taken back/,
  ],
  [
    'an approval taken back that does not stand',
    declared,
    command('approval.withdraw', { id: nobody }),
    /approval/,
    /standing/,
  ],
  [
    'a repair of nothing',
    open,
    command('repair.record', { id: newId(), verdict: nobody, revision: newId(), did: 'x' }),
    /verdict/,
    /to repair/,
  ],
  [
    'a second repair',
    repaired,
    command('repair.record', { id: newId(), verdict: demoUuid('v'), revision: newId(), did: 'x' }),
    /second repair/,
    /taken back/,
  ],
  ['a repair taken back that does not stand', open, command('repair.withdraw', { id: nobody }), /repair/, /standing/],
  [
    'a repair taken back under its readings',
    measuredAfter(repaired),
    command('repair.withdraw', { id: demoUuid('r') }),
    /readings taken after/,
    /taken back first/,
  ],
  [
    'an edit of no part',
    open,
    command('part.edit', { part: 'moon', was: { note: 'a' }, set: { note: 'b' }, means: 'described-wrong' }),
    /part moon/,
    /a part of this rig/,
  ],
  [
    'an edit of no wire',
    open,
    command('conductor.edit', {
      conductor: 'moon',
      was: { gauge: '8' },
      set: { gauge: '6' },
      means: 'described-wrong',
    }),
    /conductor moon/,
    /a conductor of this rig/,
  ],
  [
    'an edit of no proposal',
    open,
    command('part.edit', { part: 'link', was: { note: 'a' }, set: { note: 'b' }, ...ghost }),
    /proposal/,
    /standing proposal/,
  ],
  [
    'a wire of no proposal',
    open,
    command('conductor.edit', { conductor: wire.id, was: { gauge: '8' }, set: { gauge: '6' }, ...ghost }),
    /proposal/,
    /standing proposal/,
  ],
  ['a plug of no proposal', coupled, command('tow.edit', { set: towed, ...ghost }), /proposal/, /standing proposal/],
  [
    'a plug nobody described, changed',
    coupled,
    command('tow.edit', { was: towed, set: towed, means: 'described-wrong' }),
    /nobody has described/,
    /made again/,
  ],
  [
    'a change without a revision',
    open,
    command('part.edit', { part: 'link', was: { note: 'a' }, set: { note: 'b' }, means: 'changed' }),
    /without a new revision/,
    /an id/,
  ],
  [
    'a change under an old revision',
    open,
    command('part.edit', {
      part: 'link',
      was: { note: 'a' },
      set: { note: 'b' },
      means: 'changed',
      revision: currentRevision(open).id,
    }),
    /without a new revision/,
    /an id/,
  ],
  [
    'pieces under a taken id',
    open,
    command('pieces.add', { parts: [], conductors: [wire], means: 'described-wrong' }),
    /boost-wire/,
    /of its own/,
  ],
  ['pieces of no proposal', open, command('pieces.add', { ...fused, ...ghost }), /proposal/, /standing proposal/],
  [
    'pieces taken out of no proposal',
    open,
    command('pieces.remove', { parts: [], conductors: [wire], ...ghost }),
    /proposal/,
    /standing proposal/,
  ],
  [
    'a piece taken out that is not there',
    open,
    command('pieces.remove', { parts: [], conductors: [{ ...wire, id: 'moon-wire' }], means: 'described-wrong' }),
    /moon-wire/,
    /of this rig/,
  ],
  [
    'a part taken out from under its wires',
    open,
    command('pieces.remove', {
      parts: [currentRevision(open).doc.parts.find((p) => p.id === 'link')!],
      conductors: [],
      means: 'described-wrong',
    }),
    /link/,
    /\S/,
  ],
  [
    'a probe where one is',
    open,
    command('probe.add', { key: reading.probe, name: 'Again' }),
    /P\d+ on this point/,
    /without a probe/,
  ],
  ['a probe nowhere', open, command('probe.add', { key: 'moon.base', name: 'Moon' }), /moon/, /\S/],
  [
    'a probe retired twice',
    after(probed, command('probe.retire', { key: 'house.plus' })),
    command('probe.retire', { key: 'house.plus' }),
    /house.plus/,
    /in use/,
  ],
  [
    'a probe retired under its readings',
    open,
    command('probe.retire', { key: reading.probe }),
    /readings taken/,
    /taken back first/,
  ],
  [
    'a change taken back that is not the newest',
    open,
    command('change.withdraw', { revision: currentRevision(open).id }),
    /revision/,
    /newest change/,
  ],
  [
    'a change taken back under its readings',
    measuredAfter(changed),
    command('change.withdraw', { revision: demoUuid('changed') }),
    /readings taken after/,
    /taken back first/,
  ],
  [
    'two scenarios of one id',
    open,
    command('usage.set', { was: open.usage, set: { scenarios: [trip, trip] } }),
    /two scenarios/,
    /of its own/,
  ],
  [
    'a second pick',
    picked,
    command('option.choose', { ...pick, id: newId(), revision: newId() }),
    /second pick/,
    /taken back/,
  ],
  [
    'a pick under an old revision',
    open,
    command('option.choose', { ...pick, revision: currentRevision(open).id }),
    /revision/,
    /new id/,
  ],
  [
    'a pick of a broken rig',
    open,
    command('option.choose', {
      ...pick,
      doc: {
        ...pick.doc,
        conductors: pick.doc.conductors.map((c, i) => (i === 0 ? { ...c, to: { part: 'moon', terminal: 'base' } } : c)),
      },
    }),
    /moon/,
    /\S/,
  ],
  ['a pick taken back that does not stand', open, command('option.withdraw', { id: nobody }), /pick/, /standing/],
  [
    'a tick on another pick',
    picked,
    command('build.tick', { candidate: 'timed', line: 'dcdc', set: 'ordered' }),
    /pick timed/,
    /that stands/,
  ],
  [
    'a tick somebody has moved',
    ticked,
    command('build.tick', { candidate: pick.candidate, line: 'dcdc', set: 'have' }),
    /ticked ordered meanwhile/,
    /made again/,
  ],
  [
    'a step of another pick',
    picked,
    command('build.done', { candidate: 'timed', step: 'isolate' }),
    /pick timed/,
    /that stands/,
  ],
  [
    'a step done twice',
    stepped,
    command('build.done', { candidate: pick.candidate, step: 'isolate' }),
    /a step that is done/,
    /taken back first/,
  ],
  [
    'a step taken back that is not done',
    picked,
    command('build.undone', { candidate: pick.candidate, step: 'isolate' }),
    /step isolate/,
    /that is done/,
  ],
  [
    'a step taken back after the build',
    finished,
    command('build.undone', { candidate: pick.candidate, step: 'isolate' }),
    /finished/,
    /taken back first/,
  ],
  [
    'an order of another pick',
    picked,
    command('build.order', { candidate: 'timed', set: ['a'] }),
    /pick timed/,
    /that stands/,
  ],
  [
    'an order somebody has changed',
    picked,
    command('build.order', { candidate: pick.candidate, was: ['a'], set: ['b'] }),
    /another order meanwhile/,
    /made again/,
  ],
  [
    'a build of no pick',
    open,
    command('build.finish', { revision: nobody, built: newId() }),
    /proposal/,
    /that stands/,
  ],
  [
    'a build finished twice',
    finished,
    command('build.finish', { revision: pick.revision, built: newId() }),
    /second build/,
    /taken back/,
  ],
  [
    'a build under an old revision',
    stepped,
    command('build.finish', { revision: pick.revision, built: currentRevision(open).id }),
    /revision/,
    /new id/,
  ],
  ['a waiver twice', waived, command('waiver.record', waiver), /waiver/, /new id/],
  [
    'a second waiver of one finding',
    waived,
    command('waiver.record', { ...waiver, id: newId() }),
    /second waiver/,
    /taken back/,
  ],
  ['a waiver taken back that does not stand', open, command('waiver.withdraw', { id: nobody }), /waiver/, /standing/],
  [
    'a check twice',
    checked,
    command('check.record', { id: demoUuid('check'), check: 'lights', result: 'pass' }),
    /check/,
    /new id/,
  ],
  ['a check taken back that is not there', open, command('check.retract', { id: nobody }), /check/, /of this job/],
  [
    'a signature under another rig',
    proved,
    command('record.sign', { ...signature, revision: nobody }),
    /revision/,
    /as it stands/,
  ],
  [
    'a signature twice',
    reopened,
    command('record.sign', { ...signature, revision: demoUuid('again') }),
    /signature/,
    /new id/,
  ],
  ['a signature under a rig nothing was done to', open, sign(open), /without a proof/, /measured after it/],
  ['a signature under a repair nobody measured', repaired, sign(repaired), /without a proof/, /measured after it/],
  ['anything under a signature', signed, command('verdict.declare', verdict), /signed/, /opened again/],
  [
    'a record reopened that is not signed',
    open,
    command('record.reopen', { id: nobody, reason: 'Because.', revision: newId() }),
    /signature/,
    /that stands/,
  ],
  [
    'a record reopened under an old revision',
    signed,
    command('record.reopen', { id: signature.id, reason: 'Because.', revision: currentRevision(signed).id }),
    /revision/,
    /new id/,
  ],
  [
    'a follow-up somebody has changed',
    followed,
    command('followUp.set', { was: { ...followUp, what: 'Else' }, set: followUp }),
    /changed meanwhile/,
    /made again/,
  ],
  ['a follow-up that is not there', open, command('followUp.set', { was: followUp }), /not there/, /\S/],
  ['a follow-up of nothing', open, command('followUp.set', {}), /nothing to change/, /\S/],
  [
    'figures of a hunt somebody has changed',
    open,
    command('hunt.set', { was: hunt, set: hunt }),
    /changed meanwhile/,
    /made again/,
  ],
];

describe('what cannot be done to a job', () => {
  it.each(REFUSED)(
    '%s is refused with what is there and what is wanted, and the job stays as it was',
    (_, job, c, found, wanted) => {
      const before = structuredClone(job);
      const next = applyCommand(job, c);
      expect(next.ok).toBe(false);
      if (next.ok) return;
      expect(next.error.found).toMatch(found);
      expect(next.error.wanted).toMatch(wanted);
      expect(job).toEqual(before);
    },
  );

  it('can be done once what stood in the way is gone: a signed record that was opened again', () => {
    expect(applyCommand(signed, command('verdict.declare', verdict)).ok).toBe(false);
    expect(applyCommand(reopened, command('verdict.declare', verdict)).ok).toBe(true);
  });
});
