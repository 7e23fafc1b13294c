/**
 * A job between tables and document. Loading assembles the document; saving writes only what changed, told
 * by object identity: applyCommand keeps what it did not touch.
 */
import type { Knex } from 'knex';
import type {
  Approval,
  Job,
  Observation,
  Photo,
  Reading,
  Repair,
  Revision,
  DeclaredFault,
} from '../../core/job/jobSchema';
import { SCHEMA_VERSION } from '../../core/job/schemaVersion';
import { ticketOf } from './ticket';

export interface StoredJob {
  id: string;
  seq: number;
  job: Job;
}

const iso = (d: Date): string => d.toISOString();
const optional = <K extends string, V>(key: K, value: V | null | undefined | false): { [P in K]?: V } =>
  value === null || value === undefined || value === false ? {} : ({ [key]: value } as { [P in K]?: V });

type Row = Record<string, unknown>;

/** One kind of list in a job: its table and the two directions. */
interface ListTable<T extends { id: string }> {
  table: string;
  toRow(item: T): Row;
  fromRow(row: never): T;
}

const revisions: ListTable<Revision> = {
  table: 'revisions',
  toRow: (r) => ({
    kind: r.kind,
    parent_id: r.parent ?? null,
    epoch: r.epoch,
    at: r.at,
    withdrawn: r.withdrawn ?? false,
    reason: r.reason ?? null,
    doc: JSON.stringify(r.doc),
  }),
  fromRow: (r: {
    id: string;
    kind: Revision['kind'];
    parent_id: string | null;
    epoch: number;
    at: Date;
    withdrawn: boolean;
    reason: string | null;
    doc: Revision['doc'];
  }) => ({
    id: r.id,
    kind: r.kind,
    ...optional('parent', r.parent_id),
    epoch: r.epoch,
    at: iso(r.at),
    ...optional('withdrawn', r.withdrawn),
    ...optional('reason', r.reason),
    doc: r.doc,
  }),
};

const readings: ListTable<Reading> = {
  table: 'readings',
  toRow: (r) => ({
    epoch: r.epoch,
    state: r.state,
    probe: r.probe,
    ref: r.ref ?? null,
    status: r.status,
    value: r.value ?? null,
    unit: r.unit,
    seconds_in_state: r.secondsInState,
    meter: r.meter ?? null,
    taken_at: r.takenAt,
    by_name: r.by,
    retracted: r.retracted ?? false,
  }),
  fromRow: (r: {
    id: string;
    epoch: number;
    state: string;
    probe: string;
    ref: string | null;
    status: Reading['status'];
    value: number | null;
    unit: Reading['unit'];
    seconds_in_state: number;
    meter: string | null;
    taken_at: Date;
    by_name: string;
    retracted: boolean;
  }) => ({
    id: r.id,
    epoch: r.epoch,
    state: r.state,
    probe: r.probe,
    ...optional('ref', r.ref),
    status: r.status,
    ...optional('value', r.value),
    unit: r.unit,
    secondsInState: r.seconds_in_state,
    ...optional('meter', r.meter),
    takenAt: iso(r.taken_at),
    by: r.by_name,
    ...optional('retracted', r.retracted),
  }),
};

const observations: ListTable<Observation> = {
  table: 'observations',
  toRow: (o) => ({
    epoch: o.epoch,
    kind: o.kind,
    text: o.text,
    what: o.what ?? null,
    answer: o.answer ?? null,
    values: o.values ? JSON.stringify(o.values) : null,
    at: o.at,
    by_name: o.by,
    retracted: o.retracted ?? false,
  }),
  fromRow: (o: {
    id: string;
    epoch: number;
    kind: Observation['kind'];
    text: string;
    what: string | null;
    answer: string | null;
    values: Record<string, number> | null;
    at: Date;
    by_name: string;
    retracted: boolean;
  }) => ({
    id: o.id,
    epoch: o.epoch,
    kind: o.kind,
    text: o.text,
    ...optional('what', o.what),
    ...optional('answer', o.answer),
    ...optional('values', o.values),
    at: iso(o.at),
    by: o.by_name,
    ...optional('retracted', o.retracted),
  }),
};

