import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { withPart } from '../rig/applyEdit';
import { checkRig } from '../rig/check';
import { coupledRig, USUAL_COUPLED } from '../rig/archetypes/coupled';
import { motorhome } from '../rig/archetypes/motorhome';
import type { LogEstimate } from './analyse';
import { logFigure } from './figures';

const rig = motorhome('t', 'T');
const estimate = (
  id: LogEstimate['id'],
  value: number,
  half: number,
  more: Partial<LogEstimate> = {},
): LogEstimate => ({ id, name: id, unit: 'V', value, lo: value - half, hi: value + half, from: 'test', ...more });

describe('what a log measured, as a figure of the rig', () => {
  it('is the part’s own, measured, and as sure as its interval and its place allow', () => {
    fc.assert(
      fc.property(
        fc.double({ min: 12.2, max: 15, noNaN: true }),
        fc.double({ min: 0, max: 0.5, noNaN: true }),
        (value, half) => {
          const f = logFigure(rig, estimate('set-point', value, half), 'trip.csv')!;
          expect(f).toMatchObject({
            part: 'alternator',
            param: 'setPoint',
            set: { provenance: 'measured', source: 'log trip.csv' },
          });
          expect(f.set.value).toBeCloseTo(value, 3);
          expect(f.set.spread).toBeGreaterThanOrEqual((0.999 * half) / 1.96);
          expect(f.set.spread).toBeLessThanOrEqual(half / 1.96 + 0.081);
        },
      ),
    );
  });

  it('of a capacity it is in parts of a hundred, and of the larger coach bank', () => {
    const f = logFigure(rig, estimate('capacity', 390, 20), 'trip.csv')!;
    expect(f).toMatchObject({ part: 'coach-bank', param: 'capacity' });
    expect(f.set.spread).toBeCloseTo(Math.hypot(20 / 1.96 / 390, 0.02), 4);
    const clinic = coupledRig('t', 'T', USUAL_COUPLED['trailer-48']);
    expect(logFigure(clinic, estimate('capacity', 90, 5), 'x')).toMatchObject({ part: 'coach-bank' });
  });

  it('is none where the log tells only a bound, something else, or what no such part has', () => {
    expect(logFigure(rig, estimate('capacity', 81, 0, { bound: 'at least' }), 'x')).toBeUndefined();
    expect(logFigure(rig, estimate('link-ohms', 0.01, 0.001), 'x')).toBeUndefined();
    expect(logFigure(rig, estimate('parasitic', -3, 0.01), 'x')).toBeUndefined();
    expect(
      logFigure(
        { ...rig, parts: rig.parts.filter((p) => p.kind !== 'alternator') },
        estimate('set-point', 14.1, 0.1),
        'x',
      ),
    ).toBeUndefined();
  });

  it('put into the rig leaves a sound document', () => {
    for (const e of [
      estimate('set-point', 14.05, 0.02),
      estimate('capacity', 390, 12),
      estimate('parasitic', 0.31, 0.01),
    ]) {
      const f = logFigure(rig, e, 'trip.csv')!;
      expect(checkRig(withPart(rig, f.part, { params: { [f.param]: f.set } })), e.id).toEqual([]);
    }
  });
});
