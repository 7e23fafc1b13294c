/** What a command says, short, for somebody who has to choose between two of them. */
import { midSentence } from '../units/format';
import { undoWords } from './applyCommand';
import type { Command } from './command';

const SHORT = 60;

/** `labourPerHour`, `house-bank` as one would say it. */
const spoken = (key: string): string =>
  key
    .replace(/([a-z])([A-Z])/g, '$1 $2')
    .replaceAll('-', ' ')
    .toLowerCase();

function shortly(value: unknown): string {
  if (typeof value === 'boolean') return value ? 'yes' : 'no';
  if (typeof value === 'number') return String(Number(value.toPrecision(4)));
  const text = typeof value === 'string' ? value : JSON.stringify(value);
  return text.length > SHORT ? `${text.slice(0, SHORT - 1)}…` : text;
}

/** Fields that say what it is about rather than what it says. */
const NAMES = new Set([
  'id',
  'revision',
  'covers',
  'was',
  'means',
  'candidate',
  'fault',
  'doc',
  'verdict',
  'step',
  'line',
]);

/** The content of a command in a few words: what stands there after it. */
export function contentInWords({ type, payload }: Pick<Command, 'type' | 'payload'>): string {
  const p = payload as Record<string, unknown>;
  for (const key of ['name', 'did', 'reason'] as const) if (typeof p[key] === 'string') return `“${shortly(p[key])}”`;
  if (typeof p['status'] === 'string') return `“${spoken(p['status'])}”`;
  const set = 'set' in p ? p['set'] : Object.fromEntries(Object.entries(p).filter(([k]) => !NAMES.has(k)));
  if (typeof set === 'string') return `“${spoken(set)}”`;
  const fields = typeof set === 'object' && set !== null ? Object.entries(set).filter(([k]) => k !== 'id') : [];
  if (fields.length === 0) return midSentence(undoWords(type));
  const said = fields.slice(0, 3).map(([k, v]) => `${spoken(k)}: ${shortly(v)}`);
  return `${said.join('; ')}${fields.length > 3 ? `; and ${fields.length - 3} more` : ''}`;
}