const verdicts: ListTable<DeclaredFault> = {
  table: 'verdicts',
  toRow: (v) => ({
    epoch: v.epoch,
    fault: v.fault,
    name: v.name,
    repair: v.repair,
    probability: v.probability,
    settled: v.settled,
    covers: v.covers ? JSON.stringify(v.covers) : null,
    at: v.at,
    by_name: v.by,
    withdrawn: v.withdrawn ?? false,
  }),
  fromRow: (v: {
    id: string;
    epoch: number;
    fault: string;
    name: string;
    repair: string;
    probability: number;
    settled: boolean;
    covers: NonNullable<DeclaredFault['covers']> | null;
    at: Date;
    by_name: string;
    withdrawn: boolean;
  }) => ({
    id: v.id,
    epoch: v.epoch,
    fault: v.fault,
    name: v.name,
    repair: v.repair,
    probability: v.probability,
    settled: v.settled,
    ...optional('covers', v.covers),
    at: iso(v.at),
    by: v.by_name,
    ...optional('withdrawn', v.withdrawn),
  }),
};

const approvals: ListTable<Approval> = {
  table: 'approvals',
  toRow: (a) => ({
    verdict_id: a.verdict,
    up_to: a.upTo,
    currency: a.currency,
    who: a.who,
    how: a.how,
    note: a.note ?? null,
    covers: a.covers ? JSON.stringify(a.covers) : null,
    at: a.at,
    by_name: a.by,
    withdrawn: a.withdrawn ?? false,
  }),
  fromRow: (a: {
    id: string;
    verdict_id: string;
    up_to: number;
    currency: Approval['currency'];
    who: string;
    how: Approval['how'];
    note: string | null;
    covers: NonNullable<Approval['covers']> | null;
    at: Date;
    by_name: string;
    withdrawn: boolean;
  }) => ({
    id: a.id,
    verdict: a.verdict_id,
    upTo: a.up_to,
    currency: a.currency,
    who: a.who,
    how: a.how,
    ...optional('note', a.note),
    ...optional('covers', a.covers),
    at: iso(a.at),
    by: a.by_name,
    ...optional('withdrawn', a.withdrawn),
  }),
};

const photos: ListTable<Photo> = {
  table: 'photos',
  toRow: (p) => ({
    sha256: p.sha256,
    width: p.width,
    height: p.height,
    bytes: p.bytes,
    caption: p.caption,
    step: p.step ?? null,
    at: p.at,
    by_name: p.by,
    retracted: p.retracted ?? false,
  }),
  fromRow: (p: {
    id: string;
    sha256: string;
    width: number;
    height: number;
    bytes: number;
    caption: string;
    step: string | null;
    at: Date;
    by_name: string;
    retracted: boolean;
  }) => ({
    id: p.id,
    sha256: p.sha256,
    width: p.width,
    height: p.height,
    bytes: p.bytes,
    caption: p.caption,
    ...optional('step', p.step),
    at: iso(p.at),
    by: p.by_name,
    ...optional('retracted', p.retracted),
  }),
};

const repairs: ListTable<Repair> = {
  table: 'repairs',
  toRow: (r) => ({
    verdict_id: r.verdict,
    revision_id: r.revision,
    did: r.did,
    at: r.at,
    by_name: r.by,
    withdrawn: r.withdrawn ?? false,
  }),
  fromRow: (r: {
    id: string;
    verdict_id: string;
    revision_id: string;
    did: string;
    at: Date;
    by_name: string;
    withdrawn: boolean;
  }) => ({
    id: r.id,
    verdict: r.verdict_id,
    revision: r.revision_id,
    did: r.did,
    at: iso(r.at),
    by: r.by_name,
    ...optional('withdrawn', r.withdrawn),
  }),
};

