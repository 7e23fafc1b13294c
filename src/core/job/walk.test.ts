/**
 * A job walked through at random: whatever the order of commands, nothing given before is changed without a command
 * that says so, what is undone is undone, and every version of the record can be told from every other.
 */
import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { command, newId, open, photo } from '../../../tests/afternoon';
import { applyCommand, inverseOf } from './applyCommand';
import type { Command } from './command';
import { fingerprint } from './fingerprint';
import { currentRevision, standingReadings, type Job } from './job';

const POINTS = currentRevision(open)
  .doc.probes.slice(0, 6)
  .map((p) => p.key);
const STATES = ['rested', 'idle', 'key-on'] as const;

/** A step somebody might take next. */
type Step =
  | { do: 'read'; at: number; state: number; value: number }
  | { do: 'note'; text: string }
  | { do: 'photo' }
  | { do: 'state'; state: number }
  | { do: 'complaint'; words: string }
  | { do: 'retract' }
  | { do: 'undo' };
const step: fc.Arbitrary<Step> = fc.oneof(
  fc.record({
    do: fc.constant('read' as const),
    at: fc.nat(POINTS.length - 1),
    state: fc.nat(STATES.length - 1),
    value: fc.double({ min: 0, max: 15, noNaN: true }),
  }),
  fc.record({
    do: fc.constant('note' as const),
    text: fc.string({ minLength: 1, maxLength: 40 }).filter((t) => t.trim() !== ''),
  }),
  fc.constant({ do: 'photo' as const }),
  fc.record({ do: fc.constant('state' as const), state: fc.nat(STATES.length - 1) }),
  fc.record({ do: fc.constant('complaint' as const), words: fc.string({ minLength: 1, maxLength: 60 }) }),
  fc.constant({ do: 'retract' as const }),
  fc.constant({ do: 'undo' as const }),
);

function commandOf(job: Job, s: Step, last: { before: Job; command: Command } | undefined): Command | undefined {
  switch (s.do) {
    case 'read':
      return command('reading.keep', {
        id: newId(),
        state: STATES[s.state]!,
        probe: POINTS[s.at]!,
        ref: job.blackLead,
        unit: 'V',
        status: 'measured',
        value: Number(s.value.toFixed(2)),
      } as never);
    case 'note':
      return command('note.add', { id: newId(), text: s.text });
    case 'photo':
      return command('photo.keep', { ...photo, id: newId() });
    case 'state':
      return command('state.set', { state: STATES[s.state]! } as never);
    case 'complaint':
      return command('intake.set', { was: { words: job.complaint.words }, set: { words: s.words } } as never);
    case 'retract': {
      const reading = standingReadings(job, currentRevision(job).epoch).at(-1);
      return reading && command('reading.retract', { id: reading.id });
    }
    case 'undo':
      return last && (inverseOf(last.before, last.command, newId) as Command | undefined);
  }
}

/** Plays steps; what is refused is left out, as the page would. */
function walk(steps: readonly Step[], each: (before: Job, c: Command, after: Job) => void): Job {
  let job: Job = open;
  let last: { before: Job; command: Command } | undefined;
  for (const s of steps) {
    const made = commandOf(job, s, last);
    if (!made) continue;
    const c = { ...command(made.type as never, made.payload as never), id: newId() } as Command;
    const result = applyCommand(job, c);
    if (!result.ok) continue;
    each(job, c, result.value);
    last = { before: job, command: c };
    job = result.value;
  }
  return job;
}

describe('a job', () => {
  it('never forgets: what was read, noted and photographed stays in it, retracted or not', () => {
    fc.assert(
      fc.property(fc.array(step, { maxLength: 25 }), (steps) => {
        const given = { readings: new Set<string>(), notes: new Set<string>(), photos: new Set<string>() };
        const end = walk(steps, (_, __, after) => {
          after.readings.forEach((r) => given.readings.add(r.id));
          after.observations.forEach((o) => given.notes.add(o.id));
          after.photos.forEach((p) => given.photos.add(p.id));
        });
        expect(new Set(end.readings.map((r) => r.id))).toEqual(
          new Set([...open.readings.map((r) => r.id), ...given.readings]),
        );
        for (const id of given.notes) expect(end.observations.some((o) => o.id === id)).toBe(true);
        for (const id of given.photos) expect(end.photos.some((p) => p.id === id)).toBe(true);
      }),
      { numRuns: 60 },
    );
  });

  it('does not touch the one it was made from: an earlier version can still be looked at', () => {
    const before = JSON.stringify(open);
    fc.assert(
      fc.property(fc.array(step, { maxLength: 20 }), (steps) => {
        walk(steps, (was, c) => {
          const kept = JSON.stringify(was);
          applyCommand(was, c);
          expect(JSON.stringify(was)).toBe(kept);
        });
      }),
      { numRuns: 30 },
    );
    expect(JSON.stringify(open)).toBe(before);
  });

  it('comes out the same on every device that plays the same commands', () => {
    fc.assert(
      fc.property(fc.array(step, { maxLength: 20 }), (steps) => {
        const log: Command[] = [];
        const here = walk(steps, (_, c) => log.push(c));
        const there = log.reduce(
          (job, c) => {
            const r = applyCommand(job, JSON.parse(JSON.stringify(c)) as Command);
            if (!r.ok) throw new Error(c.type);
            return r.value;
          },
          JSON.parse(JSON.stringify(open)) as Job,
        );
        expect(JSON.parse(JSON.stringify(there))).toEqual(JSON.parse(JSON.stringify(here)));
        expect(fingerprint(there, 'record')).toBe(fingerprint(here, 'record'));
      }),
      { numRuns: 40 },
    );
  });

  it('has a fingerprint of its own after every reading, note and photo', () => {
    fc.assert(
      fc.property(fc.array(step, { maxLength: 20 }), (steps) => {
        walk(steps, (was, c, after) => {
          if (c.type === 'reading.keep' || c.type === 'note.add' || c.type === 'photo.keep')
            expect(fingerprint(after, 'record'), c.type).not.toBe(fingerprint(was, 'record'));
        });
      }),
      { numRuns: 30 },
    );
  });

  it('undone command by command from the end is the job it began as, to anybody who reads it', () => {
    fc.assert(
      fc.property(
        fc.array(
          step.filter((s) => s.do !== 'undo' && s.do !== 'retract'),
          { maxLength: 12 },
        ),
        (steps) => {
          const done: { before: Job; command: Command }[] = [];
          let job = walk(steps, (before, c) => done.push({ before, command: c }));
          for (const { before, command: c } of done.reverse()) {
            const undo = inverseOf(before, c, newId);
            if (!undo) continue;
            const r = applyCommand(job, {
              ...command(undo.type as never, undo.payload as never),
              id: newId(),
            } as Command);
            expect(r.ok, `${c.type}: ${r.ok ? '' : r.error.found}`).toBe(true);
            if (r.ok) job = r.value;
          }
          const { epoch } = currentRevision(open);
          expect(standingReadings(job, epoch).map((r) => r.id)).toEqual(standingReadings(open, epoch).map((r) => r.id));
          expect(job.rigState.id).toBe(open.rigState.id);
          expect(job.complaint.words).toBe(open.complaint.words);
          expect(job.observations.filter((o) => !o.retracted).length).toBe(
            open.observations.filter((o) => !o.retracted).length,
          );
          expect(job.photos.filter((p) => !p.retracted).length).toBe(open.photos.filter((p) => !p.retracted).length);
        },
      ),
      { numRuns: 40 },
    );
  });
});
