/** United Kingdom and European Union: leisure accommodation vehicles by EN 1648. All from memory. */
import { BOAT_GUIDE_METRES, SHEATHED_METRES, type RuleSet } from './ruleSet';

const PLUG = { connector: 'round-13', convention: 'usual' } as const;
const CABLE = {
  says: 'Vehicle cable to ISO 6722-1 has 4 to 6 % less resistance than the class 5 figures used here: the drop errs high.',
  sold: [],
  from: 'ISO 6722-1, IEC 60228 class 5 (from memory)',
} as const;

export const UK: RuleSet = {
  id: 'uk',
  standards: 'BS EN 1648-1 and -2 (12 V), BS 7671 section 721 (230 V only), ISO 8820 fuses, ISO 6722 cable',
  fuseWithin: {
    guide: BOAT_GUIDE_METRES,
    most: SHEATHED_METRES,
    says: 'as close as practicable by BS EN 1648-1; 0.18 m, sheathed 1 m, by 33 CFR 183.455 for boats (from memory)',
  },
  breakaway: {
    says: 'A braked trailer has a breakaway cable that puts its own brakes on; over-run brakes need no battery.',
    from: { standard: 'UN R13', clause: 'annex 12' },
  },
  pinCopper: {
    connector: 'round-13',
    square: { 3: 2.5, 9: 2.5, 10: 2.5, 11: 2.5, 13: 2.5 },
    otherwise: 1.5,
    from: { standard: 'EN 1648-1', clause: 'and ISO 11446: cable of the 13-pin' },
  },
  habitationCut: { standard: 'EN 1648-1', clause: 'habitation circuits are off while the towing engine runs' },
  fridgeWatts: 135,
  cable: CABLE,
  plug: PLUG,
};

export const EU: RuleSet = {
  ...UK,
  id: 'eu',
  standards: 'EN 1648-1 and -2, UN R10 and R55, ISO 8820 fuses, ISO 6722 cable',
  fuseWithin: {
    ...UK.fuseWithin,
    says: 'as close as practicable by EN 1648-1; 0.18 m, sheathed 1 m, by 33 CFR 183.455 for boats (from memory)',
  },
};