interface JobRow {
  id: string;
  number: number;
  rig_id: string;
  status: Job['status'];
  complaint_codes: Job['complaint']['codes'];
  complaint_words: string;
  intake: Job['intake'];
  usage: Job['usage'];
  choices: Job['choices'];
  waivers: NonNullable<Job['waivers']>;
  build: NonNullable<Job['build']> | null;
  checks: NonNullable<Job['checks']>;
  sign_offs: NonNullable<Job['signOffs']>;
  follow_ups: NonNullable<Job['followUps']>;
  bookings: NonNullable<Job['bookings']>;
  plan_changes: NonNullable<Job['planChanges']>;
  logs: NonNullable<Job['logs']>;
  hunt: NonNullable<Job['hunt']> | null;
  came_back: NonNullable<Job['cameBack']> | null;
  instruments: Job['instruments'];
  meter: string | null;
  rig_state: string;
  rig_state_since: Date;
  black_lead: string;
  seq: number;
}

/** A column of `jobs`: the part of the document it holds, and how that is written. */
const COLUMNS: Readonly<Record<string, readonly [part: (job: Job) => unknown, write?: (part: never) => unknown]>> = {
  status: [(j) => j.status],
  complaint_codes: [(j) => j.complaint.codes],
  complaint_words: [(j) => j.complaint.words],
  intake: [(j) => j.intake, JSON.stringify],
  usage: [(j) => j.usage, JSON.stringify],
  choices: [(j) => j.choices, JSON.stringify],
  waivers: [(j) => j.waivers, listText],
  build: [(j) => j.build, orNull],
  checks: [(j) => j.checks, listText],
  sign_offs: [(j) => j.signOffs, listText],
  follow_ups: [(j) => j.followUps, listText],
  bookings: [(j) => j.bookings, listText],
  plan_changes: [(j) => j.planChanges, listText],
  logs: [(j) => j.logs, listText],
  hunt: [(j) => j.hunt, orNull],
  came_back: [(j) => j.cameBack, orNull],
  instruments: [(j) => j.instruments, JSON.stringify],
  meter: [(j) => j.meter ?? null],
  rig_state: [(j) => j.rigState.id],
  rig_state_since: [(j) => j.rigState.since],
  black_lead: [(j) => j.blackLead],
};
function listText(list: readonly unknown[] | undefined): string {
  return JSON.stringify(list ?? []);
}
function orNull(value: unknown): string | null {
  return value === undefined ? null : JSON.stringify(value);
}

/** The columns of a job; against another, only those whose part is not the same object. */
function jobColumns(job: Job, against?: Job): Row {
  const row: Row = {};
  for (const [column, [part, write]] of Object.entries(COLUMNS)) {
    const value = part(job);
    if (against && part(against) === value) continue;
    row[column] = write ? write(value as never) : value;
  }
  return row;
}

/** The lists of a job, each with the table it is in. */
const LISTS = { revisions, readings, observations, verdicts, approvals, repairs, photos };
type Lists = { [K in keyof typeof LISTS]: (typeof LISTS)[K] extends ListTable<infer T> ? T[] : never };

/** All lists of a job in one answer: asked for one by one they were most of what a reading costs. */
const ALL_LISTS = Object.entries(LISTS)
  .map(
    ([name, { table }]) =>
      `(SELECT coalesce(json_agg(r ORDER BY r.position), '[]') FROM ${table} r WHERE r.job_id = j.id) AS ${name}`,
  )
  .join(', ');
/** Columns that hold an instant: as JSON they come as text. */
const INSTANTS = ['at', 'taken_at'] as const;

function listsOf(found: Record<keyof Lists, Row[]>): Lists {
  const read = ([name, of]: [string, ListTable<never>]) => [
    name,
    found[name as keyof Lists].map((row) => {
      for (const column of INSTANTS) if (typeof row[column] === 'string') row[column] = new Date(row[column]);
      return of.fromRow(row as never);
    }),
  ];
  return Object.fromEntries(Object.entries(LISTS).map((e) => read(e as never))) as Lists;
}

/**
 * The job with this number, or undefined. `lock` keeps other writers out until the transaction ends: its lists are asked
 * for once it holds, so that they are those of the row.
 */
