/** What the program is built of, and what advisories say of it. */
import { readFileSync } from 'node:fs';
import fc from 'fast-check';
import semver from 'semver';
import { describe, expect, it } from 'vitest';
import { advisoriesOf, inventoryWords, met, piecesOf, type Advisory, type Piece } from './inventory';

const piece = (name: string, version: string, building = false): Piece => ({ name, version, license: 'MIT', building });
const advisory = (affected: NonNullable<Advisory['affected']>[number], more: Partial<Advisory> = {}): Advisory => ({
  id: 'TEST-1',
  summary: 'reads past its end',
  affected: [{ package: { ecosystem: 'npm', name: 'a' }, ...affected }],
  ...more,
});
const range = (...events: Record<string, string>[]) => ({ ranges: [{ type: 'SEMVER', events }] });
const hits = (version: string, a: Advisory) => met([piece('a', version)], [a]).length > 0;

describe('the inventory', () => {
  it('has every package of our own lock file once, what is served told from what builds', () => {
    const lock = JSON.parse(readFileSync('package-lock.json', 'utf8')) as Parameters<typeof piecesOf>[0];
    const pieces = piecesOf(lock);
    const own = JSON.parse(readFileSync('package.json', 'utf8')) as Record<string, Record<string, string>>;
    const find = (name: string, version: string) => pieces.filter((p) => p.name === name && p.version === version);
    for (const [name, version] of Object.entries(own['dependencies']!))
      expect(find(name, version), name).toMatchObject([{ building: false }]);
    for (const [name, version] of Object.entries(own['devDependencies']!))
      expect(find(name, version), name).toHaveLength(1);
    expect(find('vitest', own['devDependencies']!['vitest']!)).toMatchObject([{ building: true }]);
    expect(new Set(pieces.map((p) => `${p.name} ${p.version}`)).size).toBe(pieces.length);
    expect(inventoryWords(pieces).lines).toHaveLength(pieces.length + 1);
  });

  it('counts a package served where one of its places is', () => {
    const of = (first: boolean, second: boolean) =>
      piecesOf({
        packages: {
          '': { version: '1.0.0' },
          'node_modules/a': { version: '1.0.0', dev: first },
          'node_modules/@x/b/node_modules/a': { version: '1.0.0', dev: second },
        },
      });
    expect([of(true, false), of(false, true), of(true, true)].map((p) => p.map((x) => x.building))).toEqual([
      [false],
      [false],
      [true],
    ]);
    const either = { 'node_modules/a': { version: '1.0.0', devOptional: true } };
    expect(piecesOf({ packages: either })).toMatchObject([{ building: false }]);
    expect(() => piecesOf({})).toThrow('npm install');
  });
});

describe('an advisory', () => {
  // Ranges as the OSV schema's own text evaluates them: introduced counts, fixed does not, last_affected does.
  it('speaks of the versions from where it came in to before where it was mended', () => {
    const two = advisory(range({ introduced: '0' }, { fixed: '1.2.0' }, { introduced: '2.0.0' }, { fixed: '2.1.5' }));
    expect(['0.0.1', '1.1.9', '2.0.0', '2.1.4'].map((v) => hits(v, two))).toEqual([true, true, true, true]);
    expect(['1.2.0', '1.9.0', '2.1.5', '3.0.0'].map((v) => hits(v, two))).toEqual([false, false, false, false]);
    expect(hits('2.0.0-rc.1', two)).toBe(false);
    const last = advisory(range({ introduced: '1.0.0' }, { last_affected: '1.4.0' }));
    expect(['0.9.0', '1.0.0', '1.4.0', '1.4.1'].map((v) => hits(v, last))).toEqual([false, true, true, false]);
    expect(hits('5.0.0', advisory({ versions: ['5.0.0'] }))).toBe(true);
    expect(hits('5.0.1', advisory({ versions: ['5.0.0'] }))).toBe(false);
  });

  it('of one range says what the range itself says, whatever order its events stand in', () => {
    const version = fc.tuple(fc.nat(4), fc.nat(4), fc.nat(4)).map((v) => v.join('.'));
    fc.assert(
      fc.property(version, version, version, fc.boolean(), (v, from, to, turned) => {
        fc.pre(semver.lt(from, to));
        const events: Record<string, string>[] = [{ introduced: from }, { fixed: to }];
        if (turned) events.reverse();
        expect(hits(v, advisory(range(...events)))).toBe(semver.satisfies(v, `>=${from} <${to}`));
      }),
    );
  });

  it('of another name, another world, or withdrawn, says nothing', () => {
    const events = range({ introduced: '0' });
    expect(met([piece('b', '1.0.0')], [advisory(events)])).toEqual([]);
    expect(hits('1.0.0', advisory({ ...events, package: { ecosystem: 'Debian', name: 'a' } }))).toBe(false);
    expect(hits('1.0.0', advisory(events, { withdrawn: '2026-01-01T00:00:00Z' }))).toBe(false);
    expect(hits('1.0.0', { id: 'empty' })).toBe(false);
    expect(hits('1.0.0', advisory({ ranges: [{ type: 'GIT', events: [{ introduced: '0' }] }] }))).toBe(false);
  });

  it('is told with the first version that mends it, and ends with an error only for what is served', () => {
    const a = advisory(range({ introduced: '0' }, { fixed: '1.2.0' }));
    const told = inventoryWords([piece('a', '1.1.0'), piece('b', '1.0.0', true)], [a]);
    expect(told.lines).toEqual([
      'a 1.1.0: TEST-1, reads past its end; fixed in 1.2.0',
      '2 packages, 1 of them served; 1 advisories looked at, 1 met',
    ]);
    expect(told.served).toBe(true);
    const building = inventoryWords([piece('a', '1.1.0', true)], [advisory(range({ introduced: '0' }))]);
    expect(building.lines[0]).toContain('a 1.1.0 (building): TEST-1, reads past its end; no fixed version is named');
    expect(building.served).toBe(false);
  });

  it('comes one, in a list, or one a line; what is none is told by its place', () => {
    const one = JSON.stringify(advisory(range({ introduced: '0' })));
    expect(advisoriesOf(one)).toHaveLength(1);
    expect(advisoriesOf(JSON.stringify(JSON.parse(one), null, 2))).toHaveLength(1);
    expect(advisoriesOf(`[${one},${one}]`)).toHaveLength(2);
    expect(advisoriesOf(`${one}\n${one}\n`)).toHaveLength(2);
    expect(() => advisoriesOf('<html>')).toThrow('the file: no JSON');
    expect(() => advisoriesOf(`${one}\n{"id": }\n`)).toThrow('line 2: no JSON');
    expect(() => advisoriesOf(`[${one},{"affected":[]}]`)).toThrow('advisory 2: must have required property');
    expect(() => advisoriesOf('[{"id":"x","affected":[{"package":{"name":"a"}}]}]')).toThrow(
      'advisory 1/affected/0/package: must have required property',
    );
  });
});
