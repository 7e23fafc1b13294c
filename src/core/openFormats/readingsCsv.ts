/** Readings as a table, out and in: the points by label and key, values in SI, instants in UTC. */
import Papa from 'papaparse';
import { isStateId, STATE_IDS } from '../operate/states';
import { csvRows } from './csv';
import { readTime } from '../recorderLog/time';
import { currentRevision, type Job, type Reading } from '../job/job';
import type { DocumentIssue } from '../rig/issue';
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
const MOST_ROWS = 5000;

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

/**
 * A table back to readings of the job's rig as it stands. All or nothing: one bad cell and none is taken, each
 * bad one named by line and column. Columns may come in any order; `probe` may be a label or a key; without a
 * time a reading is of now. What the job holds already, taken at the same instant, is left out.
 * @param now milliseconds since 1970; nothing was taken after it
 */
export function parseReadingsCsv(text: string, job: Job, now: number): Result<ReadingsIn, DocumentIssue[]> {
  const { doc: rig, epoch } = currentRevision(job);
  if (text.length > READINGS_CSV_LIMIT)
    return err([{ pointer: '/', found: `${text.length} characters`, wanted: `at most ${READINGS_CSV_LIMIT}` }]);
  const rows = Papa.parse<string[]>(text.replace(/^\ufeff/, ''), { skipEmptyLines: 'greedy' }).data;
  const header = (rows[0] ?? []).map((h) => h.trim().toLowerCase());
  const column = (...names: string[]) => header.findIndex((h) => names.includes(h));
  const at = {
    state: column('state'),
    probe: column('probe'),
    key: column('key'),
    ref: column('black lead', 'ref'),
    value: column('value'),
    unit: column('unit'),
    status: column('status'),
    seconds: column('seconds in state', 'seconds'),
    taken: column('taken at (utc)', 'taken at'),
    epoch: column('epoch'),
  };
  const issues: DocumentIssue[] = [];
  if (at.state < 0 || at.value < 0 || (at.probe < 0 && at.key < 0))
    return err([
      {
        pointer: 'line 1',
        found: header.join(', ').slice(0, 120) || 'nothing',
        wanted: 'a header with at least: state, probe (or key), value',
      },
    ]);
  if (rows.length - 1 > MOST_ROWS)
    return err([{ pointer: '/', found: `${rows.length - 1} rows`, wanted: `at most ${MOST_ROWS}` }]);
  const points = new Set([
    ...rig.probes.filter((p) => !p.retired).map((p) => p.key),
    ...rig.grounds.flatMap((g) => g.points.map((p) => `${g.id}.${p.id}`)),
  ]);
  const list = rows.slice(1).map((cells, i): ReadingIn & { epoch: number } => {
    const line = i + 2;
    // A cell our own table made harmless is itself again.
    const cell = (k: number) => (k < 0 ? '' : (cells[k] ?? '').trim().replace(/^'(?=[=+\-@])/, ''));
    const bad = (name: string, found: string, wanted: string) =>
      issues.push({ pointer: `line ${line}, ${name}`, found: found || 'nothing', wanted });
    const state = cell(at.state);
    if (!isStateId(state)) bad('state', state, `one of ${STATE_IDS.join(', ')}`);
    const named = cell(at.key) || cell(at.probe);
    const probe = rig.probes.find(
      (p) => !p.retired && (p.key === named || p.label.toLowerCase() === named.toLowerCase()),
    )?.key;
    if (!probe)
      bad(
        'probe',
        named,
        `a probe of this rig: ${rig.probes
          .filter((p) => !p.retired)
          .map((p) => p.label)
          .slice(0, 12)
          .join(', ')} …`,
      );
    const ref = cell(at.ref);
    if (ref && !points.has(ref)) bad('black lead', ref, 'a probe or ground point of this rig');
    const clamp = probe?.endsWith('.clamp') ?? false;
    const unit = cell(at.unit) || (clamp ? 'A' : 'V');
    if (unit !== (clamp ? 'A' : 'V')) bad('unit', unit, clamp ? 'A, at a clamp' : 'V, at a point');
    const status = (cell(at.status) || 'measured') as Reading['status'];
    if (!STATUS.includes(status)) bad('status', status, STATUS.join(', '));
    const number = cell(at.value);
    const value = number === '' ? NaN : Number(number);
    if (status === 'measured' && !(Number.isFinite(value) && Math.abs(value) <= 2000))
      bad('value', number, 'a number with a decimal point, between −2000 and 2000');
    const seconds = cell(at.seconds) === '' ? 0 : Number(cell(at.seconds));
    if (!(Number.isFinite(seconds) && seconds >= 0)) bad('seconds in state', cell(at.seconds), 'seconds, 0 or more');
    const said = cell(at.taken);
    // Without a zone it is UTC, as the header of our own table says.
    const taken = Math.round(readTime(said, 'iso').seconds * 1000);
    if (said && !Number.isFinite(taken))
      bad('taken at', said, 'year, month, day, hours and minutes: 2026-05-04T09:30:00Z');
    else if (taken > now) bad('taken at', said, 'a time that is past');
    const about = cell(at.epoch) === '' ? epoch : Number(cell(at.epoch));
    if (!(Number.isInteger(about) && about >= 0 && about <= epoch))
      bad('epoch', cell(at.epoch), `a whole number from 0 to ${epoch}`);
    return {
      state,
      probe: probe ?? '',
      unit: clamp ? 'A' : 'V',
      status,
      secondsInState: seconds,
      epoch: about,
      ...(ref && !clamp ? { ref } : {}),
      ...(status === 'measured' ? { value } : {}),
      ...(Number.isFinite(taken) ? { taken } : {}),
    };
  });
  if (issues.length > 0) return err(issues);
  const known = new Set(
    job.readings.filter((r) => !r.retracted).map((r) => same({ ...r, taken: Date.parse(r.takenAt) })),
  );
  const ofNow = list.filter((r) => r.epoch === epoch);
  const readings = ofNow.filter((r) => !known.has(same(r))).map(({ epoch: _, ...r }) => r);
  return ok({ readings, here: ofNow.length - readings.length, before: list.length - ofNow.length });
}
