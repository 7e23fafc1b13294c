/** What the Sizing station gets: the rig that was sized, its sizing, what the rules see. */
import type { Finding } from './rule';
import type { Sizing } from '../size/sizing';

export interface Sized extends Sizing {
  findings: Finding[];
  /** Of the proposal, where one stands: only that can be altered here. */
  revision?: string;
}
