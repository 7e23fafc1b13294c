/**
 * What the public verbs answer on the examples, and how two builds differ.
 *
 *   node scripts/answers.mjs write DIR [BUNDLE]    one JSON file per example and verb
 *   node scripts/answers.mjs compare OLD NEW       numbers within 1e-9 (relative above 1), everything else equal
 */
import { execFileSync } from 'node:child_process';
import { mkdirSync, readFileSync, readdirSync, writeFileSync } from 'node:fs';
import { join } from 'node:path';

const TOLERANCE = 1e-9;
const EXAMPLES = ['heron', 'heron-1009', 'pika', 'dipper', 'marmot', 'osprey', 'wren'];
const STATES = [
  'rested',
  'key-on',
  'idle-before-delay',
  'idle',
  'fast-idle',
  'boost-engine-off',
  'boost-engine-on',
  'shore',
];
const VERBS = [
  ...STATES.map((state) => [`solve-${state}`, ['solve', '--state', state]]),
  ['predict', ['predict']],
  ['diagnose', ['diagnose']],
  ['simulate', ['simulate']],
  ['size', ['size']],
  ['check', ['check']],
  ['netlist', ['netlist', '--state', 'idle']],
  ['measure', ['measure', '--seed', '7', '--state', 'idle', '--probe', 'P1', '--truth', 'nothing-wrong']],
];

function write(folder, bundle) {
  mkdirSync(folder, { recursive: true });
  for (const example of EXAMPLES)
    for (const [name, [verb, ...options]] of VERBS) {
      let out;
      try {
        out = execFileSync('node', [bundle, verb, `examples/${example}.surrik.json`, ...options], {
          encoding: 'utf8',
          maxBuffer: 1 << 28,
          stdio: ['ignore', 'pipe', 'pipe'],
        });
      } catch (e) {
        out = `${e.status} ${e.stderr}`;
      }
      writeFileSync(join(folder, `${example}.${name}.txt`), out);
    }
}

/** Every place where two values differ, as `path: old → new`. */
function differences(a, b, path = '') {
  if (typeof a === 'number' && typeof b === 'number')
    return Math.abs(a - b) <= TOLERANCE * Math.max(1, Math.abs(a)) ? [] : [`${path}: ${a} → ${b}`];
  if (a === null || b === null || typeof a !== 'object' || typeof b !== 'object')
    return a === b ? [] : [`${path}: ${JSON.stringify(a)} → ${JSON.stringify(b)}`];
  return [...new Set([...Object.keys(a), ...Object.keys(b)])].flatMap((key) =>
    differences(a[key], b[key], `${path}/${key}`),
  );
}

const parsed = (text) => {
  try {
    return JSON.parse(text);
  } catch {
    return text
      .split('\n')
      .map((line) =>
        line.split(/\s+/).map((word) => (word !== '' && Number.isFinite(Number(word)) ? Number(word) : word)),
      );
  }
};

function compare(old, now) {
  let count = 0;
  for (const name of readdirSync(old)) {
    const found = differences(
      parsed(readFileSync(join(old, name), 'utf8')),
      parsed(readFileSync(join(now, name), 'utf8')),
    );
    if (found.length === 0) continue;
    count++;
    console.log(`${name}: ${found.length} differ`);
    for (const line of found.slice(0, 6)) console.log(`  ${line.slice(0, 220)}`);
  }
  console.log(count === 0 ? 'the same everywhere' : `${count} of ${readdirSync(old).length} answers differ`);
  return count;
}

const [what, a, b] = process.argv.slice(2);
if (what === 'write') write(a, b ?? '.build/cli.mjs');
else if (what === 'compare') process.exitCode = compare(a, b) ? 1 : 0;
else console.log('write DIR [BUNDLE] | compare OLD NEW');
