/** Readings as a table, out and in: the points by label and key, values in SI, instants in UTC. */
import Papa from 'papaparse';
import { isStateId, STATE_IDS } from '../operate/states';
import { csvRows } from './csv';
import { readTime } from '../recorderLog/time';
import { currentRevision, type Job, type Reading } from '../job/job';
import type { DocumentIssue } from '../rig/issue';
import type { Rig } from '../rig/schema';
import { err, ok, type Result } from '../units/result';

const HEADER = [
  'taken at (UTC)',
  'state',
  'probe',
  'key',
  'black lead',
  'value',
  'unit',
  'status',
  'seconds in state',
  'by',
  'epoch',
] as const;
export const READINGS_CSV_LIMIT = 2 * 1024 * 1024;
const MAX_ROWS = 5000;

/** Every reading that was not taken back. */
export function readingsCsv(job: Job): string {
  const { doc } = currentRevision(job);
  const label = (key: string) => doc.probes.find((p) => p.key === key)?.label ?? '';
  return csvRows([
    [...HEADER],
    ...job.readings
      .filter((r) => !r.retracted)
      .map((r) => [
        r.takenAt,
        r.state,
        label(r.probe),
        r.probe,
        r.ref ?? '',
        r.value ?? '',
        r.unit,
        r.status,
        r.secondsInState,
        r.by,
        r.epoch,
      ]),
  ]);
}

/** What a row of the table asks to keep. */
export interface ReadingIn
  extends
    Pick<Reading, 'state' | 'probe' | 'unit' | 'status' | 'secondsInState'>,
    Partial<Pick<Reading, 'ref' | 'value'>> {
  /** When it was taken, milliseconds since 1970; of now where the table does not say. */
  taken?: number;
}

/** A table taken in. */
export interface ReadingsIn {
  readings: ReadingIn[];
  /** Rows left out: of this job already, and about the rig before it was changed. */
  here: number;
  before: number;
}

const same = (r: ReadingIn): string =>
  [r.state, r.probe, r.ref ?? '', r.status, r.value ?? '', r.taken ?? ''].join('/');

const STATUS: readonly Reading['status'][] = ['measured', 'overload', 'cannot-reach'];

/** Names a column goes by, ours first. */
const COLUMNS = {
  state: ['state'],
  probe: ['probe'],
  key: ['key'],
  ref: ['black lead', 'ref'],
  value: ['value'],
  unit: ['unit'],
  status: ['status'],
  seconds: ['seconds in state', 'seconds'],
  taken: ['taken at (utc)', 'taken at'],
  epoch: ['epoch'],
} as const;
type Column = keyof typeof COLUMNS;

/** A cell of the row at hand by its column: empty where there is none. */
type Cell = (column: Column) => string;
/** Says what is wrong with a cell of the row at hand. */
type Bad = (name: string, found: string, wanted: string) => void;

/** What a table's cells may name. */
interface Known {
  rig: Rig;
  epoch: number;
  /** Keys a black lead may stand on. */
  points: ReadonlySet<string>;
  now: number;
}

/** Probe, black lead and unit of a row: a clamp reads A and has no black lead. */
function pointOf(cell: Cell, bad: Bad, { rig, points }: Known): Pick<ReadingIn, 'probe' | 'unit' | 'ref'> {
  const named = cell('key') || cell('probe');
  const standing = rig.probes.filter((p) => !p.retired);
  const probe = standing.find((p) => p.key === named || p.label.toLowerCase() === named.toLowerCase())?.key;
  if (!probe) {
    const some = standing.slice(0, 12).map((p) => p.label);
    bad('probe', named, `a probe of this rig: ${some.join(', ')} …`);
  }
  const ref = cell('ref');
  if (ref && !points.has(ref)) bad('black lead', ref, 'a probe or ground point of this rig');
  const clamp = probe?.endsWith('.clamp') ?? false;
  const unit = clamp ? 'A' : 'V';
  if (cell('unit') && cell('unit') !== unit) bad('unit', cell('unit'), clamp ? 'A, at a clamp' : 'V, at a point');
  return { probe: probe ?? '', unit, ...(ref && !clamp ? { ref } : {}) };
}

/** What was read: a number where it was measured. */
function valueOf(cell: Cell, bad: Bad): Pick<ReadingIn, 'status' | 'value'> {
  const status = (cell('status') || 'measured') as Reading['status'];
  if (!STATUS.includes(status)) bad('status', status, STATUS.join(', '));
  if (status !== 'measured') return { status };
  const value = cell('value') === '' ? NaN : Number(cell('value'));
  if (!(Number.isFinite(value) && Math.abs(value) <= 2000))
    bad('value', cell('value'), 'a number with a decimal point, between −2000 and 2000');
  return { status, value };
}

