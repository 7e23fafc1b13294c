import { readFileSync } from 'node:fs';
import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import type { Command, CommandType, Payload } from '../job/command';
import { currentRevision, standingReadings, type Job } from '../job/job';
import { applyCommand } from '../job/applyCommand';
import { parseJobText, validateCommand, validateJobDocument } from './validate';

const NOW = '2026-11-24T16:00:00.000Z';
/** The example job files: the finished visit and the open one. */
const EXAMPLES = ['heron-1009', 'heron'].map(
  (name) => JSON.parse(readFileSync(`examples/${name}.surrik.json`, 'utf8')) as Job,
);
const job = (): Job => structuredClone(EXAMPLES[1]!);
let counter = 0;
const uuid = () => `00000000-0000-4000-8000-${String(++counter).padStart(12, '0')}`;
const command = <T extends CommandType>(type: T, payload: Payload<T>): Command =>
  ({ id: uuid(), type, version: 1, baseSeq: 0, at: NOW, actor: 'Bay 2 technician', payload }) as Command;

/** Applies commands that must all be accepted. */
function after(start: Job, ...commands: Command[]): Job {
  return commands.reduce((j, c) => {
    const next = applyCommand(j, c);
    if (!next.ok) throw new Error(`${next.error.found}: ${next.error.wanted}`);
    return next.value;
  }, start);
}
const keep = (value: number, probe = 'link.coach-stud') =>
  command('reading.keep', {
    id: uuid(),
    state: 'idle',
    probe,
    ref: 'frame.bay-2',
    status: 'measured',
    value,
    unit: 'V',
    secondsInState: 200,
  });

