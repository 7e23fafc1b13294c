/** A shop's settings in use: the defaults, what a command does to them, and the diagnosis' assumptions they make. */
import { ASSUMPTIONS, type Assumptions } from '../diagnose/assumptions';
import { ASSUMPTION_LIMITS, type EditableAssumption } from '../diagnose/assumptionLimits';
import type { Settings, Shop, ShopCommand } from './shopSchema';

export type { Settings, SettingsChange, Shop } from './shopSchema';

const likelihoods = Object.fromEntries(
  (Object.keys(ASSUMPTION_LIMITS) as EditableAssumption[]).map((k) => [k, ASSUMPTIONS[k]]),
) as Settings['likelihoods'];

export const DEFAULT_SETTINGS: Settings = {
  length: 'ft',
  gauge: 'awg',
  temperature: 'F',
  vocabulary: 'north-america',
  jurisdiction: 'us',
  currency: 'USD',
  labourPerHour: 150,
  partsTimes: 1,
  openMinutes: { ...ASSUMPTIONS.openMinutes },
  likelihoods,
  learnt: { factors: {}, jobs: 0, others: 0 },
  signing: 'technician',
  bays: ['Bay 1', 'Bay 2'],
  hours: { from: 8, to: 17, days: [1, 2, 3, 4, 5] },
  logMaps: {},
};

/** The shop after a command. */
export function reduceShop(shop: Shop, command: ShopCommand): Shop {
  if (command.type === 'settings.set') return { ...shop, settings: { ...shop.settings, ...command.payload.set } };
  const { set } = command.payload;
  const known = shop.instruments.some((i) => i.id === set.id);
  return {
    ...shop,
    instruments: known ? shop.instruments.map((i) => (i.id === set.id ? set : i)) : [...shop.instruments, set],
  };
}

/** What the diagnosis takes for granted in this shop. */
export const assumptionsOf = (settings: Pick<Settings, 'likelihoods' | 'openMinutes' | 'learnt'>): Assumptions => ({
  ...ASSUMPTIONS,
  ...settings.likelihoods,
  openMinutes: { ...ASSUMPTIONS.openMinutes, ...settings.openMinutes },
  priorFactors: settings.learnt.factors,
});
