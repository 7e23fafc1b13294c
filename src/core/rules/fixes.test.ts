/**
 * What a button mends, on every rig the archetypes draw: the finding it stands by is gone, no danger is new, the rig
 * is still a rig, and pressing the buttons one after the other comes to an end.
 */
import { EVERY_RIG } from '../../../tests/everyRig';
import { describe, expect, it } from 'vitest';
import { compileRig } from '../compile/compile';
import { checkRig } from '../rig/check';
import { withConductor, withPart, withPieces } from '../rig/applyEdit';
import type { Rig } from '../rig/schema';
import { houseBankOf } from '../rig/value';
import { usualScenarios } from '../plan/usualScenarios';
import { simulate } from '../simulate/simulate';
import { sizeRig } from '../size/sizing';
import { checkDesign } from './check';
import type { Autofix, Finding } from './rule';

const look = (rig: Rig): Finding[] => checkDesign(rig, sizeRig(rig, usualScenarios({}, houseBankOf(rig)?.id)));
const pressed = (rig: Rig, fix: Autofix): Rig =>
  'pieces' in fix
    ? withPieces(rig, fix.pieces)
    : 'part' in fix
      ? withPart(rig, fix.part, fix.set)
      : fix.conductors.reduce((r, id) => withConductor(r, id, fix.set), rig);
const dangers = (list: readonly Finding[]) =>
  list.filter((f) => f.severity === 'danger').map((f) => `${f.rule} ${f.at}`);

describe.each(EVERY_RIG)('%s', (_, rig) => {
  const found = look(rig);
  const mendable = found.filter((f) => f.mend);

  it('says of every finding what it saw, why it matters and what to do, in whole sentences', () => {
    for (const f of found) {
      for (const words of [f.title, f.says, f.why, f.fix, f.source])
        expect(words, f.rule).not.toMatch(/undefined|NaN|\[object|Infinity|null\b/);
      expect(f.says.endsWith('.') || f.says.endsWith('?'), `${f.rule}: ${f.says}`).toBe(true);
      expect(f.fix.length, f.rule).toBeGreaterThan(4);
      // It is about something that is there.
      expect(
        [...rig.parts, ...rig.conductors, ...rig.grounds, ...rig.bonds].some((x) => x.id === f.at),
        `${f.rule} at ${f.at}`,
      ).toBe(true);
    }
  });

  it('mends by one button what the button stands by, and brings no new danger', () => {
    for (const f of mendable) {
      const better = pressed(rig, f.mend!);
      expect(checkRig(better), f.fix).toEqual([]);
      const after = look(better);
      const same = after.filter((x) => x.rule === f.rule && x.at === f.at && x.says === f.says);
      expect(same, `${f.rule} at ${f.at}: ${f.fix}`).toEqual([]);
      const news = dangers(after).filter((d) => !dangers(found).includes(d));
      // A cable without any fuse wants one at each end: the second is told once the first is there. And with a fuse at
      // one bank, one farther on is judged by the other bank: that was so before, and nobody could see it.
      const uncovered = (d: string) => d.startsWith(f.rule) || /^fuse-(far|interrupts) /.test(d);
      expect(
        news.filter((d) => !uncovered(d)),
        `${f.rule} at ${f.at}: ${f.fix}`,
      ).toEqual([]);
    }
  });

  it('still runs through a drive after every button', () => {
    const [trip] = usualScenarios({ driveHours: 1, nights: 1 }, houseBankOf(rig)?.id);
    for (const f of mendable.slice(0, 3)) {
      const r = simulate(compileRig(pressed(rig, f.mend!)), trip!, { series: false });
      for (const b of r.summary.batteries) expect(Number.isFinite(b.endSoc), f.fix).toBe(true);
    }
  });
});
