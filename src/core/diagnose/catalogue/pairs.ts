/**
 * Faults that come together because one brings the other. `share` is the prior of the pair against the rarer
 * of its two: assumed. Any other two faults are two visits to the next best test: after a repair everything
 * is measured again.
 */
export interface FaultPair {
  first: { owner: string; fault: string };
  second: { owner: string; fault: string };
  share: number;
  because: string;
}

export const PAIRS: readonly FaultPair[] = [
  {
    first: { owner: 'boost', fault: 'wedged' },
    second: { owner: 'boost', fault: 'fuse-blown' },
    share: 0.2,
    because: 'a coil held for days blows the boost fuse',
  },
  {
    first: { owner: 'boost', fault: 'wedged' },
    second: { owner: 'link', fault: 'contact-high' },
    share: 0.2,
    because: 'a contact held for days burns',
  },
  {
    first: { owner: 'boost', fault: 'wedged' },
    second: { owner: 'link', fault: 'welded' },
    share: 0.15,
    because: 'a contact held for days welds',
  },
  {
    first: { owner: 'boost', fault: 'wedged' },
    second: { owner: 'link', fault: 'coil-open' },
    share: 0.15,
    because: 'a coil held for days burns out',
  },
  {
    first: { owner: 'link', fault: 'wrong-duty' },
    second: { owner: 'link', fault: 'contact-high' },
    share: 0.2,
    because: 'a starter-type solenoid is not made to carry',
  },
  {
    first: { owner: 'boost', fault: 'fuse-blown' },
    second: { owner: 'link', fault: 'contact-high' },
    share: 0.12,
    because: 'both come of boosting too long',
  },
  {
    first: { owner: 'link-fuse', fault: 'open' },
    second: { owner: 'coach-bank', fault: 'open-cell' },
    share: 0.1,
    because: 'a shorted block draws more than the fuse carries',
  },
  {
    first: { owner: 'chassis-loads', fault: 'parasitic' },
    second: { owner: 'chassis-bank', fault: 'sulphated' },
    share: 0.2,
    because: 'a battery left flat again and again sulphates',
  },
  {
    first: { owner: 'chassis-loads', fault: 'parasitic' },
    second: { owner: 'chassis-bank', fault: 'flat' },
    share: 0.35,
    because: 'the draw has emptied it',
  },
  {
    first: { owner: 'house', fault: 'left-on' },
    second: { owner: 'coach-bank', fault: 'flat' },
    share: 0.35,
    because: 'the draw has emptied it',
  },
  {
    first: { owner: 'charger', fault: 'no-output' },
    second: { owner: 'coach-bank', fault: 'flat' },
    share: 0.25,
    because: 'nothing has charged it in storage',
  },
  {
    first: { owner: 'charger', fault: 'stuck-float' },
    second: { owner: 'coach-bank', fault: 'sulphated' },
    share: 0.2,
    because: 'a bank never brought up sulphates',
  },
  {
    first: { owner: 'alternator', fault: 'no-output' },
    second: { owner: 'chassis-bank', fault: 'flat' },
    share: 0.25,
    because: 'it was driven on the battery alone',
  },
  {
    first: { owner: 'coach-negative', fault: 'bad-joint' },
    second: { owner: 'frame-splice', fault: 'bad-splice' },
    share: 0.15,
    because: 'the same salt and water reach both',
  },
];
