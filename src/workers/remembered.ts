/**
 * What the core worked out before on this device, for this build of the program: a job opened again has its bands and its
 * next test at once. Looked up in the worker, which answers while the page is still being drawn. Nothing hangs on it:
 * without it everything is worked out as ever.
 */
import { openDB, type DBSchema, type IDBPDatabase } from 'idb';

interface Kept extends DBSchema {
  answers: { key: string; value: { key: string; at: number; answer: unknown }; indexes: { at: number } };
}

/** Made anew with every build: another program may answer otherwise. */
const BUILD = process.env.NEXT_PUBLIC_SURRIK_BUILD ?? 'unbuilt';
/** Answers that are kept; the oldest go first. */
const MOST = 160;
/** ms after which what was remembered is worked out all the same, so that the worker is warm for the next reading. */
const WARM_AFTER = 800;

const open = async () =>
  openDB<Kept>('surrik-answers', 1, {
    upgrade: (db) => void db.createObjectStore('answers', { keyPath: 'key' }).createIndex('at', 'at'),
  });
let store: Promise<IDBPDatabase<Kept>> | undefined;

/** The same for the same question of the same build, and for no other. */
async function keyOf(question: unknown): Promise<string> {
  const text = new TextEncoder().encode(JSON.stringify([BUILD, question]));
  const hash = new Uint8Array(await crypto.subtle.digest('SHA-256', text));
  return Array.from(hash, (b) => b.toString(16).padStart(2, '0')).join('');
}

/**
 * @param question all that the answer hangs on @param work works it out
 * @param warm it is worked out all the same a moment later, for the next question is one like it
 */
export async function remembered<T>(question: unknown, work: () => T | Promise<T>, warm = false): Promise<T> {
  // A device that keeps nothing, or a page that may not hash, works it out every time.
  const at = await Promise.all([(store ??= open()), keyOf(question)]).catch(() => undefined);
  if (!at) return work();
  const [db, key] = at;
  const known = await db.get('answers', key).catch(() => undefined);
  if (known) {
    if (warm)
      setTimeout(
        () =>
          void Promise.resolve()
            .then(work)
            .catch(() => undefined),
        WARM_AFTER,
      );
    return known.answer as T;
  }
  const answer = await work();
  keep(db, { key, at: Date.now(), answer }).catch(() => undefined);
  return answer;
}

async function keep(db: IDBPDatabase<Kept>, entry: Kept['answers']['value']): Promise<void> {
  await db.put('answers', entry);
  const keys = await db.getAllKeysFromIndex('answers', 'at');
  for (const old of keys.slice(0, Math.max(0, keys.length - MOST))) await db.delete('answers', old);
}
