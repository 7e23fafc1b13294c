/** Edits of a rig document: pure, exactly undone, and never a label or an id given twice. */
import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { motorhomeOf } from '../../../tests/motorhomes';
import { withConductor, withoutPieces, withPart, withPieces } from './applyEdit';
import { freeId } from './freeId';
import { insertFuse } from './insertFuse';

const rig = motorhomeOf();
const frozen = JSON.stringify(rig);

describe('an edit', () => {
  it('of a part changes what it names and leaves its other parameters and options', () => {
    const bank = rig.parts.find((p) => p.id === 'coach-bank')!;
    const capacity = { value: 333, spread: 0.05, provenance: 'nameplate' as const };
    const after = withPart(rig, 'coach-bank', { params: { capacity }, note: 'new' }).parts.find(
      (p) => p.id === 'coach-bank',
    )!;
    expect(after.params['capacity']).toEqual(capacity);
    expect(after.note).toBe('new');
    expect(after.options).toEqual(bank.options);
    for (const [k, v] of Object.entries(bank.params)) if (k !== 'capacity') expect(after.params[k]).toEqual(v);
    expect(withPart(rig, 'nobody', { note: 'x' })).toEqual(rig);
  });

  it('of a conductor changes that one alone', () => {
    const after = withConductor(rig, rig.conductors[2]!.id, { gauge: '4/0' });
    after.conductors.forEach((c, i) => (i === 2 ? expect(c.gauge).toBe('4/0') : expect(c).toBe(rig.conductors[i])));
  });

  it('that puts a fuse into any heavy cable is taken back to the very rig, its probes retired', () => {
    for (const c of rig.conductors.filter((x) => x.use === 'feed'))
      for (const end of ['from', 'to'] as const) {
        const pieces = insertFuse(rig, c, end, 100, 'bolt-large');
        const fitted = withPieces(rig, pieces);
        expect(fitted.parts.length).toBe(rig.parts.length + pieces.parts.length);
        const back = withoutPieces(fitted, pieces);
        expect(back.parts).toEqual(rig.parts);
        expect(back.conductors).toEqual(rig.conductors);
      }
  });

  it('never changes the rig it is made on', () => {
    withPart(rig, 'link', { note: 'x' });
    withConductor(rig, rig.conductors[0]!.id, { length: 9 });
    withoutPieces(rig, { parts: [rig.parts[0]!], conductors: [rig.conductors[0]!] });
    expect(JSON.stringify(rig)).toBe(frozen);
  });
});

describe('an id for something new', () => {
  const nobody = { parts: [], conductors: [], grounds: [], bonds: [] };

  it('is the words it is named by', () => {
    expect(freeId(nobody, 'Fuse at the chassis bank')).toBe('fuse-at-the-chassis-bank');
    expect(freeId(nobody, '  2nd Ångström — wire ')).toBe('nd-a-ngstro-m-wire');
    expect(freeId(nobody, '!!!')).toBe('piece');
  });

  it('is one nobody has and a document may hold, whatever is typed and however often', () => {
    fc.assert(
      fc.property(fc.string({ maxLength: 80 }), fc.integer({ min: 1, max: 15 }), (words, times) => {
        const grown = { ...nobody, parts: [] as typeof rig.parts };
        for (let n = 0; n < times; n++) {
          const id = freeId(grown, words);
          expect(id).toMatch(/^[a-z][a-z0-9-]{0,39}$/);
          expect(grown.parts.some((p) => p.id === id)).toBe(false);
          grown.parts = [...grown.parts, { ...rig.parts[0]!, id }];
        }
      }),
    );
  });
});
