/** The hash a statement carries: the same for the same content however it came, another for any other. */
import { describe, expect, it } from 'vitest';
import {
  after,
  approved,
  checked,
  command,
  declared,
  followUp,
  noted,
  open,
  reading,
  repaired,
} from '../../../tests/afternoon';
import { fingerprint } from './fingerprint';
import type { Job } from './job';

/** Keys in another order, instants as a database writes them, flags that are off written out. */
function elsewhere(value: unknown, key = ''): unknown {
  if (typeof value === 'string')
    return /^\d{4}-\d\d-\d\dT[\d:]+Z$/.test(value) && key !== 'text' ? new Date(value).toISOString() : value;
  if (Array.isArray(value)) return value.map((v) => elsewhere(v));
  if (typeof value !== 'object' || value === null) return value;
  const entries = Object.entries(value).map(([k, v]): [string, unknown] => [k, elsewhere(v, k)]);
  return Object.fromEntries([...entries.reverse(), ...('takenAt' in value ? [['retracted', false] as const] : [])]);
}

describe('a fingerprint', () => {
  it.each([open, declared, approved, repaired, checked].map((j, i) => [i, j] as const))(
    'of job %i is the same on the device and out of the database',
    (_, job) => {
      for (const what of ['record', 'evidence', 'verdict'] as const) {
        expect(fingerprint(job, what)).toMatch(/^[0-9a-f]{64}$/);
        expect(fingerprint(elsewhere(job) as Job, what)).toBe(fingerprint(job, what));
      }
      const empty = { ...job, waivers: [], checks: job.checks ?? [] };
      expect(fingerprint(empty, 'record')).toBe(fingerprint(job, 'record'));
    },
  );

  const retracted = after(open, command('reading.retract', { id: reading.id }));
  const edited = after(
    open,
    command('part.edit', { part: 'link', was: { note: '200 A' }, set: { note: '100 A' }, means: 'described-wrong' }),
  );

  it('of the record is another after anything in it, and the same after what the desk does', () => {
    const was = fingerprint(open, 'record');
    for (const job of [retracted, edited, noted, declared]) expect(fingerprint(job, 'record')).not.toBe(was);
    const moved = after(open, command('job.set-status', { status: 'waiting-parts' }));
    const booked = after(moved, command('followUp.set', { set: followUp }));
    expect(fingerprint(booked, 'record')).toBe(was);
  });

  it('of the evidence goes by readings, answers, the rig and the intake; not by notes or verdicts', () => {
    const was = fingerprint(open, 'evidence');
    for (const job of [noted, declared]) expect(fingerprint(job, 'evidence')).toBe(was);
    for (const job of [retracted, edited]) expect(fingerprint(job, 'evidence')).not.toBe(was);
    const told = after(
      open,
      command('intake.set', { was: { facts: open.intake.facts }, set: { facts: ['wedges-boost'] } }),
    );
    expect(fingerprint(told, 'evidence')).not.toBe(was);
    // A reading put back is evidence as before.
    expect(fingerprint(after(retracted, command('reading.restore', { id: reading.id })), 'evidence')).toBe(was);
  });

  it('of the verdict goes by the verdict that stands', () => {
    expect(fingerprint(declared, 'verdict')).not.toBe(fingerprint(open, 'verdict'));
    expect(fingerprint(approved, 'verdict')).toBe(fingerprint(declared, 'verdict'));
    const back = after(declared, command('verdict.withdraw', { id: declared.verdicts[0]!.id }));
    expect(fingerprint(back, 'verdict')).toBe(fingerprint(open, 'verdict'));
  });
});
