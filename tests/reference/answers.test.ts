/**
 * Answers that are meant to stay: the headless verbs on every example, the drawings of every family, the documents of
 * the demo jobs, the calculators. Each is held to the hash of what it was, numbers to nine digits.
 *
 * A change that is meant to move an answer writes the hashes anew (SURRIK_WRITE_ANSWERS=1 on this file) and says in its
 * commit which moved and why; `node scripts/answers.mjs compare` shows the figures of two builds side by side.
 */
import { createHash } from 'node:crypto';
import { readFileSync, writeFileSync } from 'node:fs';
import { join } from 'node:path';
import { afterAll, describe, expect, it } from 'vitest';
import { canonical } from '../../src/core/units/canonical';
import { answers } from '../answers';

const FILE = join(import.meta.dirname, '../fixtures/answers.json');
const writing = process.env['SURRIK_WRITE_ANSWERS'] === '1';
const kept = JSON.parse(readFileSync(FILE, 'utf8')) as Record<string, string>;
const now: Record<string, string> = {};

/** Nine digits: what arithmetic in another order moves stays below them. */
const DIGITS = 9;

function plain(value: unknown): unknown {
  if (typeof value === 'number')
    return Number.isFinite(value) && value !== 0 ? Number(value.toPrecision(DIGITS)) : String(value === 0 ? 0 : value);
  if (ArrayBuffer.isView(value)) return Array.from(value as Float64Array, plain);
  if (value instanceof Map) return [...value].map(plain);
  if (Array.isArray(value)) return value.map(plain);
  if (typeof value !== 'object' || value === null) return value;
  return Object.fromEntries(Object.entries(value).map(([k, v]) => [k, plain(v)]));
}
/** Text with figures in it (a deck, a table): the same digits. */
const digits = (text: string): string =>
  text.replace(/-?\d+\.?\d*(?:e[-+]?\d+)?/gi, (n) => String(Number(Number(n).toPrecision(DIGITS))));

export const hashOf = (answer: unknown): string =>
  createHash('sha256')
    .update(typeof answer === 'string' ? digits(answer) : canonical(plain(answer)))
    .digest('hex')
    .slice(0, 16);

const list = Object.entries(answers());

describe('answers', () => {
  it.each(list)('%s', (name, answer) => {
    const hash = hashOf(answer());
    now[name] = hash;
    if (!writing) expect(hash).toBe(kept[name]);
  });

  it('are all asked for that are kept', () => {
    if (!writing) expect(list.map(([name]) => name).sort()).toEqual(Object.keys(kept).sort());
  });

  it('tell a change in the ninth digit, and not one beyond it', () => {
    expect(hashOf({ a: 1.23456789 })).not.toBe(hashOf({ a: 1.23456799 }));
    expect(hashOf({ a: 1.23456789 })).toBe(hashOf({ a: 1.2345678900001 }));
    expect(hashOf({ a: [0], b: new Float64Array([-0]) })).toBe(hashOf({ a: [-0], b: [0] }));
  });
});

afterAll(() => {
  if (writing) writeFileSync(FILE, `${JSON.stringify(now, null, 2)}\n`);
});
