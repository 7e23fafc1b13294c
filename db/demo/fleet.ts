/**
 * The rest of the demo shop's fleet, each at a different stage: two coupled vehicles, a van, a clinic on 48 V.
 * Invented; readings come from the core's own meter on rigs that hide a fault.
 */
import { compileRig } from '../../src/core/compile/compile';
import { HiddenRig } from '../../src/core/diagnose/hiddenRig';
import { EMPTY_INTAKE } from '../../src/core/job/job';
import type { Intake, Job } from '../../src/core/job/jobSchema';
import { SCHEMA_VERSION } from '../../src/core/job/schemaVersion';
import { coupledRig, USUAL_COUPLED } from '../../src/core/rig/archetypes/coupled';
import { motorhome, USUAL_MOTORHOME } from '../../src/core/rig/archetypes/motorhome';
import type { Rig } from '../../src/core/rig/schema';
import type { Leg, Scenario } from '../../src/core/simulate/scenarioSchema';
import { BAY_METER, DEMO_PEOPLE, demoInstruments, demoUuid, take, type Taken } from './shop';

const leg = (id: string, name: string, kind: Leg['kind'], hours: number, more: Partial<Leg> = {}): Leg => ({
  id,
  name,
  kind,
  hours,
  celsius: 15,
  sunHours: 0,
  loads: ['standby'],
  ...more,
});

interface Visit {
  number: number;
  nickname: string;
  status: Job['status'];
  rig: Rig;
  complaint: Job['complaint'];
  intake?: Partial<Intake>;
  truth: string;
  seed: number;
  taken: readonly Taken[];
  state: string;
  scenarios: Scenario[];
  hoursAgo: number;
}

function visit(now: Date, v: Visit): Job {
  const start = new Date(now.getTime() - v.hoursAgo * 3600_000);
  const hidden = new HiddenRig(compileRig(v.rig), v.truth, v.seed);
  const reference = `${v.rig.reference.part}.${v.rig.reference.terminal}`;
  return {
    schemaVersion: SCHEMA_VERSION,
    number: v.number,
    rigId: v.rig.id,
    status: v.status,
    complaint: v.complaint,
    intake: { ...EMPTY_INTAKE, ...v.intake },
    instruments: demoInstruments(now).slice(0, 1),
    meter: BAY_METER.id,
    rigState: { id: v.state, since: new Date(start.getTime() + 40 * 60_000).toISOString() },
    blackLead: reference,
    revisions: [
      {
        id: demoUuid(`${v.nickname} ${v.number} as-found`),
        kind: 'as-found',
        epoch: 0,
        at: start.toISOString(),
        doc: v.rig,
      },
    ],
    readings: take(
      String(v.number),
      hidden,
      0,
      start,
      v.taken.map((t) => ({ ref: reference, ...t })),
      DEMO_PEOPLE[0].name,
    ),
    observations: [],
    verdicts: [],
    approvals: [],
    repairs: [],
    photos: [],
    usage: { scenarios: v.scenarios },
    choices: [],
  };
}

/** A truck and a puppet-theatre trailer: its bank arrives flat. */
const pika = (now: Date): Job =>
  visit(now, {
    number: 1043,
    nickname: 'Pika',
    status: 'in-the-bay',
    hoursAgo: 3,
    truth: 'line.bad-lug',
    seed: 1043,
    state: 'idle',
    rig: coupledRig('pika', 'Pika', { ...USUAL_COUPLED.trailer, solar: true }),
    complaint: { codes: ['coach-not-charging'], words: 'Trailer bank arrives flat after a day’s drive.' },
    intake: {
      facts: ['slowly'],
      usage: { driveHours: 6, nights: 1 },
      told: 'Puppet theatre: sets up at noon, plays till ten, drives on. Lights and sound run off the trailer bank.',
    },
    taken: [
      { state: 'rested', probe: 'coach-bank.plus', minute: 8 },
      { state: 'idle', probe: 'connector.front', minute: 24 },
      { state: 'idle', probe: 'coach-bank.plus', minute: 27 },
    ],
    scenarios: [
      {
        id: 'tour',
        name: 'Tour day',
        startHour: 6,
        startSoc: { 'coach-bank': 0.5 },
        legs: [
          leg('drive', 'Drive to the square', 'drive', 6, { idleShare: 0.2, sunHours: 3 }),
          leg('show', 'Set up and play', 'stand', 10, {
            loads: ['standby', 'lights', 'screens'],
            moreAmps: 4,
            sunHours: 3,
          }),
          leg('night', 'Night', 'stand', 8, { celsius: 8, loads: ['standby', 'fridge-compressor'] }),
          leg('on', 'Drive on', 'drive', 6, { idleShare: 0.2, sunHours: 3 }),
        ],
      },
    ],
  });

/** A gas motorhome flat-towing a survey hatchback: the car is dead on arrival. */
const dipper = (now: Date): Job =>
  visit(now, {
    number: 1044,
    nickname: 'Dipper',
    status: 'waiting',
    hoursAgo: 26,
    truth: 'nothing-wrong',
    seed: 1044,
    state: 'rested',
    rig: coupledRig('dipper', 'Dipper', { ...USUAL_COUPLED['towed-car'], link: 'diode-lamp', feed: 'constant' }),
    complaint: { codes: ['chassis-flat'], words: 'The towed car will not start when they arrive.' },
    intake: {
      usage: { driveHours: 8 },
      told: 'Survey crew: tows all day with the car’s ignition in accessory and the supplemental brake on.',
    },
    taken: [],
    scenarios: [
      {
        id: 'tow',
        name: 'A day’s tow',
        startHour: 7,
        startSoc: { 'coach-bank': 0.85 },
        legs: [
          leg('tow', 'Tow', 'drive', 8, { idleShare: 0.1, loads: [] }),
          leg('camp', 'Night coupled', 'stand', 12, { loads: [] }),
          leg('back', 'Tow back', 'drive', 8, { idleShare: 0.1, loads: [] }),
        ],
      },
    ],
  });

