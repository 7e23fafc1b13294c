/**
 * The diagnosis on rigs it was not made from (bench/truth): a small fixed set, as a gate. The figures a shop may go by
 * come of `./surrik trials truth`; what stands here must only never get worse than this.
 */
import { describe, expect, it } from 'vitest';
import type { Outcome } from '../../bench/truth/examine';
import type { Group } from '../../bench/truth/hidden';
import { run } from '../../bench/truth/trials';

const SET: readonly (readonly [Group, string, number])[] = [
  ['single', 'link fuse open', 650000],
  ['single', 'coil open', 650170],
  ['single', 'module dead', 650272],
  ['single', 'boost fuse blown', 650340],
  ['single', 'coach ground bad', 650442],
  ['single', 'chassis battery worn', 650612],
  ['single', 'shore charger dead', 650748],
  ['sound', 'used-up bank', 550000],
  ['sound', 'misunderstood delay', 550017],
  ['sound', 'stored without charge', 550051],
  ['sound', 'charger idles on a full bank', 550068],
];

describe('on rigs of another truth', () => {
  const outcomes: Outcome[] = [];
  it.each(SET)('%s: %s (seed %i) comes to an end', { timeout: 60_000 }, (group, kind, seed) => {
    const outcome = run({ form: 'stepped', group, kind, seed }, () => 0);
    outcomes.push(outcome);
    expect(outcome.tests).toBeLessThanOrEqual(25);
    // Something is kept back for what no row describes, on any rig.
    expect(outcome.claimed).toBeLessThan(0.97);
  });

  it('names single faults and ends sound rigs as sound, and sells next to nothing', () => {
    const of = (group: Group) => outcomes.filter((o) => o.group === group);
    expect(of('single').filter((o) => o.right).length).toBeGreaterThanOrEqual(6);
    expect(of('sound').filter((o) => o.right).length).toBeGreaterThanOrEqual(3);
    expect(of('sound').filter((o) => o.sold).length).toBeLessThanOrEqual(1);
  });
});
