/** Who may do what: the table, and every command and every role against it. */
import { describe, expect, it } from 'vitest';
import { demoJobs } from '../../../db/demo/jobs';
import { notAllowed } from '../job/allowed';
import { definitionOf } from '../job/applyCommand';
import type { Command, CommandType } from '../job/command';
import { COMMAND_TYPES } from '../job/commandSchema';
import type { Job } from '../job/job';
import { ACTS, actOfSigning, may, ROLES, whoMay, type Act, type Role } from './roles';
import { actOfShopCommand, type ShopCommand } from '../shop/shopSchema';

const roles = ROLES.map((r) => r.id);
const acts = Object.keys(ACTS) as Act[];
const [job] = demoJobs(new Date('2026-11-24T16:00:00Z')) as [Job];
const may_ = (
  role: Role,
  type: CommandType,
  payload: unknown = {},
  name = 'Ana',
  on = job,
  signing: 'technician' | 'lead' = 'technician',
) => notAllowed({ name, role }, on, { type, payload } as Command, signing) === undefined;

/** Written down by hand from how shops work, not from the table: what stands on each line may never be given by those behind it. */
const NEVER: readonly (readonly [Role, readonly CommandType[]])[] = [
  ['viewer', COMMAND_TYPES],
  [
    'front-desk',
    [
      'reading.keep',
      'state.set',
      'check.record',
      'part.edit',
      'verdict.declare',
      'repair.record',
      'record.sign',
      'option.choose',
      'build.done',
    ],
  ],
  [
    'apprentice',
    [
      'verdict.declare',
      'verdict.withdraw',
      'repair.record',
      'option.choose',
      'waiver.record',
      'record.sign',
      'record.reopen',
    ],
  ],
];
const ALWAYS: readonly (readonly [Role, readonly CommandType[]])[] = [
  [
    'apprentice',
    [
      'reading.keep',
      'state.set',
      'lead.move',
      'observation.keep',
      'check.record',
      'note.add',
      'photo.keep',
      'build.done',
    ],
  ],
  ['technician', ['verdict.declare', 'repair.record', 'record.sign', 'option.choose', 'waiver.record', 'reading.keep']],
  ['front-desk', ['note.add', 'booking.set', 'approval.record', 'identity.set', 'job.set-status', 'build.tick']],
];

describe('the table of who may do what', () => {
  it('gives the owner everything, a lead all but people, and a viewer nothing but a look', () => {
    for (const act of acts) {
      expect(may('owner', act), act).toBe(true);
      expect(may('lead', act), act).toBe(act !== 'people');
      expect(may('viewer', act), act).toBe(act === 'look');
    }
  });

  it('never gives a lower role of the bench what a higher one lacks', () => {
    const bench: Role[] = ['viewer', 'apprentice', 'technician', 'lead', 'owner'];
    for (const act of acts)
      bench.slice(1).forEach((higher, i) => {
        if (may(bench[i]!, act)) expect(may(higher, act), `${act}: ${higher}`).toBe(true);
      });
  });

  it('is said in words, the least first', () => {
    expect(whoMay('people')).toBe('the owner');
    expect(whoMay('overrule')).toBe('a lead or the owner');
    expect(whoMay('work')).toBe('an apprentice, a technician, a lead or the owner');
  });
});

describe('a command', () => {
  it.each(COMMAND_TYPES)('%s needs something of the table, and those who lack it may not give it', (type) => {
    const { needs } = definitionOf(type)!;
    expect(acts).toContain(needs);
    for (const role of roles) expect(may_(role, type), role).toBe(may(role, needs));
  });

  it.each(NEVER)('is never a %s’s where it is not theirs', (role, types) => {
    for (const type of types) expect(may_(role, type), type).toBe(false);
  });

  it.each(ALWAYS)('is a %s’s where it is their work', (role, types) => {
    for (const type of types) expect(may_(role, type), type).toBe(true);
  });

  it('of a kind only a newer Surrik knows is not ours to judge', () => {
    expect(may_('viewer', 'comet.seen' as CommandType)).toBe(true);
  });

  it('signs only as the shop wants it', () => {
    for (const role of roles) {
      expect(may_(role, 'record.sign', {}, 'Ana', job, 'lead'), role).toBe(role === 'owner' || role === 'lead');
      expect(may_(role, 'record.sign', {}, 'Ana', job, 'technician'), role).toBe(may(role, actOfSigning('technician')));
    }
  });

  it('that takes back what another decided is a lead’s; what another measured, a technician’s; one’s own, one’s own', () => {
    const verdict = job.verdicts[0]!;
    const reading = job.readings[0]!;
    for (const [role, decided, measured] of [
      ['apprentice', false, false],
      ['technician', false, true],
      ['lead', true, true],
    ] as const) {
      expect(may_(role, 'verdict.withdraw', { id: verdict.id }, 'Somebody else'), role).toBe(decided);
      expect(may_(role, 'reading.retract', { id: reading.id }, 'Somebody else'), role).toBe(measured);
    }
    expect(may_('technician', 'verdict.withdraw', { id: verdict.id }, verdict.by)).toBe(true);
    expect(may_('apprentice', 'reading.retract', { id: reading.id }, reading.by)).toBe(true);
    const signed: Job = {
      ...job,
      signOffs: [{ id: verdict.id, revision: job.revisions[0]!.id, words: 'x', at: job.revisions[0]!.at, by: 'Ben' }],
    };
    expect(may_('technician', 'record.reopen', { id: verdict.id }, 'Ana', signed)).toBe(false);
    expect(may_('technician', 'record.reopen', { id: verdict.id }, 'Ben', signed)).toBe(true);
    expect(may_('lead', 'record.reopen', { id: verdict.id }, 'Ana', signed)).toBe(true);
  });

  it('that is refused says whose it is, and who asked', () => {
    expect(
      notAllowed(
        { name: 'Ana', role: 'apprentice' },
        job,
        { type: 'verdict.declare', payload: {} } as Command,
        'technician',
      ),
    ).toBe('This is for a technician, a lead or the owner to do. You are signed in as Ana.');
  });
});

describe('a change of the shop', () => {
  it('is for those who keep its settings; how a log was read is remembered for whoever read it', () => {
    const set = (fields: object) =>
      actOfShopCommand({ type: 'settings.set', payload: { was: {}, set: fields } } as unknown as ShopCommand);
    expect(set({ labourPerHour: 1 })).toBe('settings');
    expect(set({ logMaps: {} })).toBe('work');
    expect(set({ logMaps: {}, labourPerHour: 1 })).toBe('settings');
  });
});
