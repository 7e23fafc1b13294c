/**
 * Three vocabularies of the trade. Everything is written in the North American one; the others are put in at
 * the edge, where words are shown. Ids, which look like `coach-bank.plus`, are never touched.
 */
export const VOCABULARIES = [
  { id: 'north-america', label: 'North America' },
  { id: 'europe', label: 'UK and Europe' },
  { id: 'oceania', label: 'Australia and New Zealand' },
] as const;
export type Vocabulary = (typeof VOCABULARIES)[number]['id'];

/** Longer terms before the shorter ones they contain. [North America, Europe, Oceania] */
const TERMS: readonly (readonly [string, string, string])[] = [
  ['chassis battery', 'starter battery', 'crank battery'],
  ['chassis bank', 'starter battery', 'crank battery'],
  ['start battery', 'starter battery', 'crank battery'],
  ['coach bank', 'leisure battery', 'house battery'],
  ['coach battery', 'leisure battery', 'house battery'],
  ['house battery', 'leisure battery', 'house battery'],
  ['coach blocks', 'leisure battery blocks', 'house battery blocks'],
  ['shore power', 'hook-up', 'mains'],
  ['shore cord', 'hook-up lead', 'mains lead'],
  ['shore charging', 'hook-up charging', 'mains charging'],
  ['shore charger', 'mains charger', 'mains charger'],
  ['coach ground', 'leisure earth', 'house earth'],
  ['chassis ground', 'chassis earth', 'chassis earth'],
  ['grounded', 'earthed', 'earthed'],
  ['grounds', 'earths', 'earths'],
  ['ground', 'earth', 'earth'],
  ['coach disconnect', 'leisure isolating switch', 'house isolating switch'],
  ['coach side', 'leisure side', 'house side'],
  ['coach bay', 'leisure locker', 'house battery bay'],
  ['coach midpoint', 'leisure midpoint', 'house midpoint'],
  ['flat-towed', 'A-frame towed', 'A-frame towed'],
  ['dinghy car', 'A-frame tow', 'A-frame tow'],
  // Spelling.
  ['sulfated', 'sulphated', 'sulphated'],
  ['sulfates', 'sulphates', 'sulphates'],
  ['discolored', 'discoloured', 'discoloured'],
  ['colors', 'colours', 'colours'],
  ['color', 'colour', 'colour'],
  ['center', 'centre', 'centre'],
  ['labor', 'labour', 'labour'],
  ['catalog', 'catalogue', 'catalogue'],
  ['gray', 'grey', 'grey'],
  ['aluminum', 'aluminium', 'aluminium'],
];

const column = { europe: 1, oceania: 2 } as const;

function cased(like: string, word: string): string {
  if (like === like.toUpperCase() && /[A-Z]/.test(like)) return word.toUpperCase();
  return /^[A-Z]/.test(like) ? word.charAt(0).toUpperCase() + word.slice(1) : word;
}

const tables = Object.fromEntries(
  (['europe', 'oceania'] as const).map((v) => [v, new Map(TERMS.map((t) => [t[0], t[column[v]]]))]),
) as Record<'europe' | 'oceania', Map<string, string>>;
// Not inside an id: no dot, hyphen or slash may touch the term.
const PATTERN = new RegExp(`(?<![\\w.\\-/])(${TERMS.map((t) => t[0]).join('|')})(?![\\w\\-/]|\\.[a-z])`, 'gi');

/** Unicode isolates, round what a person wrote. */
const [OPENS, CLOSES] = ['\u2068', '\u2069'];
const WRITTEN = new RegExp(`${OPENS}([^${CLOSES}]*)${CLOSES}`);

/** Every string of a value as a person's own words: no vocabulary changes them. `inWords` takes the marks off again. */
export function asWritten<T>(value: T): T {
  return eachString(value, (text) => `${OPENS}${text}${CLOSES}`);
}

/** A text in the words of a vocabulary, but for what a person wrote. @param own names a person gave, wherever they stand. */
export function inWords(vocabulary: Vocabulary, text: string, own: readonly string[] = []): string {
  // Every second piece stood between marks, and within the others every second is a name.
  return text
    .split(WRITTEN)
    .flatMap((piece, i) => (i % 2 === 1 ? [piece] : piece.split(anyOf(own)).map((p, k) => (k % 2 === 1 ? p : told(p)))))
    .join('');
  function told(piece: string): string {
    return vocabulary === 'north-america' ? piece : inTerms(vocabulary, piece);
  }
}

/** Any of some names, longest first; nothing where there are none. */
const anyOf = (names: readonly string[]): RegExp =>
  names.length === 0
    ? NOTHING
    : new RegExp(
        `(${[...names]
          .sort((a, b) => b.length - a.length)
          .map((n) => n.replace(/[.*+?^${}()|[\]\\]/g, '\\$&'))
          .join('|')})`,
      );
const NOTHING = /(?!)/;

function inTerms(vocabulary: keyof typeof column, text: string): string {
  const table = tables[vocabulary];
  return text.replace(PATTERN, (found) => cased(found, table.get(found.toLowerCase())!));
}

/** Everything a screen shows of a value in the words of a vocabulary; same shape, ids untouched. */
export const allInWords = <T>(vocabulary: Vocabulary, value: T, own: readonly string[] = []): T =>
  eachString(value, (text) => inWords(vocabulary, text, own));

function eachString<T>(value: T, change: (text: string) => string): T {
  const walk = (v: unknown): unknown => {
    if (typeof v === 'string') return change(v);
    if (Array.isArray(v)) return v.map(walk);
    if (typeof v === 'object' && v !== null) return Object.fromEntries(Object.entries(v).map(([k, x]) => [k, walk(x)]));
    return v;
  };
  return walk(value) as T;
}