/** A van with an accessory battery towing a two-horse trailer with a three-way fridge: everything cuts out. */
const marmot = (now: Date): Job =>
  visit(now, {
    number: 1045,
    nickname: 'Marmot',
    status: 'in-the-bay',
    hoursAgo: 5,
    truth: 'nothing-wrong',
    seed: 1045,
    state: 'idle',
    rig: coupledRig('marmot', 'Marmot', { ...USUAL_COUPLED['second-battery'], alternatorAmps: 180 }),
    complaint: { codes: ['coach-not-charging'], words: 'Under way everything cuts out again and again.' },
    intake: {
      usage: { driveHours: 4, nights: 2 },
      told: 'Two chargers one after the other, fridge on the trailer set to 12 V.',
    },
    taken: [
      { state: 'rested', probe: 'accessory-bank.plus', minute: 6 },
      { state: 'idle', probe: 'accessory-bank.plus', minute: 21 },
      { state: 'idle', probe: 'dcdc.input', minute: 24 },
    ],
    scenarios: [
      {
        id: 'show',
        name: 'To the show',
        startHour: 5,
        startSoc: { 'coach-bank': 0.4, 'accessory-bank': 0.6 },
        legs: [
          leg('drive', 'Drive, fridge on 12 V', 'drive', 4, { idleShare: 0.15, fridgeOnBattery: true }),
          leg('stay', 'Two days at the show', 'stand', 40, { loads: ['standby', 'lights'] }),
          leg('home', 'Drive home', 'drive', 4, { idleShare: 0.15, fridgeOnBattery: true }),
        ],
      },
    ],
  });

/** A truck and a 48 V mobile-clinic trailer. */
const osprey = (now: Date): Job =>
  visit(now, {
    number: 1046,
    nickname: 'Osprey',
    status: 'waiting-approval',
    hoursAgo: 50,
    truth: 'nothing-wrong',
    seed: 1046,
    state: 'rested',
    rig: coupledRig('osprey', 'Osprey', { ...USUAL_COUPLED['trailer-48'], dcdcAmps: 8 }),
    complaint: {
      codes: ['coach-not-charging'],
      words: 'Clinic days run the 48 V bank down faster than the road puts it back.',
    },
    intake: {
      usage: { driveHours: 1.5, nights: 3 },
      told: 'Mobile clinic: an hour and a half between villages, vaccine fridge all day, clinic lights and computers from nine to five.',
    },
    taken: [{ state: 'rested', probe: 'coach-bank.plus', minute: 12 }],
    scenarios: [
      {
        id: 'round',
        name: 'Clinic round',
        startHour: 6,
        startSoc: { 'coach-bank': 0.9 },
        legs: [1, 2, 3]
          .flatMap((day) => [
            leg(`out-${day}`, day === 1 ? 'Drive out' : 'Drive on', 'drive', 1.5, { idleShare: 0.1, sunHours: 4 }),
            leg(`day-${day}`, `Clinic day ${day}`, 'stand', 9, {
              loads: ['standby', 'fridge-residential', 'screens', 'lights'],
              moreAmps: 0.3,
              sunHours: 4,
            }),
            leg(`night-${day}`, `Night ${day}`, 'stand', 13.5, { loads: ['standby', 'fridge-residential'] }),
          ])
          .concat(leg('home', 'Drive home', 'drive', 1.5, { idleShare: 0.1, sunHours: 4 })),
      },
    ],
  });

/** A van with an LFP bank on a plain solenoid: is the alternator safe? */
const wren = (now: Date): Job =>
  visit(now, {
    number: 1047,
    nickname: 'Wren',
    status: 'in-the-bay',
    hoursAgo: 1.5,
    truth: 'nothing-wrong',
    seed: 1047,
    state: 'idle',
    rig: {
      ...motorhome('wren', 'Wren', {
        ...USUAL_MOTORHOME,
        engineAt: 'front',
        length: 6.4,
        boost: false,
        disconnect: 'none',
        alternatorAmps: 180,
        solar: true,
        chassis: { chemistry: 'agm', layout: 'single', capacity: 95 },
        coach: { chemistry: 'lfp', layout: 'parallel', capacity: 400 },
      }),
      kind: 'Van with an LFP bank',
    },
    complaint: { codes: ['coach-not-charging'], words: 'Lithium bank on a plain solenoid: is the alternator safe?' },
    intake: {
      usage: { driveHours: 3, nights: 3, storedMonths: 2 },
      told: 'Fitted lithium last winter, left the old isolator in.',
    },
    taken: [
      { state: 'idle', probe: 'alternator.output', minute: 10 },
      { state: 'idle', probe: 'link-cable.clamp', minute: 13 },
    ],
    scenarios: [
      {
        id: 'weekend',
        name: 'Weekend',
        startHour: 18,
        startSoc: { 'coach-bank': 0.17 },
        legs: [
          leg('idle', 'An hour at idle', 'idle', 1),
          leg('drive', 'Drive out', 'drive', 3, { idleShare: 0.2, sunHours: 3 }),
          leg('camp', 'Two days off grid', 'stand', 48, {
            celsius: 10,
            sunHours: 3,
            loads: ['standby', 'fridge-compressor', 'lights'],
          }),
          leg('home', 'Drive home', 'drive', 3, { idleShare: 0.2, sunHours: 3 }),
        ],
      },
    ],
  });

export const fleetJobs = (now: Date): Job[] => [pika(now), dipper(now), marmot(now), osprey(now), wren(now)];
