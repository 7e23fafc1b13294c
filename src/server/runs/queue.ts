/** What asking and working share: the queue's name, what a token says, how much of everything. */
import type { Knex } from 'knex';
import type PgBoss from 'pg-boss';
import type { Refused } from '../actor';
import type { Makers } from './thread';

export const QUEUE = 'runs';
/** Told to all workers when something is put into the queue: they look at once, not at their next half second. */
export const CALL = 'surrik_runs';

/** All a queue is told: where to look, nothing of what stands there. */
export interface Token {
  shop: string;
  run: string;
}

/** What can be asked for. */
export type RunKind = Exclude<keyof Makers, 'warm'>;
export type Made<K extends RunKind> = Awaited<ReturnType<Makers[K]>>;

export interface RunLimits {
  /** ms one may take in the making. */
  budgetMs: number;
  /** Of one shop that may wait or be in the making. */
  waiting: number;
  /** ms between two signs of life of one in the making, and without one after which another worker takes it. */
  beatMs: number;
  silentMs: number;
  /** ms without anybody taking it up after which it is offered once more: a token may be lost with a worker. */
  againMs: number;
  /** Workers that may have lost it before it is given up. */
  tries: number;
  /** ms somebody waits for one altogether. */
  patienceMs: number;
}

/** A paper takes one to two seconds, the longest on a slow machine some six. */
export const LIMITS: RunLimits = {
  budgetMs: 20_000,
  waiting: 10,
  beatMs: 500,
  silentMs: 5000,
  againMs: 6000,
  tries: 2,
  patienceMs: 90_000,
};

/** The least of the queue that is needed here: what a test may stand in for. */
export type Tokens = Pick<PgBoss, 'send'>;

/** What went wrong, as it is told from a worker to whoever asked. */
export interface Problem {
  message: string;
  /** Of one that is told as it stands: HTTP status and code. */
  status?: Refused['status'];
  code?: string;
}

/** Two that look at what a shop has asked for do so one after the other, to the end of their transactions. */
export const oneAtATime = (tx: Knex.Transaction, shopId: string) =>
  tx.raw('SELECT pg_advisory_xact_lock(hashtextextended(?, 0))', [`runs ${shopId}`]);

/** Bytes of a value, and the value again: papers as they are, all else as JSON. */
export const packed = (value: unknown): Buffer =>
  value instanceof Uint8Array ? Buffer.from(value) : Buffer.from(JSON.stringify(value) ?? 'null');
const PAPERS: ReadonlySet<RunKind> = new Set(['report', 'card', 'wiring']);
export const unpacked = <K extends RunKind>(kind: K, bytes: Buffer): Made<K> =>
  (PAPERS.has(kind) ? new Uint8Array(bytes) : JSON.parse(bytes.toString())) as Made<K>;
