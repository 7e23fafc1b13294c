/** One charger that feeds on a battery another charger fills: only where the wires say so. */
import { describe, expect, it } from 'vitest';
import { coupledRig, USUAL_COUPLED } from '../rig/archetypes/coupled';
import type { Rig } from '../rig/schema';
import { is } from '../parts/kinds';
import { asDesigned } from './asDesigned';

const chained = coupledRig('t', 'T', { ...USUAL_COUPLED['second-battery'], link: 'chained' });
const told = (rig: Rig) => asDesigned(rig, ['coach-not-charging']).map((a) => a.id);
const without = (rig: Rig, wire: (c: Rig['conductors'][number]) => boolean): Rig => ({
  ...rig,
  conductors: rig.conductors.filter((c) => !wire(c)),
});

describe('chained chargers', () => {
  it('are told on a van wired so, and not where each charger feeds on the start battery', () => {
    expect(told(chained)).toContain('chained-chargers');
    expect(told(coupledRig('t', 'T', { ...USUAL_COUPLED['second-battery'], link: 'dcdc' }))).not.toContain(
      'chained-chargers',
    );
  });

  it('are none once the first one’s output reaches no battery the second hangs on', () => {
    const chargers = chained.parts.filter((p) => is(p, 'charger')).map((p) => p.id);
    expect(chargers.length).toBeGreaterThan(1);
    const cut = without(
      chained,
      (c) => c.use === 'feed' && [c.from, c.to].some((e) => chargers.includes(e.part) && e.terminal === 'output'),
    );
    expect(told(cut)).not.toContain('chained-chargers');
  });

  it('are none for a complaint that has nothing to do with them', () => {
    expect(asDesigned(chained, ['dead-on-shore' as never]).map((a) => a.id)).not.toContain('chained-chargers');
  });
});
