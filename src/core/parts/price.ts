/**
 * What a part costs and how long it takes to fit: bands in US dollars without mark-up, and minutes. Assumed, the order
 * of shop practice; the shop's own rates and factor go over them.
 */

/** From and to. */
export type PriceRange = readonly [lo: number, hi: number];

/** What a price may go by: the parameters of the part at hand. */
export interface Priced {
  params: Readonly<Record<string, { value: number }>>;
}

export interface Price {
  dollars(part: Priced): PriceRange;
  minutes: PriceRange;
}

export const flat = (lo: number, hi: number) => (): PriceRange => [lo, hi];

/** Dollars by the amps of a charger; the dear end a third above the cheap one. */
export const byAmps =
  (base: number, perAmp: number) =>
  (part: Priced): PriceRange => {
    const amps = part.params['limit']?.value ?? 30;
    return [base + perAmp * amps, 1.35 * (base + perAmp * amps)];
  };

/** A part that is seldom what a job is about. */
export const SMALL_PART: Price = { dollars: flat(20, 80), minutes: [20, 45] };
