/** The rule sets by jurisdiction. A further one is a row in `JURISDICTIONS` and here; `tsc` asks for it. */
import type { Jurisdiction } from '../units/preferences';
import { AUSTRALASIA } from './australasia';
import { EU, UK } from './europe';
import { CANADA, US } from './northAmerica';
import type { RuleSet } from './ruleSet';

export const RULE_SETS: Readonly<Record<Jurisdiction, RuleSet>> = {
  us: US,
  ca: CANADA,
  uk: UK,
  eu: EU,
  'au-nz': AUSTRALASIA,
};

/** Judged by where nobody says where: the strictest on small wire. */
export const USUAL_JURISDICTION: Jurisdiction = 'us';
