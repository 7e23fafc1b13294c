import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { demoJobs } from '../../../db/demo/jobs';
import { demoUuid } from '../../../db/demo/shop';
import { FUSE_OHMS, drawTestResult } from './parasiticDrawTest';
import { currentRevision, type Hunt } from '../job/job';

const { doc } = currentRevision(demoJobs(new Date('2026-11-24T16:00:00Z'))[1]!);
const circuit = (name: string, fuse: string, millivolts: number, known = false): Hunt['circuits'][number] => ({
  id: demoUuid(name),
  name,
  fuse,
  millivolts,
  known,
});
const hunt = (over: Partial<Hunt>): Hunt => ({ sleptMinutes: 45, circuits: [], ...over });

describe('the hunt for a drain', () => {
  it('makes amps of millivolts: Ohm’s law over the fuse’s own resistance', () => {
    fc.assert(
      fc.property(fc.constantFrom(...FUSE_OHMS), fc.double({ min: 0, max: 20, noNaN: true }), (fuse, amps) => {
        const [line] = drawTestResult(hunt({ circuits: [circuit('x', fuse.id, amps * fuse.milliohms)] }), doc).lines;
        expect(line!.amps).toBeCloseTo(amps, 9);
        expect(line!.lo).toBeLessThanOrEqual(amps + 1e-9);
        expect(line!.hi).toBeGreaterThanOrEqual(amps);
      }),
    );
  });
  it('has fuses of less resistance the larger they are', () => {
    for (const kind of ['blade', 'mini', 'micro', 'large']) {
      const list = FUSE_OHMS.filter((f) => f.id.startsWith(`${kind}-`));
      expect(list.length).toBeGreaterThan(5);
      for (let i = 1; i < list.length; i++) expect(list[i]!.milliohms).toBeLessThan(list[i - 1]!.milliohms);
    }
  });
  it('passes over what is meant to draw, names what is not, and says what is left (common practice, no source)', () => {
    // 0.07 A of alarm and tracker is known; a forgotten speed limiter drew 0.3 A.
    const r = drawTestResult(
      hunt({
        amps: 0.39,
        circuits: [
          circuit('Alarm and tracker', 'blade-10', 0.54, true),
          circuit('Speed limiter', 'blade-15', 1.44),
          circuit('Radio', 'blade-10', 0.02),
        ],
      }),
      doc,
    );
    expect(r.lines.map((l) => l.suspect)).toEqual([false, true, false]);
    expect(r.lines[1]!.amps).toBeCloseTo(0.3, 2);
    expect(r.says.join()).toContain('Look at Speed limiter (0.30 A)');
    expect(r.says.join()).toContain('explain the whole');
    expect(
      drawTestResult(hunt({ amps: 0.9, circuits: [circuit('Alarm', 'blade-10', 0.54, true)] }), doc).says.join(),
    ).toContain('not explained');
    expect(drawTestResult(hunt({ amps: 0.1, circuits: [circuit('Alarm', 'blade-10', 3)] }), doc).says.join()).toContain(
      'more than the whole',
    );
  });
  it('tells to wait until it sleeps', () => {
    expect(drawTestResult(hunt({ sleptMinutes: 5, amps: 0.4 }), doc).says[0]).toContain('Wait until it sleeps');
  });
  it('asleep is usual up to 0.05 A, wants a name above, and is a fault from 0.25 A', () => {
    const says = (amps: number) => drawTestResult(hunt({ sleptMinutes: 40, amps }), doc).says.join(' ');
    for (const amps of [0.02, 0.05]) expect(says(amps), `${amps} A`).toContain('asleep is usual.');
    for (const amps of [0.051, 0.07, 0.2, 0.249])
      expect(says(amps), `${amps} A`).toContain('more than the usual 0.05 A');
    for (const amps of [0.25, 0.4, 2]) expect(says(amps), `${amps} A`).toContain('is a fault');
  });
  it('stands longer with less drain, and much longer once it is put right', () => {
    let last = Infinity;
    for (const amps of [0.02, 0.07, 0.25, 0.5, 1]) {
      const { daysNow } = drawTestResult(hunt({ amps }), doc);
      expect(daysNow!).toBeLessThan(last);
      last = daysNow!;
    }
    const both = drawTestResult(hunt({ amps: 0.4, after: 0.06 }), doc);
    expect(both.daysAfter!).toBeGreaterThan(3 * both.daysNow!);
  });
});
