/** Text no database takes, wherever it stands in a document. */
import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { MAX_ISSUES, unstorableText } from './storable';

describe('text that cannot be stored', () => {
  it('is found by its place, in values and in keys', () => {
    expect(unstorableText({ a: [{ b: 'x\0' }] })).toMatchObject([{ pointer: '/a/0/b', found: 'a NUL character' }]);
    expect(unstorableText({ 'a/b~': '\udc00' })).toMatchObject([{ pointer: '/a~1b~0', found: 'half of a character' }]);
    expect(unstorableText({ 'k\0': 1 })).toHaveLength(1);
    expect(unstorableText('\0')).toMatchObject([{ pointer: '/' }]);
  });

  it('is none of what people write, in any script', () => {
    fc.assert(
      fc.property(fc.string({ unit: 'grapheme' }), (text) => {
        expect(unstorableText({ text: text.replaceAll('\0', '') })).toEqual([]);
      }),
    );
    expect(unstorableText({ a: '👩🏽‍🔧 Ω 9 µF', b: [1, null, true] })).toEqual([]);
  });

  it('is found in any text it is put into', () => {
    fc.assert(
      fc.property(fc.string(), fc.string(), fc.constantFrom('\0', '\ud800', '\udfff'), (a, b, bad) => {
        // A half that meets its other half is whole.
        fc.pre(bad === '\0' || (!/[\ud800-\udbff]$/.test(a) && !/^[\udc00-\udfff]/.test(b)));
        expect(unstorableText(`${a}${bad}${b}`)).toHaveLength(1);
      }),
    );
  });

  it('of a hostile document is told a bounded number of times', () => {
    expect(unstorableText(Array.from({ length: 5000 }, () => '\0'))).toHaveLength(100);
    expect(MAX_ISSUES).toBe(100);
  });
});