describe('the job file', () => {
  it('of every example is valid and survives being written and read', () => {
    for (const demo of EXAMPLES) {
      const parsed = parseJobText(JSON.stringify(demo));
      expect(parsed.ok).toBe(true);
      const read = validateJobDocument(parsed.ok && parsed.value);
      expect(read).toEqual({ ok: true, value: demo });
    }
  });

  const broken = (change: (j: Job) => void) => {
    const j = job();
    change(j);
    const r = validateJobDocument(j);
    return r.ok ? undefined : r.error[0];
  };

  it('that is broken is refused with the place, what stands there and what is wanted', () => {
    expect(broken((j) => j.revisions[0]!.doc.parts.splice(6, 1))).toMatchObject({
      pointer: expect.stringMatching(/^\/revisions\/0\/doc\/conductors\/\d+\//),
    });
    expect(broken((j) => (j.revisions[0]!.doc.conductors[2]!.length = -1))).toEqual({
      pointer: '/revisions/0/doc/conductors/2/length',
      found: '-1',
      wanted: 'it to be > 0',
    });
    expect(broken((j) => (j.revisions[0]!.doc.bonds[0]!.resistance.value = 0))).toMatchObject({
      pointer: '/revisions/0/doc/bonds/0/resistance/value',
      found: '0',
    });
    expect(broken((j) => (j.readings[0]!.value = 1260e3))).toMatchObject({ pointer: '/readings/0/value' });
    expect(broken((j) => (j.readings[0]!.probe = 'moon.plus'))).toMatchObject({
      pointer: '/readings/0/probe',
      found: '"moon.plus"',
    });
    expect(broken((j) => (j.readings[0]!.epoch = 4))).toMatchObject({ pointer: '/readings/0/epoch' });
    expect(broken((j) => delete j.readings[0]!.value)).toMatchObject({ pointer: '/readings/0/value' });
    expect(broken((j) => ((j.rigState as { id: string }).id = 'driving'))).toMatchObject({
      pointer: '/rigState/id',
      wanted: expect.stringContaining('idle'),
    });
    expect(broken((j) => (j.readings[1]!.id = j.readings[0]!.id))).toMatchObject({ pointer: '/readings/1/id' });
    expect(broken((j) => ((j as unknown as { extra: number }).extra = 1))).toMatchObject({ pointer: '/extra' });
    expect(parseJobText('{"a":')).toMatchObject({ ok: false });
    expect(parseJobText(' '.repeat(9_000_000))).toMatchObject({ ok: false });
  });

  it('never crashes the reader, whatever JSON it is', () => {
    fc.assert(fc.property(fc.jsonValue(), (value) => void expect(validateJobDocument(value).ok).toBe(false)));
  });
});

describe('commands', () => {
  it('are refused with the place when they are not what their type asks for', () => {
    expect(validateCommand({ type: 'rig.explode' })).toMatchObject({ ok: false, error: [{ pointer: '/type' }] });
    expect(validateCommand(null)).toMatchObject({ ok: false });
    const c = keep(12.3) as unknown as { payload: Record<string, unknown> };
    c.payload['value'] = 'twelve';
    expect(validateCommand(c)).toMatchObject({ ok: false, error: [{ pointer: '/payload/value', found: '"twelve"' }] });
    expect(validateCommand(keep(12.3))).toMatchObject({ ok: true });
  });

  it('leave a valid job behind, whatever order they come in', () => {
    const types = fc.constantFrom(
      'keep',
      'retract',
      'restore',
      'state',
      'declare',
      'withdraw',
      'repair',
      'unrepair',
      'note',
      'lead',
    );
    fc.assert(
      fc.property(fc.array(fc.tuple(types, fc.nat(20)), { maxLength: 25 }), (steps) => {
        let j = job();
        for (const [kind, n] of steps) {
          const pick = <T>(list: readonly T[]) => list[n % Math.max(1, list.length)];
          const c =
            kind === 'keep'
              ? keep(12 + n / 10)
              : kind === 'retract'
                ? command('reading.retract', { id: pick(j.readings)?.id ?? uuid() })
                : kind === 'restore'
                  ? command('reading.restore', { id: pick(j.readings)?.id ?? uuid() })
                  : kind === 'state'
                    ? command('state.set', { state: pick(['rested', 'idle', 'shore'])! })
                    : kind === 'declare'
                      ? command('verdict.declare', {
                          id: uuid(),
                          fault: 'link.contact-open',
                          name: 'Contact',
                          repair: 'Replace it',
                          probability: 0.9,
                          settled: true,
                        })
                      : kind === 'withdraw'
                        ? command('verdict.withdraw', { id: pick(j.verdicts)?.id ?? uuid() })
                        : kind === 'repair'
                          ? command('repair.record', {
                              id: uuid(),
                              verdict: pick(j.verdicts)?.id ?? uuid(),
                              revision: uuid(),
                              did: 'Replaced',
                            })
                          : kind === 'unrepair'
                            ? command('repair.withdraw', { id: pick(j.repairs)?.id ?? uuid() })
                            : kind === 'note'
                              ? command('note.add', { id: uuid(), text: 'cold studs' })
                              : command('lead.move', { point: pick(['frame.bay-3', 'moon.x'])! });
          const next = applyCommand(j, c);
          if (next.ok) j = next.value;
          else expect(next.error.wanted.length).toBeGreaterThan(3);
        }
        expect(validateJobDocument(j)).toMatchObject({ ok: true });
      }),
      { numRuns: 60 },
    );
  });

  it('undo and redo a reading, and a re-take supersedes instead of adding', () => {
    const first = keep(12.3);
    const second = keep(12.4);
    let j = after(job(), first, second);
    const at = () => standingReadings(j, 0).filter((r) => r.probe === 'link.coach-stud');
    expect(at().map((r) => r.value)).toEqual([12.4]);
    const id = (second.payload as { id: string }).id;
    j = after(j, command('reading.retract', { id }));
    expect(at().map((r) => r.value)).toEqual([12.3]);
    j = after(j, command('reading.restore', { id }));
    expect(at().map((r) => r.value)).toEqual([12.4]);
  });

  it('a repair opens a new epoch: older readings stay, but are no evidence about it', () => {
    const verdict = uuid();
    const j = after(
      job(),
      command('verdict.declare', {
        id: verdict,
        fault: 'link.contact-open',
        name: 'Contact',
        repair: 'Replace it',
        probability: 0.97,
        settled: true,
      }),
      command('repair.record', { id: uuid(), verdict, revision: uuid(), did: 'Replaced' }),
      keep(13.2),
    );
    expect(currentRevision(j)).toMatchObject({ kind: 'as-built', epoch: 1 });
    expect(standingReadings(j, 1)).toHaveLength(1);
    expect(standingReadings(j, 0)).toHaveLength(5);
    expect(applyCommand(j, command('repair.withdraw', { id: j.repairs[0]!.id }))).toMatchObject({
      ok: false,
      error: { wanted: expect.stringContaining('taken back first') },
    });
  });
});
