/**
 * Faults that come together because one brings the other. `share` is the prior of the pair against the rarer
 * of its two: assumed. Any other two faults are two visits to the next best test: after a repair everything
 * is measured again.
 */
export interface FaultPair {
  /** What each half answers to: the trait (and side) of its part, and its id. */
  first: string;
  second: string;
  share: number;
  because: string;
}

export const PAIRS: readonly FaultPair[] = [
  {
    first: 'boost.wedged',
    second: 'boost.fuse-blown',
    share: 0.2,
    because: 'a coil held for days blows the boost fuse',
  },
  {
    first: 'boost.wedged',
    second: 'solenoid.contact-high',
    share: 0.2,
    because: 'a contact held for days burns',
  },
  {
    first: 'boost.wedged',
    second: 'solenoid.welded',
    share: 0.15,
    because: 'a contact held for days welds',
  },
  {
    first: 'boost.wedged',
    second: 'solenoid.coil-open',
    share: 0.15,
    because: 'a coil held for days burns out',
  },
  {
    first: 'solenoid.wrong-duty',
    second: 'solenoid.contact-high',
    share: 0.2,
    because: 'a starter-type solenoid is not made to carry',
  },
  {
    first: 'boost.fuse-blown',
    second: 'solenoid.contact-high',
    share: 0.12,
    because: 'both come of boosting too long',
  },
  {
    first: 'fuse.open',
    second: 'battery@coach.open-cell',
    share: 0.1,
    because: 'a shorted block draws more than the fuse carries',
  },
  {
    first: 'chassisLoads.parasitic',
    second: 'battery@engine.sulphated',
    share: 0.2,
    because: 'a battery left flat again and again sulfates',
  },
  {
    first: 'chassisLoads.parasitic',
    second: 'battery@engine.flat',
    share: 0.35,
    because: 'the draw has emptied it',
  },
  {
    first: 'houseLoads.left-on',
    second: 'battery@coach.flat',
    share: 0.35,
    because: 'the draw has emptied it',
  },
  {
    first: 'mainsCharger.no-output',
    second: 'battery@coach.flat',
    share: 0.25,
    because: 'nothing has charged it in storage',
  },
  {
    first: 'mainsCharger.stuck-float',
    second: 'battery@coach.sulphated',
    share: 0.2,
    because: 'a bank never brought up sulfates',
  },
  {
    first: 'alternator.no-output',
    second: 'battery@engine.flat',
    share: 0.25,
    because: 'it was driven on the battery alone',
  },
  {
    first: 'battery@coach.bad-joint',
    second: 'metal.bad-splice',
    share: 0.15,
    because: 'the same salt and water reach both',
  },
];
