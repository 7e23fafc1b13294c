/** The deck as text: every element of the network in it once, every probe and branch printed, nothing a reader stumbles on. */
import { describe, expect, it } from 'vitest';
import { motorhomeInWords, VARIETY } from '../../../tests/motorhomes';
import { compileRig } from '../compile/compile';
import { RigModel } from '../operate/settle';
import { statesOf } from '../operate/states';
import { coupledRig, USUAL_COUPLED } from '../rig/archetypes/coupled';
import { COUPLED_FAMILIES, linksFor } from '../rig/archetypes/coupledChoices';
import { motorhome } from '../rig/archetypes/motorhome';
import type { Rig } from '../rig/schema';
import { spiceDeck, spiceName } from './deck';

const rigs: [string, Rig][] = [
  ...VARIETY.slice(0, 6).map((c): [string, Rig] => [motorhomeInWords(c), motorhome('t', 'T', c)]),
  ...COUPLED_FAMILIES.map(({ id }): [string, Rig] => [
    id,
    coupledRig('t', 'T', { ...USUAL_COUPLED[id], link: linksFor(id).at(-1)!.id }),
  ]),
];

describe.each(rigs)('%s', (_, rig) => {
  const compiled = compileRig(rig);
  const model = new RigModel(compiled);
  const { topology } = compiled;
  const deckAt = (state: string, nodeset = true) => {
    model.settle(state);
    return spiceDeck(topology, model.values, {
      title: 'A rig\nwith a line end in its name',
      probes: rig.probes
        .filter((p) => compiled.node.has(p.key))
        .map((p) => ({ name: spiceName(p.label), red: compiled.node.get(p.key)!, black: 0 })),
      volts: model.solver.volts,
      nodeset,
    });
  };

  it.each(statesOf(rig).map((s) => s.id))(
    '%s: has every resistor, battery and device, each under a name of its own',
    (state) => {
      const lines = deckAt(state).split('\n');
      const starts = (prefix: string) => lines.filter((l) => l.startsWith(prefix));
      topology.resistors.forEach((r, i) => {
        const name = spiceName(r.id);
        const open = !Number.isFinite(model.values.resistorOhms[i]!);
        expect(starts(open ? `* R_${name} open` : `R_${name} `).length, r.id).toBe(1);
      });
      for (const e of topology.emfs) expect(starts(`V_${spiceName(e.id)} `).length, e.id).toBe(1);
      topology.ports.forEach((p) => {
        const name = spiceName(p.id);
        const found = [`B_${name} `, `I_${name} `, `D_${name} `, `* B_${name} off`].flatMap(starts);
        expect(found.length, p.id).toBe(1);
      });
      const names = lines.filter((l) => /^[RVBID]_/.test(l)).map((l) => l.split(' ')[0]);
      expect(new Set(names).size).toBe(names.length);
    },
  );

  it('prints every probe and every branch, and stays one deck whatever stands in a title', () => {
    const deck = deckAt('idle');
    for (const p of rig.probes.filter((x) => compiled.node.has(x.key)))
      expect(deck).toContain(`print ${spiceName(p.label)}\n`);
    expect(deck.split('\n')[0]).toBe('* A rig with a line end in its name');
    expect(deck.trimEnd().endsWith('.end')).toBe(true);
    expect(deck).not.toMatch(/NaN|undefined|Infinity/);
    for (const [, name] of deck.matchAll(/^let (\S+) =/gm)) expect(deck).toContain(`print ${name}\n`);
  });

  it('carries a starting guess only where it is asked for', () => {
    expect(deckAt('idle')).toContain('.nodeset');
    expect(deckAt('idle', false)).not.toContain('.nodeset');
  });
});
