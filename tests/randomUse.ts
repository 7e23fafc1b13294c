/** Rigs and uses drawn at random within what the documents take: any family, any link, any bank, some edits, any legs. */
import {
  CHARGER_CHOICES,
  CHEMISTRY_CHOICES,
  DISCONNECT_CHOICES,
  LINK_CHOICES,
} from '../src/core/rig/archetypes/choices';
import type { BankChoice } from '../src/core/rig/archetypes/choicesSchema';
import { coupledRig, USUAL_COUPLED } from '../src/core/rig/archetypes/coupled';
import { COUPLED_FAMILIES, linksFor } from '../src/core/rig/archetypes/coupledChoices';
import { motorhome, USUAL_MOTORHOME } from '../src/core/rig/archetypes/motorhome';
import { partsWith } from '../src/core/rig/value';
import type { Rig } from '../src/core/rig/schema';
import { LEG_KINDS, type Leg, type Scenario } from '../src/core/simulate/scenarioSchema';
import { LOAD_IDS } from '../src/core/simulate/loadTable';
import { seededRng, type Rng } from '../src/core/units/rng';
import { ENABLE_SCHOOLS } from '../src/core/parts/enableSchools';
import { randomEdit } from './randomEdits';

const pick = <T>(rng: Rng, list: readonly T[]): T =>
  list[Math.min(list.length - 1, Math.floor(rng.uniform() * list.length))]!;
const chance = (rng: Rng, share: number): boolean => rng.uniform() < share;

const randomBank = (rng: Rng, like: BankChoice): BankChoice => ({
  ...like,
  chemistry: pick(rng, CHEMISTRY_CHOICES).id,
  capacity: Math.round(like.capacity * 4 ** (2 * rng.uniform() - 1)),
});

function randomDrawn(rng: Rng): Rig {
  if (chance(rng, 0.4)) {
    const usual = USUAL_MOTORHOME;
    return motorhome('t', 'T', {
      ...usual,
      engineAt: chance(rng, 0.5) ? 'rear' : 'front',
      nominalVolts: chance(rng, 0.8) ? 12 : 24,
      link: pick(rng, LINK_CHOICES).id,
      dcdcAmps: pick(rng, [10, 20, 30, 40, 60]),
      boost: chance(rng, 0.7),
      bypass: chance(rng, 0.3),
      disconnect: pick(rng, DISCONNECT_CHOICES).id,
      senseAt: chance(rng, 0.7) ? 'bank' : 'behind-disconnect',
      charger: pick(rng, CHARGER_CHOICES).id,
      chargerAmps: pick(rng, [15, 45, 80, 120]),
      secondCharger: chance(rng, 0.2),
      solar: chance(rng, 0.5),
      generator: chance(rng, 0.5),
      chassis: randomBank(rng, usual.chassis),
      coach: randomBank(rng, usual.coach),
      alternatorAmps: pick(rng, [60, 100, 160, 240]),
    });
  }
  const family = pick(rng, COUPLED_FAMILIES).id;
  const usual = USUAL_COUPLED[family];
  return coupledRig('t', 'T', {
    ...usual,
    link: pick(rng, linksFor(family)).id,
    smart: chance(rng, 0.4),
    feed: chance(rng, 0.5) ? 'constant' : 'ignition',
    enable: pick(rng, ENABLE_SCHOOLS).id,
    start: randomBank(rng, usual.start),
    behind: family === 'trailer-48' ? usual.behind : randomBank(rng, usual.behind),
    ...(usual.accessory ? { accessory: randomBank(rng, usual.accessory) } : {}),
    shore: chance(rng, 0.6),
    solar: chance(rng, 0.5),
    fridge: chance(rng, 0.5),
    alternatorAmps: pick(rng, [60, 100, 160, 240]),
  });
}

function randomLeg(rng: Rng, n: number): Leg {
  const kind = pick(rng, LEG_KINDS);
  return {
    id: `leg-${n}`,
    name: `Leg ${n}`,
    kind,
    hours: 0.1 + 48 * rng.uniform() ** 3,
    ...(kind === 'drive' ? { idleShare: pick(rng, [0, 0.2, 0.5, 1]) } : {}),
    celsius: pick(rng, [-25, -2, 0, 5, 18, 30, 42]),
    sunHours: pick(rng, [0, 0, 2, 6]),
    loads: LOAD_IDS.filter(() => chance(rng, 0.3)),
    ...(chance(rng, 0.2) ? { moreAmps: 40 * rng.uniform() } : {}),
    disconnectOpen: chance(rng, 0.15),
    uncoupled: chance(rng, 0.1),
    boostWedged: chance(rng, 0.15),
    fridgeOnBattery: chance(rng, 0.5),
    held: chance(rng, 0.1),
    lampsOn: chance(rng, 0.3),
  };
}

/** One rig with up to five edits, and one use of it; the same for the same seed. */
export function randomRun(seed: number): { rig: Rig; use: Scenario } {
  const rng = seededRng(seed);
  let rig = randomDrawn(rng);
  const edits = Math.floor(6 * rng.uniform());
  for (let k = 0; k < edits; k++) rig = randomEdit(rig, rng).rig;
  const legs = Array.from({ length: 1 + Math.floor(4 * rng.uniform()) }, (_, k) => randomLeg(rng, k + 1));
  const startSoc = Object.fromEntries(partsWith(rig, 'battery').map((p) => [p.id, rng.uniform()]));
  return { rig, use: { id: 'use', name: 'Use', startHour: 24 * rng.uniform(), startSoc, legs } };
}
