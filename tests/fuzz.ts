/**
 * Requests nobody meant: well-shaped ones drawn from the schemas, then hurt in one place or several. What is asked of them
 * is never a right answer, only that each is answered at all: taken, or refused in words.
 */
import { randomUUID } from 'node:crypto';
import type { Rng } from '../src/core/units/rng';

interface Schema {
  type?: string;
  const?: unknown;
  enum?: unknown[];
  anyOf?: Schema[];
  properties?: Record<string, Schema>;
  required?: string[];
  patternProperties?: Record<string, Schema>;
  items?: Schema;
  minItems?: number;
  maxItems?: number;
  pattern?: string;
  format?: string;
  minLength?: number;
  maxLength?: number;
  minimum?: number;
  maximum?: number;
  exclusiveMinimum?: number;
}

/** What stands where something else was wanted: what has broken programs before. From memory. */
const ODD: readonly unknown[] = [
  null,
  true,
  -1,
  0,
  -0,
  1e308,
  1e-320,
  2 ** 53,
  1.5,
  '',
  ' ',
  'x\u0000y',
  '\ud800',
  '\u202e\ufeff',
  '__proto__',
  'constructor',
  '0001-01-01',
  '2026-02-30',
  '2026-02-30T25:61:61.000Z',
  "'; DROP TABLE jobs; --",
  '../../../etc/passwd',
  '%00%2e%2e',
  '١٢٫٥',
  'NaN',
  'x'.repeat(3000),
  ' '.repeat(3000),
  '1'.repeat(400),
  [],
  {},
  [[[[]]]],
  { $ne: null },
];

export class Fuzz {
  /**
   * @param rng the same draws the same
   * @param pool words that mean something where they are sent: ids, points, names
   */
  constructor(
    private readonly rng: Rng,
    private readonly pool: readonly string[],
  ) {}

  below = (n: number): number => Math.floor(n * this.rng.uniform());
  pick = <T>(list: readonly T[]): T => list[this.below(list.length)]!;
  chance = (p: number): boolean => this.rng.uniform() < p;

  /** A document of a schema's shape; what it means is left to chance. */
  shaped(schema: Schema, depth = 0): unknown {
    if (schema.const !== undefined) return schema.const;
    if (schema.enum) return this.pick(schema.enum);
    if (schema.anyOf) return this.shaped(this.pick(schema.anyOf), depth);
    switch (schema.type) {
      case 'string':
        return this.words(schema);
      case 'integer':
      case 'number':
        return this.number(schema);
      case 'boolean':
        return this.chance(0.5);
      case 'null':
        return null;
      case 'array': {
        const few = Math.min(schema.maxItems ?? 3, depth > 3 ? 1 : 3);
        const many = Math.max(schema.minItems ?? 0, this.below(few + 1));
        return Array.from({ length: many }, () => this.shaped(schema.items ?? {}, depth + 1));
      }
      default:
        return this.object(schema, depth);
    }
  }

  private object(schema: Schema, depth: number): unknown {
    const made: Record<string, unknown> = {};
    for (const [name, of] of Object.entries(schema.properties ?? {}))
      if (schema.required?.includes(name) || this.chance(depth > 4 ? 0.1 : 0.5))
        made[name] = this.shaped(of, depth + 1);
    for (const [pattern, of] of Object.entries(schema.patternProperties ?? {}))
      if (this.chance(0.5)) made[this.words({ pattern })] = this.shaped(of, depth + 1);
    return made;
  }

  private words(schema: Schema): string {
    const { pattern, format, minLength = 0, maxLength = 4000 } = schema;
    const wanted = pattern === undefined ? undefined : new RegExp(pattern);
    const fits = (s: string) => s.length >= minLength && s.length <= maxLength && (!wanted || wanted.test(s));
    if (this.chance(0.7)) {
      const from = this.below(this.pool.length);
      for (let k = 0; k < 60; k++) {
        const word = this.pool[(from + k) % this.pool.length]!;
        if (fits(word) && format === undefined) return word;
      }
    }
    const date = `20${10 + this.below(30)}-${String(1 + this.below(12)).padStart(2, '0')}-1${this.below(10)}`;
    const made = [randomUUID(), `${date}T1${this.below(10)}:00:00.000Z`, date, `w${this.below(1e6)}`, 'P7', 'a.b'];
    return made.find(fits) ?? (pattern?.includes('{64}') ? 'a'.repeat(64) : 'w'.repeat(Math.max(1, minLength)));
  }

