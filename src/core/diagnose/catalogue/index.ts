/** The fault catalogue. A new fault is a row in one of these files. */
import { BATTERY_FAULTS } from './batteries';
import { CABLE_FAULTS } from './cables';
import { CONTROL_FAULTS } from './control';
import { COUPLING_FAULTS } from './coupling';
import { LINK_FAULTS } from './link';
import { SOURCE_FAULTS } from './sources';
import type { FaultKind } from './faultKind';

export const FAULT_KINDS: readonly FaultKind[] = [
  ...LINK_FAULTS,
  ...CONTROL_FAULTS,
  ...CABLE_FAULTS,
  ...COUPLING_FAULTS,
  ...BATTERY_FAULTS,
  ...SOURCE_FAULTS,
];
