/** The bench calculators in the order they are offered. A new one is a row here. */
import { bank, chargeTime, parasitic, rested } from './batteries';
import type { Calculator } from './calculator';
import { alternatorAtIdle, chargerInput, contact, delta, lampAndDiode } from './charging';
import { conversion, drop, fuse } from './wiring';

export const CALCULATORS: readonly Calculator[] = [
  drop,
  fuse,
  chargerInput,
  alternatorAtIdle,
  contact,
  delta,
  rested,
  chargeTime,
  parasitic,
  lampAndDiode,
  bank,
  conversion,
];
