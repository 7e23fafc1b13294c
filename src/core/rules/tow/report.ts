/** What the Sizing station gets of a tow interface: the interface that was audited, and its audit. */
import type { TowInterface } from '../../rig/tow';
import type { TowAudit } from './audit';

export interface TowReport {
  tow: TowInterface;
  /** Whether somebody has described it; else it is as drawn and usual. */
  described: boolean;
  /** Whether the vehicle has a second battery a position may be fed from. */
  /** m of cable more from the start battery than from the accessory battery; absent without one. */
  metresToStart?: number;
  audit: TowAudit;
  /** What the place asks of the breakaway, with its clause. */
  breakaway: string;
  /** Of the proposal it belongs to, where one stands. */
  revision?: string;
}
