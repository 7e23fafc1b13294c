/** Text that a job may hold: whatever a schema says of its shape, PostgreSQL takes no NUL and nobody a half character. */
import type { DocumentIssue } from '../rig/issue';

const NUL = String.fromCharCode(0);
/** A surrogate without its other half; in Unicode mode the class matches no pair. */
const LONE_SURROGATE = /[\uD800-\uDFFF]/u;
/** More than that is told of one document at once nowhere. */
export const MAX_ISSUES = 100;

const pointerKey = (key: string): string => key.replace(/~/g, '~0').replace(/\//g, '~1');

/** Every string of a document, keys included, that could not be stored. */
export function unstorableText(data: unknown, pointer = '', found: DocumentIssue[] = []): DocumentIssue[] {
  if (found.length >= MAX_ISSUES) return found;
  if (typeof data === 'string') {
    if (data.includes(NUL))
      found.push({ pointer: pointer || '/', found: 'a NUL character', wanted: 'text without it' });
    else if (LONE_SURROGATE.test(data))
      found.push({ pointer: pointer || '/', found: 'half of a character', wanted: 'text of whole characters' });
  } else if (Array.isArray(data)) {
    data.forEach((item, i) => unstorableText(item, `${pointer}/${i}`, found));
  } else if (typeof data === 'object' && data !== null) {
    for (const [key, value] of Object.entries(data)) {
      unstorableText(key, `${pointer}/${pointerKey(key)}`, found);
      unstorableText(value, `${pointer}/${pointerKey(key)}`, found);
    }
  }
  return found;
}
