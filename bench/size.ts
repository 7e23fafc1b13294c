/** `./surrik bench size`: how long sizing and all rules take after an edit, on a warm process; median and worst of nine. */
import { checkDesign } from '../src/core/rules/check';
import { coupledRig, USUAL_COUPLED } from '../src/core/rig/archetypes/coupled';
import { motorhome, USUAL_MOTORHOME } from '../src/core/rig/archetypes/motorhome';
import { buildPlan } from '../src/core/plan/build/build';
import { candidatesOf } from '../src/core/plan/candidates';
import { usualScenarios } from '../src/core/plan/usualScenarios';
import { auditTow } from '../src/core/rules/tow/audit';
import { usualTow } from '../src/core/rules/tow/usual';
import { towVehicle } from '../src/core/compile/tow/vehicle';
import { sizeRig } from '../src/core/size/sizing';

const use = usualScenarios({}, 'coach-bank');
for (const [name, rig] of [
  ['motorhome, delay module', motorhome('m', 'M')],
  ['motorhome, DC-DC charger', motorhome('m', 'M', { ...USUAL_MOTORHOME, link: 'dcdc' })],
  ['trailer, DC-DC charger', coupledRig('t', 'T', { ...USUAL_COUPLED.trailer, link: 'dcdc' })],
  ['48 V trailer', coupledRig('t', 'T', USUAL_COUPLED['trailer-48'])],
] as const) {
  const times: number[] = [];
  for (let k = 0; k < 12; k++) {
    // An edit each time: nothing can be kept from the last.
    const edited = {
      ...rig,
      conductors: rig.conductors.map((c, i) =>
        i === k % rig.conductors.length ? { ...c, length: c.length * 1.01 } : c,
      ),
    };
    const t = performance.now();
    checkDesign(edited, sizeRig(edited, use));
    if (k >= 3) times.push(performance.now() - t);
  }
  times.sort((a, b) => a - b);
  console.log(
    `sizing and all rules after an edit, ${name}: median ${times[4]!.toFixed(0)} ms, worst of nine ${times[8]!.toFixed(0)} (reach 100)`,
  );
}

// The tow audit: every situation solved, every trouble looked for, the smallest changes searched.
for (const [name, family, link, wrong] of [
  ['trailer, thin line', 'trailer', 'thin-line', 0],
  ['van with a second battery, chained', 'second-battery', 'chained', 0],
  ['camper, DC-DC charger, three things wrong', 'camper', 'dcdc', 3],
] as const) {
  const rig = coupledRig('t', 'T', { ...USUAL_COUPLED[family], link });
  const tow = structuredClone(usualTow(rig)!);
  const vehicle = towVehicle(rig)!;
  const powered = tow.plugs
    .flatMap((p) => p.ways)
    .filter((w) => w.uses.includes('fridge') || w.uses.includes('breakaway') || w.uses.includes('brakes'));
  for (let k = 0; k < wrong; k++)
    Object.assign(powered[k % powered.length]!, [{ feed: 'none' }, { fuse: 0 }, { feed: 'constant' }][k]!);
  const times: number[] = [];
  for (let k = 0; k < 12; k++) {
    const t = performance.now();
    auditTow(tow, vehicle);
    if (k >= 3) times.push(performance.now() - t);
  }
  times.sort((a, b) => a - b);
  console.log(
    `tow audit with its search, ${name}: median ${times[4]!.toFixed(0)} ms, worst of nine ${times[8]!.toFixed(0)} (reach 300)`,
  );
}

// The plan of a build, made anew.
for (const { candidate, from } of [motorhome('m', 'M'), coupledRig('t', 'T', USUAL_COUPLED['second-battery'])].flatMap(
  (rig) =>
    candidatesOf(rig)
      .slice(-1)
      .map((c) => ({ candidate: c, from: rig })),
)) {
  const times: number[] = [];
  let steps = 0;
  for (let k = 0; k < 12; k++) {
    const t = performance.now();
    steps = buildPlan(from, candidate.rig).steps.length;
    if (k >= 3) times.push(performance.now() - t);
  }
  times.sort((a, b) => a - b);
  console.log(
    `plan of a build, ${candidate.name}, ${steps} steps: median ` +
      `${times[4]!.toFixed(1)} ms, worst of nine ${times[8]!.toFixed(1)} (reach 200)`,
  );
}
