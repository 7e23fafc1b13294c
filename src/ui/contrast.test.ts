/**
 * Readings and the next action are read in sunlight: seven to one, in both themes. Contrast as WCAG 2 defines it
 * (success criterion 1.4.6 and its relative luminance).
 */
import { readFileSync } from 'node:fs';
import { describe, expect, it } from 'vitest';

const css = readFileSync(new URL('../app/globals.css', import.meta.url), 'utf8');
const tokens = (theme: string): Map<string, string> => {
  const block = new RegExp(`\\[data-theme='${theme}'\\] \\{([^}]*)\\}`).exec(css)![1]!;
  return new Map([...block.matchAll(/--([\w-]+): (#[0-9a-f]{6});/g)].map((m) => [m[1]!, m[2]!]));
};

function luminance(hex: string): number {
  const [r, g, b] = [1, 3, 5].map((i) => {
    const share = parseInt(hex.slice(i, i + 2), 16) / 255;
    return share <= 0.03928 ? share / 12.92 : ((share + 0.055) / 1.055) ** 2.4;
  });
  return 0.2126 * r! + 0.7152 * g! + 0.0722 * b!;
}
const contrast = (a: string, b: string): number => {
  const [light, dark] = [luminance(a), luminance(b)].sort((x, y) => y - x);
  return (light! + 0.05) / (dark! + 0.05);
};

/** What is read on what. */
const READ = [
  ['a reading', 'ink', 'card'],
  ['a reading of the state that is on', 'paper', 'ink'],
  ['a reading out of its band', 'fail', 'fail-tint'],
  ['the same on the strip', 'on-fail', 'fail'],
  ['a verdict below it', 'fail', 'card'],
  ['one that is in order', 'ok', 'card'],
  ['the band beside it', 'ink-2', 'card'],
  ['the next action', 'marker-ink', 'marker'],
] as const;

describe('the formula', () => {
  it('is the standard’s: black on white is 21 to 1, a colour on itself 1', () => {
    expect(contrast('#000000', '#ffffff')).toBeCloseTo(21, 9);
    expect(contrast('#777777', '#777777')).toBe(1);
    // A gray that just passes 4.5 to 1 on white, from memory.
    expect(contrast('#767676', '#ffffff')).toBeCloseTo(4.54, 2);
  });
});

describe.each(['ticket', 'carbon'])('in the theme %s', (theme) => {
  const of = tokens(theme);
  it.each(READ)('%s is read in sunlight: %s on %s', (_, text, under) => {
    expect(contrast(of.get(text)!, of.get(under)!)).toBeGreaterThanOrEqual(7);
  });
});
