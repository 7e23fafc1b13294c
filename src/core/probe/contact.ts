/**
 * A contact judged as the trade does: by milliohms, never by volts alone. Display only: the diagnosis goes by
 * the two readings themselves. Bounds: common practice, no source.
 */
export interface ContactVerdict {
  milliohms: number;
  says: 'good' | 'watch it' | 'replace' | 'not enough current to judge';
}

const MIN_AMPS = 30;
const GOOD_MILLIOHMS = 2;
const WATCH_MILLIOHMS = 4;

/** Drop in volts across the contact and the amps through it, taken in one operating state. */
export function contactVerdict(dropVolts: number, amps: number): ContactVerdict {
  const milliohms = Math.abs(amps) < 1e-6 ? Infinity : Math.abs((1000 * dropVolts) / amps);
  if (Math.abs(amps) < MIN_AMPS) return { milliohms, says: 'not enough current to judge' };
  return {
    milliohms,
    says: milliohms <= GOOD_MILLIOHMS ? 'good' : milliohms <= WATCH_MILLIOHMS ? 'watch it' : 'replace',
  };
}
