/**
 * A rig nobody has touched since it was drawn is no danger of its own making, wherever the shop is: what it has is what
 * usual rigs have, and where that is not known it is asked. What the owner's own choice brings is another thing.
 */
import { describe, expect, it } from 'vitest';
import { EVERY_RIG } from '../../../tests/everyRig';
import { checkRig } from '../rig/check';
import { withConductor, withPieces } from '../rig/applyEdit';
import type { Rig } from '../rig/schema';
import { houseBankOf } from '../rig/value';
import { usualScenarios } from '../plan/usualScenarios';
import { sizeRig } from '../size/sizing';
import { JURISDICTIONS, type Jurisdiction } from '../units/preferences';
import { checkDesign } from './check';
import type { Finding } from './rule';

const look = (rig: Rig, jurisdiction: Jurisdiction = 'us'): Finding[] =>
  checkDesign(
    rig,
    sizeRig(rig, usualScenarios({ driveHours: 1, nights: 1 }, houseBankOf(rig)?.id).slice(0, 1), { jurisdiction }),
  );

/** Dangers of a lithium bank on a direct link: the choice makes them, not the drawing. */
const OF_THE_CHOICE = ['lithium-load-dump', 'volts-link-on-lithium'];

describe.each(JURISDICTIONS.map((j) => [j.label, j.id] as const))('as drawn, by the rules of %s', (_, jurisdiction) => {
  it.each(jurisdiction === 'us' ? EVERY_RIG : EVERY_RIG.filter((__, i) => i % 9 === 0))(
    '%s raises no danger but its choice’s',
    (__, rig) => {
      const dangers = look(rig, jurisdiction).filter((f) => f.severity === 'danger' && !OF_THE_CHOICE.includes(f.rule));
      expect(dangers.map((f) => `${f.rule}: ${f.says}`)).toEqual([]);
    },
  );
});

describe('what is asked of a rig as drawn', () => {
  it.each(EVERY_RIG.filter(([, r], i) => i % 8 === 0 && r.made?.family !== 'bench'))(
    'of %s is answered by a press, either way',
    (_, rig) => {
      const asked = look(rig).filter((f) => f.rule === 'feed-look');
      expect(asked.length).toBeGreaterThan(2);
      for (const f of asked.slice(0, 4)) {
        const none = f.answers!.at(-1)!;
        expect(none.says).toBe('No fuse there');
        if (!('conductors' in none.edit)) throw new Error('an edit of the wire');
        const { conductors, set } = none.edit;
        const bare = conductors.reduce((r, id) => withConductor(r, id, set), rig);
        expect(checkRig(bare)).toEqual([]);
        const condemned = look(bare).filter((x) => x.at === f.at);
        expect(condemned.map((x) => [x.rule, x.severity])).toContainEqual(['feed-unfused', 'danger']);
        const has = f.answers!.find((a) => a.says === 'It has a fuse there');
        if (!has || !('pieces' in has.edit)) continue;
        const fused = withPieces(rig, has.edit.pieces);
        expect(checkRig(fused)).toEqual([]);
        // Its rating is a guess until it is read.
        expect(has.edit.pieces.parts[0]!.params['rating']!.provenance).toBe('assumed');
        expect(look(fused).filter((x) => x.at === f.at && /^feed-/.test(x.rule) && x.says === f.says)).toEqual([]);
      }
    },
  );
});
