import { describe, expect, it } from 'vitest';
import { motorhome } from './archetypes/motorhome';
import { checkRig, nextProbeLabel } from './check';
import type { Rig } from './schema';

const coach = (): Rig => structuredClone(motorhome('test', 'Test coach'));

/** The one issue a change to a good rig brings. */
function issueAfter(change: (rig: Rig) => void) {
  const rig = coach();
  change(rig);
  const issues = checkRig(rig);
  expect(issues.length).toBeGreaterThan(0);
  return issues[0]!;
}

describe('a rig document', () => {
  it('of the archetype is whole', () => {
    expect(checkRig(coach())).toEqual([]);
  });

  it('names the place, what stands there and what is wanted', () => {
    expect(
      issueAfter((r) =>
        r.parts.splice(
          r.parts.findIndex((p) => p.id === 'link'),
          1,
        ),
      ),
    ).toEqual({
      pointer: '/conductors/2/to/part',
      found: '"link"',
      wanted: 'the id of a part or ground of this rig',
    });
    expect(issueAfter((r) => (r.bonds[0]!.resistance.value = 0))).toMatchObject({
      pointer: '/bonds/0/resistance/value',
      wanted: expect.stringContaining('more than 0'),
    });
    expect(issueAfter((r) => (r.parts[0]!.params['contact']!.value = 99))).toMatchObject({
      pointer: '/parts/0/params/contact/value',
    });
    expect(issueAfter((r) => (r.parts[0]!.options = { position: 'on' }))).toMatchObject({
      pointer: '/parts/0/options/position',
    });
    const bank = coach().parts.findIndex((p) => p.id === 'coach-bank');
    expect(issueAfter((r) => (r.parts[bank]!.options = { chemistry: 'nickel' }))).toMatchObject({
      pointer: `/parts/${bank}/options/chemistry`,
      wanted: 'one of flooded, agm, gel, lfp',
    });
    expect(issueAfter((r) => (r.parts[1]!.id = r.parts[0]!.id))).toMatchObject({ pointer: '/parts/1/id' });
    expect(issueAfter((r) => (r.conductors[0]!.to = { ...r.conductors[0]!.from }))).toMatchObject({
      pointer: '/conductors/0/to',
    });
    expect(issueAfter((r) => (r.probes[3]!.label = 'P1'))).toMatchObject({ pointer: '/probes/3/label' });
    expect(issueAfter((r) => (r.reference = { part: 'link', terminal: 'coach-stud' }))).toMatchObject({
      pointer: '/reference/part',
    });
    expect(issueAfter((r) => (r.vehicles[0]!.coupledTo = 'nobody'))).toMatchObject({
      pointer: '/vehicles/0/coupledTo',
    });
  });

  it('never gives a probe label twice, not even a retired one', () => {
    const rig = coach();
    expect(nextProbeLabel(rig)).toBe('P27');
    rig.probes[17]!.retired = true;
    expect(nextProbeLabel(rig)).toBe('P27');
  });
});
