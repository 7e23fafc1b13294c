import type { PriceRange } from '../parts/price';

/** What putting a fault right will cost: labour by the minutes band, parts by the price band, at a shop's rates. */
export interface Rates {
  labourPerHour: number;
  /** Factor on the catalogue's parts prices. */
  partsTimes: number;
}

export interface Estimate {
  minutes: PriceRange;
  labour: PriceRange;
  parts: PriceRange;
  total: PriceRange;
}

/** Billed up to the next started quarter of an hour. Common practice, no source. */
const BILLED_BY_MINUTES = 15;

/** The estimate of a repair; `minutes` of work and `parts` as the fault catalogue states them. */
export function estimate(repair: { minutes: PriceRange; parts: PriceRange }, rates: Rates): Estimate {
  const quarters = (m: number) => Math.ceil(m / BILLED_BY_MINUTES) * BILLED_BY_MINUTES;
  const minutes: PriceRange = [quarters(repair.minutes[0]), quarters(repair.minutes[1])];
  const labour: PriceRange = [(minutes[0] / 60) * rates.labourPerHour, (minutes[1] / 60) * rates.labourPerHour];
  const parts: PriceRange = [repair.parts[0] * rates.partsTimes, repair.parts[1] * rates.partsTimes];
  return { minutes, labour, parts, total: [labour[0] + parts[0], labour[1] + parts[1]] };
}