  private number({ type, minimum, exclusiveMinimum, maximum }: Schema): number {
    const lo = minimum ?? (exclusiveMinimum === undefined ? -1000 : exclusiveMinimum + 1e-3);
    const hi = maximum ?? Math.max(lo, 0) + 1000;
    const n = this.chance(0.2) ? this.pick([lo, hi]) : lo + (hi - lo) * this.rng.uniform() ** 4;
    return type === 'integer' ? Math.round(n) : n;
  }

  /** A copy with one place hurt: gone, doubled, of another kind, or what nobody would write. */
  hurt(document: unknown): unknown {
    const copy = structuredClone(document);
    const places: { of: Record<string, unknown> | unknown[]; key: string }[] = [];
    const walk = (node: unknown) => {
      if (typeof node !== 'object' || node === null) return;
      for (const key of Object.keys(node)) {
        places.push({ of: node as Record<string, unknown>, key });
        walk((node as Record<string, unknown>)[key]);
      }
    };
    walk(copy);
    if (places.length === 0) return this.pick(ODD);
    const { of, key } = this.pick(places);
    const record = of as Record<string, unknown>;
    switch (this.below(7)) {
      case 0:
        if (Array.isArray(of)) of.splice(Number(key), 1);
        else delete record[key];
        break;
      case 1:
        if (Array.isArray(of)) of.push(structuredClone(of[Number(key)]));
        else record[`${key}2`] = structuredClone(record[key]);
        break;
      case 2: {
        const other = this.pick(places);
        record[key] = structuredClone((other.of as Record<string, unknown>)[other.key]);
        break;
      }
      case 3:
        record[key] = this.pick(this.pool);
        break;
      case 4:
        if (typeof record[key] === 'number') record[key] = -record[key] * 10 ** (this.below(12) - 6);
        else record[key] = this.pick(ODD);
        break;
      default:
        record[key] = this.pick(ODD);
    }
    return copy;
  }

  /** Hurt now and then, and seldom more than twice. */
  sometimesHurt(document: unknown): unknown {
    let out = document;
    while (this.chance(0.45)) out = this.hurt(out);
    return out;
  }

  /** Bytes as a bad line or a bad disk leaves them: some turned, some gone, cut off. */
  damaged(bytes: Uint8Array): Uint8Array {
    const out = Uint8Array.from(bytes);
    for (let k = this.below(6); k > 0; k--) out[this.below(out.length)] = this.below(256);
    if (this.chance(0.3)) return out.subarray(0, this.below(out.length));
    if (this.chance(0.2)) {
      const from = this.below(out.length);
      return Buffer.concat([out.subarray(0, from), out.subarray(Math.min(out.length, from + this.below(200)))]);
    }
    return out;
  }

  /** An address as nobody types it. */
  address(of: string): string {
    if (this.chance(0.6)) return of;
    // As bytes and back: half a character has no address.
    const odd = encodeURIComponent(Buffer.from(String(this.pick(ODD)).slice(0, 300)).toString());
    return this.chance(0.5) ? of + odd : of.replace(/\d+/, odd);
  }
}

/** Every word of a document that is short enough to be an id or a name. */
export function wordsOf(document: unknown): string[] {
  const found = new Set<string>();
  const walk = (node: unknown): void => {
    if (typeof node === 'string' && node.length <= 80) found.add(node);
    if (typeof node !== 'object' || node === null) return;
    for (const [key, value] of Object.entries(node)) {
      if (!/^\d+$/.test(key)) found.add(key);
      walk(value);
    }
  };
  walk(document);
  return [...found];
}
