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
import { afterAll, expect, it } from 'vitest';
import { spiceDeck, spiceName } from '../../src/core/circuit/deck';
import { emfAmps, kirchhoffResidual, resistorAmps } from '../../src/core/circuit/solve';
import { compileRig } from '../../src/core/compile/compile';
import { rigFaults } from '../../src/core/diagnose/faults';
import { RigModel } from '../../src/core/operate/settle';
import { STATE_IDS } from '../../src/core/operate/states';
import { rearEngineCoach } from '../../src/core/rig/archetypes/rearEngineCoach';
import { seededRng } from '../../src/core/units/rng';

const run = promisify(execFile);
const folder = mkdtempSync(join(tmpdir(), 'surrik-spice-'));
afterAll(() => rmSync(folder, { recursive: true, force: true }));

const compiled = compileRig(rearEngineCoach('ref', 'Reference coach'));
const faults = rigFaults(compiled.rig);
const model = new RigModel(compiled);
const probes = compiled.rig.probes
  .filter((p) => !p.key.endsWith('.clamp'))
  .map((p) => ({ name: spiceName(p.label), red: compiled.node.get(p.key)!, black: 0 }));

/** Runs a deck and returns its printed scalars, or undefined when ngspice found no operating point. */
async function ngspice(deck: string, name: string): Promise<Map<string, number> | undefined> {
  const file = join(folder, `${name}.cir`);
  writeFileSync(file, deck);
  const { stdout } = await run('ngspice', ['-b', file], { timeout: 30_000 }).catch((e: { stdout?: string }) => ({ stdout: e.stdout ?? '' }));
  const values = new Map<string, number>();
  for (const line of stdout.split('\n')) {
    const match = /^([a-z0-9_]+) = ([-+0-9.e]+)\s*$/i.exec(line);
    if (match) values.set(match[1]!, Number(match[2]));
  }
  return values.size > 0 ? values : undefined;
}

const near = (a: number, b: number, absolute: number) => Math.abs(a - b) <= Math.max(absolute, 1e-3 * Math.abs(b));

it('agrees with ngspice on 200 variants × states × faults: volts, amps, contact drop', { timeout: 300_000 }, async () => {
  const rng = seededRng(2026);
  let alone = 0;
  let compared = 0;
  const cases = Array.from({ length: 200 }, (_, n) => n);
  for (const n of cases) {
    const state = STATE_IDS[n % STATE_IDS.length]!;
    const fault = faults[n % faults.length]!;
    const z = Float64Array.from(compiled.params, () => rng.normal());
    expect(model.settle(state, { z, effects: fault.effects, severity: rng.uniform() }).solved).toBe(true);
    expect(kirchhoffResidual(model.solver, model.values)).toBeLessThan(1e-6);
    const ours = Float64Array.from(model.solver.volts);
    const amps = new Map<string, number>();
    compiled.topology.resistors.forEach((r, i) => {
      if (Number.isFinite(model.values.resistorOhms[i]!)) amps.set(`i_${spiceName(r.id)}`, resistorAmps(model.solver, model.values, i));
    });
    compiled.topology.emfs.forEach((e, i) => amps.set(`i_${spiceName(e.id)}`, emfAmps(model.solver, model.values, i)));
    const options = { title: `${state} ${fault.id}`, probes, volts: ours };
    const spice = await ngspice(spiceDeck(compiled.topology, model.values, options), `with${n}`);
    expect(spice, `${state} ${fault.id}: ngspice ran`).toBeDefined();
    for (const p of probes) expect(near(spice!.get(p.name)!, ours[p.red]!, 1e-3), `${state} ${fault.id} ${p.name}`).toBe(true);
    for (const [name, value] of amps) expect(near(spice!.get(name)!, value, 1e-3), `${state} ${fault.id} ${name}: ${spice!.get(name)} against ${value}`).toBe(true);
    const drop = ours[compiled.node.get('link.chassis-stud')!]! - ours[compiled.node.get('link.coach-stud')!]!;
    expect(Math.abs(spice!.get('p12')! - spice!.get('p9')! - drop), `${state} ${fault.id} contact drop`).toBeLessThan(5e-5);
    if (n % 4 === 0) {
      const free = await ngspice(spiceDeck(compiled.topology, model.values, { ...options, nodeset: false }), `free${n}`);
      compared++;
      if (!free) continue;
      alone++;
      for (const p of probes) expect(near(free.get(p.name)!, ours[p.red]!, 1e-3), `${state} ${fault.id} ${p.name} without nodeset`).toBe(true);
    }
  }
  // ngspice's own Newton cycles on some corners; where it gets there by itself it must get to the same place.
  expect(alone / compared).toBeGreaterThan(0.4);
});