/** When it was read. Without a zone it is UTC, as the header of our own table says; without a time it is of now. */
function takenOf(cell: Cell, bad: Bad, now: number): Pick<ReadingIn, 'taken'> {
  const said = cell('taken');
  const taken = Math.round(readTime(said, 'iso').seconds * 1000);
  if (said && !Number.isFinite(taken))
    bad('taken at', said, 'year, month, day, hours and minutes: 2026-05-04T09:30:00Z');
  else if (taken > now) bad('taken at', said, 'a time that is past');
  return Number.isFinite(taken) ? { taken } : {};
}

function readingOf(cell: Cell, bad: Bad, known: Known): ReadingIn & { epoch: number } {
  const state = cell('state');
  if (!isStateId(state)) bad('state', state, `one of ${STATE_IDS.join(', ')}`);
  const point = pointOf(cell, bad, known);
  const value = valueOf(cell, bad);
  const secondsInState = Number(cell('seconds') || 0);
  if (!(Number.isFinite(secondsInState) && secondsInState >= 0))
    bad('seconds in state', cell('seconds'), 'seconds, 0 or more');
  const taken = takenOf(cell, bad, known.now);
  const epoch = Number(cell('epoch') || known.epoch);
  if (!(Number.isInteger(epoch) && epoch >= 0 && epoch <= known.epoch))
    bad('epoch', cell('epoch'), `a whole number from 0 to ${known.epoch}`);
  return { state, ...point, ...value, secondsInState, epoch, ...taken };
}

/**
 * A table back to readings of the job's rig as it stands. All or nothing: one bad cell and none is taken, each
 * bad one named by line and column. Columns may come in any order; `probe` may be a label or a key; without a
 * time a reading is of now. What the job holds already, taken at the same instant, is left out.
 * @param now milliseconds since 1970; nothing was taken after it
 */
export function parseReadingsCsv(text: string, job: Job, now: number): Result<ReadingsIn, DocumentIssue[]> {
  const { doc: rig, epoch } = currentRevision(job);
  const tooMuch = (found: string, most: number) => err([{ pointer: '/', found, wanted: `at most ${most}` }]);
  if (text.length > READINGS_CSV_LIMIT) return tooMuch(`${text.length} characters`, READINGS_CSV_LIMIT);
  const rows = Papa.parse<string[]>(text.replace(/^\ufeff/, ''), { skipEmptyLines: 'greedy' }).data;
  const header = (rows[0] ?? []).map((h) => h.trim().toLowerCase());
  const at = (column: Column) => header.findIndex((h) => (COLUMNS[column] as readonly string[]).includes(h));
  if (at('state') < 0 || at('value') < 0 || (at('probe') < 0 && at('key') < 0))
    return err([
      {
        pointer: 'line 1',
        found: header.join(', ').slice(0, 120) || 'nothing',
        wanted: 'a header with at least: state, probe (or key), value',
      },
    ]);
  if (rows.length - 1 > MAX_ROWS) return tooMuch(`${rows.length - 1} rows`, MAX_ROWS);
  const points = new Set([
    ...rig.probes.filter((p) => !p.retired).map((p) => p.key),
    ...rig.grounds.flatMap((g) => g.points.map((p) => `${g.id}.${p.id}`)),
  ]);
  const issues: DocumentIssue[] = [];
  const list = rows.slice(1).map((cells, i) =>
    readingOf(
      // A cell our own table made harmless is itself again.
      (column) => (cells[at(column)] ?? '').trim().replace(/^'(?=[=+\-@])/, ''),
      (name, found, wanted) => issues.push({ pointer: `line ${i + 2}, ${name}`, found: found || 'nothing', wanted }),
      { rig, epoch, points, now },
    ),
  );
  if (issues.length > 0) return err(issues);
  const known = new Set(
    job.readings.filter((r) => !r.retracted).map((r) => same({ ...r, taken: Date.parse(r.takenAt) })),
  );
  const ofNow = list.filter((r) => r.epoch === epoch);
  const readings = ofNow.filter((r) => !known.has(same(r))).map(({ epoch: _, ...r }) => r);
  return ok({ readings, here: ofNow.length - readings.length, before: list.length - ofNow.length });
}
