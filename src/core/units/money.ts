/** Money, as far as an estimate needs it. */
export const CURRENCIES = ['USD', 'CAD', 'EUR', 'GBP', 'AUD', 'NZD'] as const;
export type Currency = (typeof CURRENCIES)[number];

const SIGN: Readonly<Record<Currency, string>> = { USD: '$', CAD: 'C$', EUR: '€', GBP: '£', AUD: 'A$', NZD: 'NZ$' };

/** A sum in whole units: "$140". */
export const showMoney = (amount: number, currency: Currency): string =>
  `${SIGN[currency]}${Math.round(amount).toLocaleString('en-US')}`;

/** A range of sums: "$45 to $160", or one figure when both ends are the same. */
export const showRange = (lo: number, hi: number, currency: Currency): string =>
  Math.round(lo) === Math.round(hi)
    ? showMoney(lo, currency)
    : `${showMoney(lo, currency)} to ${showMoney(hi, currency)}`;
