/** Australia and New Zealand: connectable installations by AS/NZS 3001. All from memory. */
import { BOAT_GUIDE_METRES, SHEATHED_METRES, type RuleSet } from './ruleSet';

export const AUSTRALASIA: RuleSet = {
  id: 'au-nz',
  standards: 'AS/NZS 3001.2, AS 4177.5 (connectors), ADR 38, 42 and 62, VSB 1 and VSB 14',
  fuseWithin: {
    guide: BOAT_GUIDE_METRES,
    most: SHEATHED_METRES,
    says: 'as close as practicable by AS/NZS 3001.2; 0.18 m, sheathed 1 m, by 33 CFR 183.455 for boats (from memory)',
  },
  breakaway: {
    says: 'Over 2,000 kg gross trailer mass: brakes that hold for 15 minutes, and in some states a battery monitor in the cab.',
    from: { standard: 'ADR 38 and VSB 1', clause: '' },
    fromKg: 2000,
  },
  fridgeWatts: 150,
  cable: {
    says:
      'Auto cable is sold by its outer diameter, heavy cable by B&S number: “6 mm” cable has about 4.6 mm² of ' +
      'copper, not 6.',
    sold: [
      { label: '3 mm auto cable', square: 1.13 },
      { label: '4 mm auto cable', square: 1.84 },
      { label: '5 mm auto cable', square: 2.9 },
      { label: '6 mm auto cable', square: 4.59 },
      { label: '8 B&S', square: 7.9 },
      { label: '6 B&S', square: 13.6 },
    ],
    from: 'Usual tables of the trade there (from memory)',
  },
  plug: { connector: 'flat-12', convention: 'usual' },
};
