/** The route is measured first, then cut. */
import { describe, expect, it } from 'vitest';
import { motorhome } from '../../rig/archetypes/motorhome';
import { withConductor } from '../../rig/applyEdit';
import { candidatesOf } from '../candidates';
import { buildPlan } from './build';

describe('the routes of a build', () => {
  const rig = motorhome('t', 'T');
  it.each(
    candidatesOf(rig)
      .filter((c) => c.differences.some((d) => d.what === 'conductor' && d.kind !== 'removed'))
      .map((c) => [c.name, c] as const),
  )('of %s are measured and written down before the first cut', (_, candidate) => {
    const { steps, cuts } = buildPlan(rig, candidate.rig);
    const at = steps.findIndex((s) => s.id === 'routes');
    expect(at).toBeGreaterThanOrEqual(0);
    expect(steps[at]!.cautions[0]).toContain(cuts[0]!.name);
    for (const [i, s] of steps.entries()) if (s.cut) expect(i, s.title).toBeGreaterThan(at);
  });

  it('are none where nothing is cut', () => {
    expect(buildPlan(rig, rig).steps.some((s) => s.id === 'routes')).toBe(false);
    const thicker = withConductor(rig, 'link-cable', { gauge: '2/0' });
    expect(buildPlan(rig, thicker).steps.some((s) => s.id === 'routes')).toBe(true);
  });
});
