/** United States and Canada: recreational vehicles by the National Electrical Code and by CSA. All from memory. */
import { BOAT_GUIDE_METRES, cited, type RuleSet } from './ruleSet';

/**
 * 12 V conductors of 18 to 10 AWG and the largest fuse on each: NEC table 551.10(E)(1). The RV industry's low-voltage
 * standard has the same.
 */
const SMALL_WIRE = { '18': 6, '16': 8, '14': 15, '12': 20, '10': 30 } as const;

/** SAE J1127/J1128 cable holds less copper than the AWG number it carries; mm² from memory of the tables. */
const CABLE = {
  says:
    'Vehicle cable to SAE J1127 or J1128 carries an AWG number with 5 to 12 % less copper in it: ' +
    'count on a tenth more drop than its number says.',
  sold: [
    { label: '14 SAE', square: 1.85 },
    { label: '12 SAE', square: 2.9 },
    { label: '10 SAE', square: 4.65 },
    { label: '8 SAE', square: 7.5 },
    { label: '6 SAE', square: 12.1 },
    { label: '4 SAE', square: 19 },
  ],
  from: 'SAE J1127 and J1128 (from memory)',
} as const;

/** m: 18 inches. */
const EIGHTEEN_INCHES = 0.457;
const PLUG = { connector: 'blade-7', convention: 'rv' } as const;

export const US: RuleSet = {
  id: 'us',
  standards:
    'NEC 551.10 (low voltage in recreational vehicles), ANSI/RVIA LV, NFPA 1192, FMVSS 108 (lamps), ' +
    '49 CFR 393.28 and 393.30 (wiring, batteries), SAE J1127/J1128 cable, SAE J553 breakers',
  smallWire: { amps: SMALL_WIRE, from: { standard: 'NEC', clause: '551.10(E)(1)', edition: '2023' } },
  fuseWithin: {
    guide: BOAT_GUIDE_METRES,
    most: EIGHTEEN_INCHES,
    says: `18 in by ${cited({ standard: 'NEC', clause: '551.10(E)(4)', edition: '2023' })}`,
  },
  breakaway: {
    says: 'By state: usually from 3,000 lb gross, in some from 1,500 lb. The brakes hold for 15 minutes.',
    from: { standard: '49 CFR', clause: '393.43(d), and the state’s own law' },
    fromKg: 1361,
  },
  fridgeWatts: 290,
  cable: CABLE,
  plug: PLUG,
};

export const CANADA: RuleSet = {
  id: 'ca',
  standards:
    'CSA Z240 RV series, Canadian Electrical Code section 72, CMVSS 108 (lamps), SAE J1127/J1128 cable, ' +
    'SAE J553 breakers',
  smallWire: { amps: SMALL_WIRE, from: { standard: 'CSA Z240.6.2', clause: '12 V overcurrent table' } },
  fuseWithin: {
    guide: BOAT_GUIDE_METRES,
    most: EIGHTEEN_INCHES,
    says: `450 mm by ${cited({ standard: 'CSA Z240.6.2', clause: '12 V overcurrent protection' })}`,
  },
  breakaway: {
    says: 'By province: from 1,360 kg gross in Ontario, elsewhere near it. The brakes hold for 15 minutes.',
    from: { standard: 'Provincial highway traffic acts', clause: '' },
    fromKg: 1360,
  },
  fridgeWatts: 290,
  cable: CABLE,
  plug: PLUG,
};
