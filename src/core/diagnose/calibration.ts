/**
 * How far a share may be believed. Inside the model a verdict is as sure as its likelihoods make it; on rigs the model was
 * not made from, some of what it was sure of was something else: a fault of no row, or a second one beside it.
 */
import { NOT_ON_LIST } from './catalogue/notOnList';

export interface Calibration {
  /** Share kept for what is not on the list, whatever the readings say. */
  reserve: number;
  /** On how many rigs of how many independent truths it was found, and when. */
  rigs: number;
  truths: number;
  date: string;
}

/** Found on the two truths the diagnosis was tuned on (bench/truth): see docs/benchmarks.md. */
export const CALIBRATION: Calibration = { reserve: 0.12, rigs: 250, truths: 2, date: '2026-11-29' };

/** A share as it may be claimed: all give the reserve to what is not on the list. @param id fault or class */
export const claimed = (id: string, share: number, { reserve } = CALIBRATION): number =>
  (1 - reserve) * share + (id === NOT_ON_LIST.id ? reserve : 0);
