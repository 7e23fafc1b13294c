/**
 * What this program is built of, read from the lock file, and held against advisories somebody brought along: no network is
 * asked. Advisories are records of the open source vulnerability format (OSV schema 1.x): one, a list, or one a line.
 */
import { readFileSync } from 'node:fs';
import { Ajv } from 'ajv';
import semver from 'semver';
import { Type, type Static } from 'typebox';

export interface Piece {
  name: string;
  version: string;
  license: string;
  /** Needed to build and test alone: nothing of it is served. */
  building: boolean;
}

const AdvisorySchema = Type.Object({
  id: Type.String({ minLength: 1 }),
  summary: Type.Optional(Type.String()),
  withdrawn: Type.Optional(Type.String()),
  affected: Type.Optional(
    Type.Array(
      Type.Object({
        package: Type.Optional(Type.Object({ ecosystem: Type.String(), name: Type.String() })),
        versions: Type.Optional(Type.Array(Type.String())),
        ranges: Type.Optional(
          Type.Array(
            Type.Object({
              type: Type.String(),
              events: Type.Array(Type.Record(Type.String(), Type.String())),
            }),
          ),
        ),
      }),
    ),
  ),
});
export type Advisory = Static<typeof AdvisorySchema>;
const valid = new Ajv().compile(AdvisorySchema);

/** A piece an advisory speaks of. */
export interface Met {
  piece: Piece;
  advisory: Advisory;
  /** First version that is not affected, where the advisory knows one. */
  fixed?: string;
}

interface LockFile {
  packages?: Record<string, { name?: string; version?: string; license?: string; dev?: boolean }>;
}

/** Every package of a lock file of version 3, by name and version, each once. @throws where it is no such file */
export function piecesOf(lock: LockFile): Piece[] {
  if (!lock.packages) throw new Error('package-lock.json has no packages: run npm install once');
  const pieces = new Map<string, Piece>();
  for (const [path, p] of Object.entries(lock.packages)) {
    const name = p.name ?? path.split('node_modules/').at(-1)!;
    if (path === '' || p.version === undefined) continue;
    const key = `${name} ${p.version}`;
    // What building and serving may both want counts as served.
    const building = p.dev === true && pieces.get(key)?.building !== false;
    pieces.set(key, { name, version: p.version, license: p.license ?? 'not stated', building });
  }
  return [...pieces.values()].sort((a, b) => a.name.localeCompare(b.name) || semver.compare(a.version, b.version));
}

/** Advisories out of a file's text. @throws naming the place, where one is none */
export function advisoriesOf(text: string): Advisory[] {
  const parsed = (json: string, where: string): unknown => {
    try {
      return JSON.parse(json);
    } catch {
      throw new Error(`${where}: no JSON; wanted advisories in the OSV format: one, a list, or one a line`);
    }
  };
  const lines = text.split('\n').filter((l) => l.trim() !== '');
  const oneEach = lines.length > 1 && lines.every((l) => l.trimStart().startsWith('{') && l.trimEnd().endsWith('}'));
  const whole = oneEach ? lines.map((l, k) => parsed(l, `line ${k + 1}`)) : parsed(text, 'the file');
  return (Array.isArray(whole) ? whole : [whole]).map((one: unknown, k) => {
    if (!valid(one))
      throw new Error(
        `advisory ${k + 1}${valid.errors?.[0]?.instancePath ?? ''}: ${valid.errors?.[0]?.message ?? 'none'}; ` +
          'wanted a record of the OSV format',
      );
    return one;
  });
}

type Event = Readonly<Record<string, string>>;
const COMPARED = ['introduced', 'fixed', 'last_affected'] as const;

/** Whether a version lies in a range: its events walked in order, as the OSV schema's own evaluation does. */
function inRange(version: string, events: readonly Event[]): boolean {
  const at = (e: Event) => COMPARED.flatMap((k) => (e[k] === undefined ? [] : [e[k] === '0' ? '0.0.0-0' : e[k]]))[0];
  let affected = false;
  const known = events.filter((e) => semver.valid(at(e)) !== null);
  for (const e of [...known].sort((a, b) => semver.compare(at(a)!, at(b)!))) {
    const side = semver.compare(version, at(e)!);
    if (e['introduced'] !== undefined && side >= 0) affected = true;
    if (e['fixed'] !== undefined && side >= 0) affected = false;
    if (e['last_affected'] !== undefined && side > 0) affected = false;
  }
  return affected;
}

/** Pieces the advisories speak of; those that were withdrawn say nothing. */
export function met(pieces: readonly Piece[], advisories: readonly Advisory[]): Met[] {
  return pieces.flatMap((piece) =>
    advisories.flatMap((advisory): Met[] => {
      if (advisory.withdrawn !== undefined) return [];
      const here = (advisory.affected ?? []).filter(
        (a) => a.package?.ecosystem === 'npm' && a.package.name === piece.name,
      );
      const ranges = here.flatMap((a) => a.ranges ?? []).filter((r) => r.type === 'SEMVER' || r.type === 'ECOSYSTEM');
      const hit = ranges.filter((r) => inRange(piece.version, r.events));
      if (hit.length === 0 && !here.some((a) => a.versions?.includes(piece.version))) return [];
      const fixes = hit.flatMap((r) => r.events.flatMap((e) => e['fixed'] ?? []));
      const fixed = fixes
        .filter((f) => semver.valid(f) !== null && semver.gt(f, piece.version))
        .sort(semver.compare)[0];
      return [{ piece, advisory, ...(fixed === undefined ? {} : { fixed }) }];
    }),
  );
}

/** One line a piece, or what advisories say of them. @returns the words, and whether anything served is met */
export function inventoryWords(
  pieces: readonly Piece[],
  advisories?: readonly Advisory[],
): { lines: string[]; served: boolean } {
  const counts = `${pieces.length} packages, ${pieces.filter((p) => !p.building).length} of them served`;
  if (!advisories)
    return {
      lines: [...pieces.map((p) => `${p.name} ${p.version}  ${p.license}${p.building ? '  building' : ''}`), counts],
      served: false,
    };
  const found = met(pieces, advisories);
  const lines = found.map(
    ({ piece, advisory, fixed }) =>
      `${piece.name} ${piece.version}${piece.building ? ' (building)' : ''}: ${advisory.id}` +
      `${advisory.summary === undefined ? '' : `, ${advisory.summary}`}; ` +
      (fixed === undefined ? 'no fixed version is named' : `fixed in ${fixed}`),
  );
  return {
    lines: [...lines, `${counts}; ${advisories.length} advisories looked at, ${found.length} met`],
    served: found.some((f) => !f.piece.building),
  };
}

/** Tells the inventory. Ends with 1 where an advisory speaks of something that is served, 2 where a file is none. */
export function tellInventory(file = ''): void {
  let advisories: Advisory[] | undefined;
  try {
    if (file !== '') advisories = advisoriesOf(readFileSync(file, 'utf8'));
  } catch (e) {
    console.error(`surrik: ${file}: ${(e as Error).message}`);
    process.exitCode = 2;
    return;
  }
  const lock = JSON.parse(readFileSync('package-lock.json', 'utf8')) as LockFile;
  const { lines, served } = inventoryWords(piecesOf(lock), advisories);
  for (const line of lines) console.log(line);
  if (served) process.exitCode = 1;
}
