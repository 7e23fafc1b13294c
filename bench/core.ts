/**
 * The core's half of `./surrik bench`: speed as ratios, same run, same work. The DC solve against ngspice's own sweep of the
 * same deck (start-up excluded by the difference of a long and a short sweep), and the times a person waits.
 */
import { execFileSync } from 'node:child_process';
import { mkdtempSync, readFileSync, rmSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { spiceDeck } from '../src/core/circuit/deck';
import { compileRig } from '../src/core/compile/compile';
import { Belief, type Evidence } from '../src/core/diagnose/belief';
import { diagnose } from '../src/core/diagnose/diagnose';
import { HiddenRig } from '../src/core/diagnose/hiddenRig';
import { RigModel } from '../src/core/operate/settle';
import { statesOf } from '../src/core/operate/states';
import { BandTable } from '../src/core/probe/bands';
import { rigMeasurements } from '../src/core/probe/measurement';
import { motorhome } from '../src/core/rig/archetypes/motorhome';
import { seededRng } from '../src/core/units/rng';

const compiled = compileRig(motorhome('bench', 'Bench coach'));
const folder = mkdtempSync(join(tmpdir(), 'surrik-bench-'));
const now = () => performance.now();
const quantile = (list: number[], q: number) => [...list].sort((a, b) => a - b)[Math.floor((list.length - 1) * q)]!;

const model = new RigModel(compiled);
model.settle('idle');
const probes = compiled.rig.probes.filter((p) => !p.key.endsWith('.clamp')).slice(0, 14);
const nodes = probes.map((p) => compiled.node.get(p.key)!);

/** µs a point of ngspice's own sweep: (long − short) / points, best of five. */
function spiceSweep(sweep: (points: number) => string, edit: (deck: string) => string): number {
  const time = (points: number) => {
    const base = spiceDeck(compiled.topology, model.values, { title: 'bench', probes: [], volts: model.solver.volts });
    const [head] = base.split('.control');
    const deck = `${edit(head!)}.save ${nodes.map((n) => `v(n${n})`).join(' ')}\n${sweep(points)}\n.end\n`;
    const file = join(folder, `sweep${points}.cir`);
    writeFileSync(file, deck);
    let best = Infinity;
    for (let k = 0; k < 5; k++) {
      const t = now();
      execFileSync('ngspice', ['-b', '-r', join(folder, 'out.raw'), file], { stdio: 'ignore' });
      best = Math.min(best, now() - t);
    }
    const rows = /No\. Points: (\d+)/.exec(readFileSync(join(folder, 'out.raw'), 'latin1'))?.[1];
    if (Number(rows) < points) throw new Error(`ngspice gave ${rows} of ${points} points`);
    return best;
  };
  const [few, many] = [2_000, 42_000];
  return ((time(many) - time(few)) / (many - few)) * 1000;
}

/** µs a point of our own sweep, 14 probes read each time, best of five. */
function ownSweep(points: number, step: (k: number, points: number) => void): number {
  let best = Infinity;
  let sink = 0;
  for (let round = 0; round < 5; round++) {
    const t = now();
    for (let k = 0; k < points; k++) {
      step(k, points);
      for (const n of nodes) sink += model.solver.volts[n]!;
    }
    best = Math.min(best, now() - t);
  }
  if (!Number.isFinite(sink)) throw new Error('the sweep left the rails');
  return (best / points) * 1000;
}

/** The upper half of the coach bank is swept: 5.75 to 6.5 V. */
const HALF_FROM = 5.75;
const HALF_TO = 6.5;
const emf = compiled.topology.emfs.findIndex((e) => e.id === 'coach-bank.emf');
const volts = model.values.emfVolts[emf]!;
const contact = compiled.resistor.get('link.contact')!;
const ohms = model.values.resistorOhms[contact]!;

model.solver.prepare(model.values);
let last = volts;
const source = ownSweep(40_000, (k, points) => {
  const v = HALF_FROM + ((HALF_TO - HALF_FROM) * k) / points;
  model.solver.shiftEmf(emf, v - last, model.values);
  last = v;
  model.solver.iterate(model.values);
});
const sourceSpice = spiceSweep(
  (n) => `.dc V_coach_bank_emf ${HALF_FROM} ${HALF_TO} ${(HALF_TO - HALF_FROM) / n}`,
  (d) => d,
);
const resistance = ownSweep(40_000, (k, points) => {
  model.values.resistorOhms[contact] = 0.0005 + (0.1 * k) / points;
  model.solver.solve(model.values);
});
model.values.resistorOhms[contact] = ohms;
const resistanceSpice = spiceSweep(
  (n) => `.dc R_link_contact 0.0005 0.1005 ${0.1 / n}`,
  (d) => d,
);
console.log(
  `DC solve, source swept:     ${source.toFixed(2)} µs a point, ngspice ` +
    `${sourceSpice.toFixed(2)}: ${(sourceSpice / source).toFixed(1)}× (reach 5×)`,
);
console.log(
  `DC solve, resistance swept: ${resistance.toFixed(2)} µs a point, ngspice ` +
    `${resistanceSpice.toFixed(2)}: ${(resistanceSpice / resistance).toFixed(1)}× (reach 1.5×)`,
);

const t0 = now();
const bands = new BandTable(compiled);
for (const { id } of statesOf(compiled.rig)) bands.band(id, bands.outputs[0]!.key);
console.log(`bands of all probes and states, 192 samples: ${(now() - t0).toFixed(0)} ms`);

const t1 = now();
const belief = new Belief(compiled, ['coach-not-charging', 'boost-dead']);
console.log(
  `belief made: ${(now() - t1).toFixed(0)} ms, ${belief.components.length} components over ${compiled.params.length} parameters`,
);
const measurements = rigMeasurements(compiled.rig);
const rng = seededRng(4);
const states = statesOf(compiled.rig);
const updates: number[] = [];
const answers: number[] = [];
for (let n = 0; n < 30; n++) {
  const fault = belief.faults[Math.floor(rng.uniform() * belief.faults.length)]!;
  const hidden = new HiddenRig(compiled, fault.id, 700 + n, { widen: 1.5 });
  const evidence: Evidence[] = [];
  for (let k = 0; k < 10; k++) {
    const m = measurements[Math.floor(rng.uniform() * measurements.length)]!;
    const state = states[Math.floor(rng.uniform() * states.length)]!.id;
    evidence.push({
      id: String(k),
      state,
      probe: m.red,
      ...(m.black === undefined ? {} : { ref: m.black }),
      value: hidden.read(state, m.red, m.black).value,
    });
    const a = now();
    belief.setEvidence(evidence);
    const b = now();
    diagnose(belief, { state });
    updates.push(b - a);
    answers.push(now() - b);
  }
}
console.log(
  `belief update: p50 ${quantile(updates, 0.5).toFixed(0)} ms, p95 ${quantile(updates, 0.95).toFixed(0)} ms (reach 150)`,
);
console.log(
  `next tests ranked, with every reading left out in turn: p50 ${quantile(answers, 0.5).toFixed(0)} ` +
    `ms, p95 ${quantile(answers, 0.95).toFixed(0)} ms (reach 200)`,
);
rmSync(folder, { recursive: true, force: true });
