/** A job is read from its file and from the archive it was exported in; what is neither is refused with what was wanted. */
import { strToU8, zipSync } from 'fflate';
import { mkdtempSync, readFileSync, rmSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { readJob } from './readJob';
import { BadInput } from './verb';

const HERON = 'examples/heron.surrik.json';

describe('a job for the headless verbs', () => {
  let folder: string;
  beforeAll(() => (folder = mkdtempSync(join(tmpdir(), 'surrik-'))));
  afterAll(() => rmSync(folder, { recursive: true, force: true }));
  const written = (name: string, bytes: Uint8Array | string) => {
    const path = join(folder, name);
    writeFileSync(path, bytes);
    return path;
  };
  const refused = (path: string): string => {
    try {
      readJob(path);
    } catch (e) {
      if (e instanceof BadInput) return JSON.stringify(e);
      throw e;
    }
    throw new Error('it was taken');
  };

  it('is the same from its file and from an exported archive, whatever else is packed', () => {
    const text = readFileSync(HERON, 'utf8');
    const zip = zipSync({
      'job.surrik.json': strToU8(text),
      'photos/a.jpg': strToU8('no photo'),
      'logs/b.gz': strToU8('x'),
    });
    expect(readJob(written('heron.zip', zip))).toEqual(readJob(HERON));
  });

  it('is refused in words where the archive is broken, empty of a job, or no file at all', () => {
    expect(refused(written('broken.zip', Uint8Array.from([0x50, 0x4b, 3, 4, 9, 9, 9])))).toMatch(/zip/);
    expect(refused(written('other.zip', zipSync({ 'notes.txt': strToU8('hello') })))).toMatch(
      /without job.surrik.json/,
    );
    expect(refused(join(folder, 'absent.zip'))).toMatch(/ENOENT/);
    expect(refused(written('text.json', 'no job'))).toMatch(/JSON/i);
  });
});
