/** What the board says is next, through a job's life. */
import { describe, expect, it } from 'vitest';
import { after, command, declared, finishedBuild, open, picked, repaired } from '../../../tests/afternoon';
import { ticketOf } from './ticket';

const fresh = { ...open, readings: [], observations: [] };

describe('a ticket', () => {
  it('goes from the first reading to the last proof', () => {
    expect(ticketOf(fresh)).toMatchObject({
      rig: 'Heron',
      by: 'No one yet',
      next: { station: 'Readings', words: 'take the first reading' },
    });
    expect(ticketOf(open).next).toEqual({ station: 'Readings', words: `${open.readings.length} taken so far` });
    expect(ticketOf(declared).next).toEqual({ station: 'Fault', words: 'r' });
    expect(ticketOf(repaired).next).toEqual({ station: 'Prove', words: '0 taken after the repair' });
    expect(ticketOf(finishedBuild).next).toEqual({ station: 'Prove', words: '0 taken after the build' });
    expect(ticketOf(picked).next.station).toBe('Readings');
  });

  it('of a finished job says how it ended', () => {
    const done = (job: typeof open) => after(job, command('job.set-status', { status: 'done' }));
    expect(ticketOf(done(repaired)).next).toEqual({ station: 'Done', words: 'r' });
    expect(ticketOf(done(finishedBuild)).next.words).toBe('60 A DC-DC charger');
    expect(ticketOf(done(fresh)).next.words).toBe('nothing was wrong');
  });

  it('was last touched when something was last done, whatever way instants are written', () => {
    const late = {
      ...open,
      observations: [
        ...open.observations,
        { id: open.readings[0]!.id, epoch: 0, kind: 'note' as const, text: 'x', at: '2027-01-01T00:00:00Z', by: 'A' },
      ],
    };
    expect(ticketOf(late).changedAt).toBe('2027-01-01T00:00:00.000Z');
    expect(Date.parse(ticketOf(open).changedAt)).toBe(
      Math.max(...open.revisions.map((r) => Date.parse(r.at)), ...open.readings.map((r) => Date.parse(r.takenAt))),
    );
  });
});
