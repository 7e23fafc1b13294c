import { readFileSync } from 'node:fs';
import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import type { Command, CommandType, Payload } from './command';
import { currentRevision, standingReadings, type Job } from './job';
import { applyCommand } from './applyCommand';
import { insertFuse } from '../rig/insertFuse';
import { validateCommand, validateOpenJob } from '../openFormats/validate';
import { USUAL_MOTORHOME } from '../rig/archetypes/motorhome';

const open = (): Job => JSON.parse(readFileSync('examples/heron.surrik.json', 'utf8')) as Job;
let counter = 0;
const uuid = () => `00000000-0000-4000-9000-${String(++counter).padStart(12, '0')}`;
const command = <T extends CommandType>(type: T, payload: Payload<T>): Command =>
  ({
    id: uuid(),
    type,
    version: 1,
    baseSeq: 0,
    at: '2026-11-25T16:00:00.000Z',
    actor: 'Bay 2 technician',
    payload,
  }) as Command;
const apply = (job: Job, ...commands: Command[]): Job =>
  commands.reduce((j, c) => {
    expect(validateCommand(c)).toMatchObject({ ok: true });
    const next = applyCommand(j, c);
    if (!next.ok) throw new Error(`${next.error.found}: ${next.error.wanted}`);
    return next.value;
  }, job);

const linkCable = (job: Job) => currentRevision(job).doc.conductors.find((c) => c.id === 'link-cable')!;
const gauge = (
  set: '1/0' | '4' | '2/0',
  was: '1/0' | '4' | '2/0',
  means: 'described-wrong' | 'changed',
  revision?: string,
): Command =>
  command('conductor.edit', {
    conductor: 'link-cable',
    was: { gauge: was },
    set: { gauge: set },
    means,
    ...(revision === undefined ? {} : { revision }),
  });