export async function loadJob(tx: Knex.Transaction, number: number, lock = false): Promise<StoredJob | undefined> {
  let row: JobRow | undefined;
  let found: Record<keyof Lists, Row[]>;
  if (lock) {
    row = (await tx<JobRow>('jobs').where({ number }).forUpdate().first()) as JobRow | undefined;
    if (!row) return undefined;
    const { rows } = await tx.raw<{ rows: [typeof found] }>(`SELECT ${ALL_LISTS} FROM (SELECT ?::uuid AS id) j`, [
      row.id,
    ]);
    found = rows[0];
  } else {
    const { rows } = await tx.raw<{ rows: (JobRow & typeof found)[] }>(
      `SELECT j.*, ${ALL_LISTS} FROM jobs j WHERE j.number = ?`,
      [number],
    );
    if (!rows[0]) return undefined;
    row = found = rows[0] as never;
  }
  const lists = listsOf(found!);
  return {
    id: row.id,
    seq: row.seq,
    job: {
      schemaVersion: SCHEMA_VERSION,
      number: row.number,
      rigId: row.rig_id,
      status: row.status,
      complaint: { codes: row.complaint_codes, words: row.complaint_words },
      intake: row.intake,
      usage: row.usage,
      choices: row.choices,
      ...(row.waivers.length > 0 ? { waivers: row.waivers } : {}),
      ...optional('build', row.build),
      ...(row.checks.length > 0 ? { checks: row.checks } : {}),
      ...(row.sign_offs.length > 0 ? { signOffs: row.sign_offs } : {}),
      ...(row.follow_ups.length > 0 ? { followUps: row.follow_ups } : {}),
      ...(row.bookings.length > 0 ? { bookings: row.bookings } : {}),
      ...(row.plan_changes.length > 0 ? { planChanges: row.plan_changes } : {}),
      ...(row.logs.length > 0 ? { logs: row.logs } : {}),
      ...optional('hunt', row.hunt),
      ...optional('cameBack', row.came_back),
      instruments: row.instruments,
      ...optional('meter', row.meter),
      rigState: { id: row.rig_state, since: iso(row.rig_state_since) },
      blackLead: row.black_lead,
      ...lists,
    },
  };
}

/** Writes a job that did not exist. */
export async function insertJob(tx: Knex.Transaction, shopId: string, id: string, job: Job): Promise<void> {
  await tx('jobs').insert({
    shop_id: shopId,
    id,
    number: job.number,
    rig_id: job.rigId,
    ticket: JSON.stringify(ticketOf(job)),
    ...jobColumns(job),
  });
  const empty: Job = {
    ...job,
    revisions: [],
    readings: [],
    observations: [],
    verdicts: [],
    approvals: [],
    repairs: [],
    photos: [],
  };
  await saveLists(tx, shopId, id, empty, job);
}

/** Writes what `after` changed against `before` and moves the job to `seq`. */
export async function saveJob(
  tx: Knex.Transaction,
  shopId: string,
  stored: StoredJob,
  after: Job,
  seq: number,
): Promise<void> {
  await tx('jobs')
    .where({ id: stored.id })
    .update({
      ...jobColumns(after, stored.job),
      ticket: JSON.stringify(ticketOf(after)),
      seq,
      changed_at: tx.fn.now(),
    });
  await saveLists(tx, shopId, stored.id, stored.job, after);
}

async function saveLists(tx: Knex.Transaction, shopId: string, jobId: string, before: Job, after: Job): Promise<void> {
  const save = async <T extends { id: string }>(of: ListTable<T>, was: readonly T[], is: readonly T[]) => {
    if (was === is) return;
    const old = new Map(was.map((item) => [item.id, item]));
    for (const [position, item] of is.entries()) {
      const known = old.get(item.id);
      if (known === item) continue;
      const row = of.toRow(item);
      if (known) await tx(of.table).where({ job_id: jobId, id: item.id }).update(row);
      else await tx(of.table).insert({ shop_id: shopId, job_id: jobId, id: item.id, position, ...row });
    }
  };
  await save(revisions, before.revisions, after.revisions);
  await save(readings, before.readings, after.readings);
  await save(observations, before.observations, after.observations);
  await save(verdicts, before.verdicts, after.verdicts);
  await save(approvals, before.approvals, after.approvals);
  await save(repairs, before.repairs, after.repairs);
  await save(photos, before.photos, after.photos);
}
