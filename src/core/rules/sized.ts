/** What the Sizing station gets: the rig that was sized, its sizing, what the rules see. */
import type { Finding } from './rule';
import type { Sizing } from '../size/sizing';

/** A finding as a job has it: set aside or not. */
export interface JobFinding extends Finding {
  waiver?: { id: string; reason: string; by: string };
}

export interface Sized extends Sizing {
  findings: JobFinding[];
  /** Of the proposal, where one stands: only that can be altered here. */
  revision?: string;
}