describe('an edit of the rig', () => {
  it('that says "I described it wrong" keeps the epoch: readings stay evidence', () => {
    const before = open();
    const after = apply(before, gauge('4', '1/0', 'described-wrong'));
    expect(linkCable(after).gauge).toBe('4');
    expect(currentRevision(after).epoch).toBe(0);
    expect(standingReadings(after, 0)).toEqual(standingReadings(before, 0));
  });

  it('that says "I changed the rig" starts an epoch: older readings are kept and say nothing about it', () => {
    const revision = uuid();
    const after = apply(open(), gauge('2/0', '1/0', 'changed', revision));
    expect(currentRevision(after)).toMatchObject({ id: revision, epoch: 1, kind: 'as-built' });
    expect(standingReadings(after, currentRevision(after).epoch)).toEqual([]);
    expect(after.readings).toEqual(open().readings);
    const back = apply(after, command('change.withdraw', { revision }));
    expect(currentRevision(back).epoch).toBe(0);
    expect(linkCable(back).gauge).toBe('1/0');
  });

  it('that changed the rig is not taken back from under readings of the changed rig', () => {
    const revision = uuid();
    const changed = apply(open(), gauge('2/0', '1/0', 'changed', revision));
    const measured = apply(
      changed,
      command('reading.keep', {
        id: uuid(),
        state: 'idle',
        probe: 'coach-bank.plus',
        ref: 'frame.bay-2',
        status: 'measured',
        value: 13.2,
        unit: 'V',
        secondsInState: 200,
      }),
    );
    const refused = applyCommand(measured, command('change.withdraw', { revision }));
    expect(refused).toMatchObject({ ok: false, error: { wanted: expect.stringContaining('taken back first') } });
  });

  it('that is about the proposal leaves the rig as it stands alone, and its inverse brings the proposal back', () => {
    const before = open();
    const revision = uuid();
    const { doc } = currentRevision(before);
    const proposed = apply(
      before,
      command('option.choose', {
        id: uuid(),
        candidate: 'switch',
        name: 'Dash switch',
        reasons: 'Plain.',
        minutes: [30, 60],
        parts: [10, 30],
        revision,
        doc,
      }),
    );
    const edit = (was: '1/0' | '4', set: '1/0' | '4') =>
      command('conductor.edit', {
        conductor: 'link-cable',
        was: { gauge: was },
        set: { gauge: set },
        means: 'proposed',
        revision,
      });
    const after = apply(proposed, edit('1/0', '4'));
    const inProposal = (job: Job) =>
      job.revisions.find((r) => r.id === revision)!.doc.conductors.find((c) => c.id === 'link-cable')!.gauge;
    expect(inProposal(after)).toBe('4');
    expect(linkCable(after).gauge).toBe('1/0');
    expect(standingReadings(after, 0)).toEqual(standingReadings(before, 0));
    expect(inProposal(apply(after, edit('4', '1/0')))).toBe('1/0');
    // Once the pick is taken back there is nothing to edit.
    const withdrawn = apply(after, command('option.withdraw', { id: after.choices[0]!.id }));
    expect(applyCommand(withdrawn, edit('4', '1/0'))).toMatchObject({
      ok: false,
      error: { wanted: 'a standing proposal of this job' },
    });
  });

  it('has an inverse: the same edit the other way round', () => {
    fc.assert(
      fc.property(
        fc.double({ min: 0.001, max: 500, noNaN: true }),
        fc.double({ min: 0, max: 2, noNaN: true }),
        (value, spread) => {
          const before = open();
          const bank = currentRevision(before).doc.parts.find((p) => p.id === 'charger')!;
          const was = { params: { limit: bank.params['limit']! } };
          const set = { params: { limit: { value, spread, provenance: 'measured' as const } } };
          const there = apply(before, command('part.edit', { part: 'charger', was, set, means: 'described-wrong' }));
          expect(currentRevision(there).doc.parts.find((p) => p.id === 'charger')!.params['limit']).toEqual(
            set.params.limit,
          );
          const back = apply(
            there,
            command('part.edit', { part: 'charger', was: set, set: was, means: 'described-wrong' }),
          );
          expect(back).toEqual(before);
        },
      ),
      { numRuns: 40 },
    );
  });

  it('out of a part’s limits is refused with the place and the limits', () => {
    const bad = command('part.edit', {
      part: 'coach-bank',
      was: { params: { soc: { value: 0.68, spread: 0.15, provenance: 'assumed' } } },
      set: { params: { soc: { value: 1.4, spread: 0.1, provenance: 'measured' } } },
      means: 'described-wrong',
    });
    expect(applyCommand(open(), bad)).toMatchObject({
      ok: false,
      error: { found: expect.stringContaining('1.4'), wanted: expect.stringContaining('between 0 and 1') },
    });
    const other = command('part.edit', {
      part: 'coach-bank',
      was: { options: { chemistry: 'flooded' } },
      set: { options: { chemistry: 'nickel' } },
      means: 'described-wrong',
    });
    expect(applyCommand(open(), other)).toMatchObject({
      ok: false,
      error: { wanted: 'one of flooded, agm, gel, lfp' },
    });
    expect(
      validateCommand(
        command('conductor.edit', {
          conductor: 'link-cable',
          was: { length: 4 },
          set: { length: -4 },
          means: 'changed',
        }),
      ),
    ).toMatchObject({ ok: false });
  });

  it('that puts a fuse into a cable moves the cable’s end to it; made on a cable somebody moved meanwhile it is refused', () => {
    const before = open();
    const pieces = insertFuse(currentRevision(before).doc, linkCable(before), 'to', 150, 'terminal');
    const add = command('pieces.add', { ...pieces, means: 'described-wrong' });
    const after = apply(before, add);
    expect(linkCable(after).to).toEqual({ part: pieces.parts[0]!.id, terminal: 'load' });
    const longer = apply(
      before,
      command('conductor.edit', {
        conductor: 'link-cable',
        was: { length: linkCable(before).length },
        set: { length: 9 },
        means: 'described-wrong',
      }),
    );
    expect(applyCommand(longer, add)).toMatchObject({
      ok: false,
      error: { found: 'conductor link-cable between other points, or of another length' },
    });
    const back = command('pieces.remove', { ...pieces, means: 'described-wrong' });
    expect(currentRevision(apply(after, back)).doc).toEqual(currentRevision(before).doc);
    const shorter = apply(
      after,
      command('conductor.edit', {
        conductor: 'link-cable',
        was: { length: linkCable(after).length },
        set: { length: 1 },
        means: 'described-wrong',
      }),
    );
    expect(applyCommand(shorter, back)).toMatchObject({ ok: false });
    expect(applyCommand(after, add)).toMatchObject({ ok: false, error: { wanted: 'an id of its own' } });
  });
});

describe('a request to open a job', () => {
  const request = {
    id: '00000000-0000-4000-9000-000000000001',
    nickname: 'Lark',
    complaint: { codes: ['boost-dead'], words: '' },
    rig: { family: 'motorhome', choices: USUAL_MOTORHOME },
  };
  it('is checked to the last choice', () => {
    expect(validateOpenJob(request)).toMatchObject({ ok: true });
    const broken = (change: (r: typeof request) => void) => {
      const r = structuredClone(request);
      change(r);
      const answer = validateOpenJob(r);
      return answer.ok ? undefined : answer.error[0];
    };
    expect(broken((r) => (r.nickname = '   '))).toMatchObject({ pointer: '/nickname' });
    expect(broken((r) => ((r.rig.choices as { link: string }).link = 'magic'))).toMatchObject({
      pointer: '/rig/choices/link',
      wanted: expect.stringContaining('diode'),
    });
    expect(broken((r) => (r.rig.choices.coach = { ...r.rig.choices.coach, capacity: 0 }))).toMatchObject({
      pointer: '/rig/choices/coach/capacity',
    });
    expect(broken((r) => (r.complaint.codes = ['gremlins']))).toMatchObject({ pointer: '/complaint/codes/0' });
  });
});
