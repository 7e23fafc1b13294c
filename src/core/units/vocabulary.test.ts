import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { VARIETY } from '../../../tests/motorhomes';
import { METAL_FAULTS } from '../diagnose/catalogue/metal';
import { PART_KINDS } from '../parts/kinds';
import { rigFaults } from '../diagnose/faults';
import { checkRig } from '../rig/check';
import { motorhome } from '../rig/archetypes/motorhome';
import { namesGiven, rigInWords } from '../rig/inWords';
import { celsiusShown, celsiusStored, lengthShown, lengthStored } from './preferences';
import { allInWords, asWritten, inWords, VOCABULARIES } from './vocabulary';
import { gaugeShown } from './wire';

describe('the three vocabularies', () => {
  it('say the same thing in other words, keeping capitals', () => {
    expect(inWords('europe', 'Coach bank does not charge on shore power')).toBe(
      'Leisure battery does not charge on hook-up',
    );
    expect(inWords('oceania', 'Coach bank does not charge on shore power')).toBe(
      'House battery does not charge on mains',
    );
    expect(inWords('europe', 'COACH SIDE')).toBe('LEISURE SIDE');
    expect(inWords('europe', 'Clean and remake the coach ground joint')).toBe(
      'Clean and remake the leisure earth joint',
    );
    expect(inWords('north-america', 'Coach bank')).toBe('Coach bank');
  });

  it('leave what a person wrote as it is, wherever it stands, and no mark of it behind', () => {
    fc.assert(
      fc.property(
        fc.constantFrom(...VOCABULARIES.map((v) => v.id)),
        fc.array(fc.tuple(fc.boolean(), fc.constantFrom('Ground', ' the coach bank ', 'center', 'x', '–')), {
          maxLength: 8,
        }),
        (vocabulary, pieces) => {
          const text = pieces.map(([own, words]) => (own ? asWritten(words) : words)).join(', ');
          const told = inWords(vocabulary, text);
          expect(told).not.toMatch(/[\u2068\u2069]/);
          // What is ours, told alone; what is theirs, as it was.
          expect(told).toBe(pieces.map(([own, words]) => (own ? words : inWords(vocabulary, words))).join(', '));
        },
      ),
    );
    expect(inWords('europe', `Coach bank of ${asWritten('Ground Control, the coach bank man')}`)).toBe(
      'Leisure battery of Ground Control, the coach bank man',
    );
    expect(allInWords('north-america', { by: asWritten('Gray'), at: 3 })).toEqual({ by: 'Gray', at: 3 });
  });

  it('leave a part as somebody named it, on the rig and in every sentence about it', () => {
    const drawn = motorhome('t', 'T');
    const name = 'Ground box (the coach bank one)';
    const rig = { ...drawn, parts: drawn.parts.map((p, i) => (i === 0 ? { ...p, name, named: true as const } : p)) };
    expect(checkRig(rig)).toEqual([]);
    for (const { id } of VOCABULARIES) {
      const told = rigInWords(id, rig);
      expect(told.parts[0]!.name).toBe(name);
      expect(told.parts.slice(1).map((p) => p.name)).toEqual(
        rigInWords(id, drawn)
          .parts.slice(1)
          .map((p) => p.name),
      );
      const sentence = `Clean the ground of ${name}; then the ground again, said ${asWritten(`of ${name}, ground`)}`;
      expect(inWords(id, sentence, namesGiven(rig))).toBe(
        `${inWords(id, 'Clean the ground of')} ${name}; ${inWords(id, 'then the ground again, said')} of ${name}, ground`,
      );
    }
  });

  it('leave no term of the first in any fault of the catalogue', () => {
    const words = [...[...PART_KINDS.values()].flatMap((k) => k.faults), ...METAL_FAULTS].flatMap((f) => [
      f.name,
      f.repair,
      f.shows,
      f.confirm,
      f.caution ?? '',
    ]);
    for (const w of words) {
      expect(inWords('europe', w)).not.toMatch(/\bground|\bshore (power|cord)|\bchassis bank|\bcoach bank/i);
      expect(inWords('oceania', w)).not.toMatch(/\bground\b|\bshore (power|cord)|\bchassis bank|\bcoach bank/i);
    }
  });

  it('touch no id: a rig and its faults in other words are the same rig', () => {
    for (const { id } of VOCABULARIES) {
      for (const choices of VARIETY.slice(0, 4)) {
        const rig = motorhome('t', 'T', choices);
        const told = rigInWords(id, rig);
        expect(checkRig(told)).toEqual([]);
        expect(rigFaults(told).map((f) => f.id)).toEqual(rigFaults(rig).map((f) => f.id));
        const faults = rigFaults(rig);
        expect(allInWords(id, faults).map((f) => [f.id, f.owner, f.part, f.effects])).toEqual(
          faults.map((f) => [f.id, f.owner, f.part, f.effects]),
        );
      }
    }
  });
});

describe('units', () => {
  it('come back as they were stored', () => {
    for (const m of [0.3, 1, 10.973])
      for (const u of ['ft', 'm'] as const) expect(lengthStored(lengthShown(m, u), u)).toBeCloseTo(m, 3);
    for (const c of [-40, 0, 21, 105])
      for (const u of ['F', 'C'] as const) expect(celsiusStored(celsiusShown(c, u), u)).toBeCloseTo(c, 9);
    expect(celsiusShown(-40, 'F')).toBe(-40);
    expect(celsiusShown(100, 'F')).toBe(212);
    // ASTM B258: 8 AWG is 8.37 mm², 2/0 is 67.4 mm².
    expect(gaugeShown('8', 'mm2')).toBe('8.4 mm²');
    expect(gaugeShown('2/0', 'mm2')).toBe('67.4 mm²');
  });
});
