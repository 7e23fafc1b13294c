/** Pairs of a part's parameters that must not cross: low below high. */
export const THRESHOLD_ORDER: readonly (readonly [low: string, high: string])[] = [
  ['openAt', 'closeAt'],
  ['off', 'on'],
  ['lockout', 'restart'],
  ['float', 'absorb'],
  ['rebulk', 'float'],
  ['dropOut', 'pullIn'],
  ['stopAt', 'startAt'],
];
