/**
 * The exported deck against ngspice (Debian's package): 200 seeded variants × operating states × faults.
 * With `.nodeset` this proves that our solution is one of the deck's; without it, wherever ngspice converges
 * by itself, that it is the same one.
 */
import { execFile } from 'node:child_process';
import { mkdtempSync, rmSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { promisify } from 'node:util';
import { afterAll, describe, expect, it } from 'vitest';
import { spiceDeck, spiceName } from '../../src/core/circuit/deck';
import { emfAmps, kirchhoffResidual, resistorAmps } from '../../src/core/circuit/readings';
import { compileRig } from '../../src/core/compile/compile';
import { rigFaults } from '../../src/core/diagnose/faults';
import { RigModel } from '../../src/core/operate/settle';
import { statesOf } from '../../src/core/operate/states';
import { motorhome } from '../../src/core/rig/archetypes/motorhome';
import { motorhomeInWords, VARIETY } from '../motorhomes';
import type { Rig } from '../../src/core/rig/schema';
import { seededRng } from '../../src/core/units/rng';

const run = promisify(execFile);
const folder = mkdtempSync(join(tmpdir(), 'surrik-spice-'));
afterAll(() => rmSync(folder, { recursive: true, force: true }));

/** Runs a deck and returns its printed scalars, or undefined when ngspice found no operating point. */
async function ngspice(deck: string, name: string): Promise<Map<string, number> | undefined> {
  const file = join(folder, `${name}.cir`);
  writeFileSync(file, deck);
  const { stdout } = await run('ngspice', ['-b', file], { timeout: 30_000 }).catch((e: { stdout?: string }) => ({
    stdout: e.stdout ?? '',
  }));
  const values = new Map<string, number>();
  for (const line of stdout.split('\n')) {
    const match = /^([a-z0-9_]+) = ([-+0-9.e]+)\s*$/i.exec(line);
    if (match) values.set(match[1]!, Number(match[2]));
  }
  return values.size > 0 ? values : undefined;
}

const near = (a: number, b: number, absolute: number) => Math.abs(a - b) <= Math.max(absolute, 1e-3 * Math.abs(b));

const counts = { alone: 0, compared: 0 };

/** Compares so many draws of states, faults and numbers of one rig; every probe, every branch, the drop across the link. */
async function compare(rig: Rig, cases: number, seed: number): Promise<void> {
  const compiled = compileRig(rig);
  const faults = rigFaults(rig);
  const states = statesOf(rig);
  const model = new RigModel(compiled);
  const probes = rig.probes
    .filter((p) => !p.key.endsWith('.clamp'))
    .map((p) => ({ name: spiceName(p.label), key: p.key, red: compiled.node.get(p.key)!, black: 0 }));
  const rng = seededRng(seed);
  for (let n = 0; n < cases; n++) {
    const state = states[n % states.length]!.id;
    const fault = faults[Math.floor(rng.uniform() * faults.length)]!;
    const where = `${rig.name}, ${state}, ${fault.id}`;
    const z = Float64Array.from(compiled.params, () => rng.normal());
    expect(model.settle(state, { z, effects: fault.effects, severity: rng.uniform() }).solved, where).toBe(true);
    expect(kirchhoffResidual(model.solver, model.values), where).toBeLessThan(1e-6);
    const ours = Float64Array.from(model.solver.volts);
    const amps = new Map<string, number>();
    compiled.topology.resistors.forEach((r, i) => {
      if (Number.isFinite(model.values.resistorOhms[i]!))
        amps.set(`i_${spiceName(r.id)}`, resistorAmps(model.solver, model.values, i));
    });
    compiled.topology.emfs.forEach((e, i) => amps.set(`i_${spiceName(e.id)}`, emfAmps(model.solver, model.values, i)));
    const options = { title: where, probes, volts: ours };
    const spice = await ngspice(spiceDeck(compiled.topology, model.values, options), `with${seed}-${n}`);
    expect(spice, `${where}: ngspice ran`).toBeDefined();
    for (const p of probes) expect(near(spice!.get(p.name)!, ours[p.red]!, 1e-3), `${where} ${p.name}`).toBe(true);
    for (const [name, value] of amps)
      expect(near(spice!.get(name)!, value, 1e-3), `${where} ${name}: ${spice!.get(name)} against ${value}`).toBe(true);
    const volts = (key: string) => spice!.get(probes.find((p) => p.key === key)!.name)!;
    if (compiled.node.has('link.coach-stud')) {
      const drop = ours[compiled.node.get('link.chassis-stud')!]! - ours[compiled.node.get('link.coach-stud')!]!;
      expect(
        Math.abs(volts('link.chassis-stud') - volts('link.coach-stud') - drop),
        `${where} drop across the link`,
      ).toBeLessThan(5e-5);
    }
    if (n % 4 === 0) {
      const free = await ngspice(
        spiceDeck(compiled.topology, model.values, { ...options, nodeset: false }),
        `free${seed}-${n}`,
      );
      counts.compared++;
      if (!free) continue;
      counts.alone++;
      for (const p of probes)
        expect(near(free.get(p.name)!, ours[p.red]!, 1e-3), `${where} ${p.name} without nodeset`).toBe(true);
    }
  }
}

describe('every probe, every branch and the drop across the link agree with ngspice', () => {
  it('on 200 variants × states × faults of the usual coach', () =>
    compare(motorhome('ref', 'Reference coach'), 200, 2026));

  it.each(VARIETY.map((c, n) => [motorhomeInWords(c), c, n] as const))('on 18 more of: %s', (name, choices, n) =>
    compare(motorhome('ref', name, choices), 18, 4000 + n),
  );

  it('also without our solution as a hint, wherever its own Newton gets there', () => {
    // It cycles on some corners: what matters is that where it arrives, it arrives at the same place.
    expect(counts.alone / counts.compared).toBeGreaterThan(0.4);
  });
});
