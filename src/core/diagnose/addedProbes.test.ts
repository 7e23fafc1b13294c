import { describe, expect, it } from 'vitest';
import { compileRig } from '../compile/compile';
import { motorhome } from '../rig/archetypes/motorhome';
import { addedProbes, missingProbes } from './addedProbes';
import { Belief } from './belief';
import { HiddenRig } from './hiddenRig';

const full = motorhome('t', 'T');
const REF = 'frame.bay-2';

describe('where no probe tells the leaders apart', () => {
  it('the probe that would is offered: without one at the switch, wire and switch look alike', () => {
    // The output tab of the boost switch is not probed: "switch open" and "wire broken" read the same everywhere.
    const rig = { ...full, probes: full.probes.filter((p) => p.key !== 'boost.output') };
    const belief = new Belief(compileRig(rig), ['boost-dead']);
    const hidden = new HiddenRig(compileRig(rig), 'boost.switch-open', 3);
    belief.setEvidence(
      [
        ['boost-engine-off', 'link.coil-plus'],
        ['boost-engine-off', 'boost.fused'],
        ['idle', 'link.coil-plus'],
        ['idle', 'coach-bank.plus'],
        ['idle', 'link.coach-stud'],
      ].map(([state, probe], i) => ({
        id: `r${i}`,
        state: state!,
        probe: probe!,
        ref: REF,
        value: hidden.read(state!, probe!, REF).value,
      })),
    );
    const open = belief.classes();
    const of = (id: string) => open.get(belief.faults.find((f) => f.id === id)!.class)!;
    expect(of('boost.switch-open')).toBeGreaterThan(0.3);
    expect(of('boost-wire.broken')).toBeGreaterThan(0.15);
    const offered = addedProbes(belief);
    expect(offered.map((p) => p.key)).toContain('boost.output');
    const tab = offered.find((p) => p.key === 'boost.output')!;
    // The one that tells most comes first, three at most, none twice.
    const apart = offered.map((p) => Math.abs(p.reads[0].value - p.reads[1].value));
    expect(apart[0]).toBe(Math.max(...apart));
    expect(offered.length).toBeLessThanOrEqual(3);
    expect(new Set(offered.map((p) => p.key)).size).toBe(offered.length);
    expect(Math.abs(tab.reads[0].value - tab.reads[1].value)).toBeGreaterThan(5);
  });

  it('points without a probe are offered once each, with labels nobody has', () => {
    const missing = missingProbes(full);
    expect(new Set(missing.map((p) => p.key)).size).toBe(missing.length);
    expect(new Set([...full.probes, ...missing].map((p) => p.label)).size).toBe(full.probes.length + missing.length);
    for (const p of missing) expect(full.probes.some((q) => q.key === p.key)).toBe(false);
  });
});
