/**
 * The invented demo shop. Readings are what the core's own simulated meter shows on rigs that hide a fault,
 * from fixed seeds: nothing here was measured on anything real.
 */
import { compileRig } from '../../src/core/compile/compile';
import { HiddenRig } from '../../src/core/diagnose/hiddenRig';
import type { Job } from '../../src/core/job/jobSchema';
import { SCHEMA_VERSION } from '../../src/core/job/schemaVersion';
import { EMPTY_INTAKE, EMPTY_USAGE } from '../../src/core/job/job';
import { motorhome } from '../../src/core/rig/archetypes/motorhome';
import type { Rig } from '../../src/core/rig/schema';
import { usualScenarios } from '../../src/core/plan/usualScenarios';
import { fleetJobs } from './fleet';
import { BAY_METER, DEMO_PEOPLE, demoInstruments, demoUuid, REFERENCE, take, type Taken } from './shop';

/** The demo's coach, which the end-to-end tests measure too. */
export const heron = (): Rig => ({ ...motorhome('heron', 'Heron'), kind: '36-ft rear-engine diesel coach' });

/** Heron's present visit: coach bank not charging on the road, boost does nothing. A few readings are in. */
export function heronJob(now: Date): Job {
  const start = new Date(now.getTime() - 55 * 60_000);
  const doc = heron();
  const hidden = new HiddenRig(compileRig(doc), 'link.contact-open', 1042);
  const by = DEMO_PEOPLE[1].name;
  return {
    schemaVersion: SCHEMA_VERSION,
    number: 1042,
    rigId: 'heron',
    status: 'in-the-bay',
    complaint: {
      codes: ['coach-not-charging', 'boost-dead'],
      words: 'Coach bank not charging on the road. Boost does nothing.',
    },
    intake: {
      facts: ['suddenly', 'many-nights', 'stored-plugged-in'],
      usage: { driveHours: 5, nights: 4, storedMonths: 3 },
      told:
        'Serves as a bird-banding lab: fridge and freezer run all day, parked four days a week. ' +
        'Isolator looks original. Ran the generator twice a day to get through the last trip.',
    },
    cameBack: { job: 1009, warranty: false },
    bookings: [{ id: demoUuid('heron 1042 booking'), bay: 'Bay 2', start: atHour(now, 9), minutes: 300, by }],
    instruments: demoInstruments(now).slice(0, 1),
    meter: BAY_METER.id,
    rigState: { id: 'idle', since: new Date(now.getTime() - 4 * 60_000).toISOString() },
    blackLead: REFERENCE,
    revisions: [{ id: demoUuid('heron 1042 as-found'), kind: 'as-found', epoch: 0, at: start.toISOString(), doc }],
    readings: take(
      '1042',
      hidden,
      0,
      start,
      [
        { state: 'rested', probe: 'coach-bank.plus', minute: 12 },
        { state: 'rested', probe: 'chassis-bank.plus', minute: 14 },
        { state: 'idle', probe: 'alternator.output', minute: 47 },
        { state: 'idle', probe: 'chassis-bank.plus', minute: 49 },
        { state: 'idle', probe: 'coach-bank.plus', minute: 52 },
      ],
      by,
    ),
    observations: [
      {
        id: demoUuid('heron 1042 note 1'),
        epoch: 0,
        kind: 'note',
        text: 'No wedge under the boost switch, tray clean, all heavy lugs tight.',
        at: start.toISOString(),
        by,
      },
    ],
    verdicts: [],
    approvals: [],
    repairs: [],
    photos: [],
    usage: {
      scenarios: usualScenarios({ driveHours: 5, nights: 4, storedMonths: 3, storedPluggedIn: true }, 'coach-bank'),
    },
    choices: [],
  };
}

const DAY = 24 * 3600_000;
/** A day, and an hour of today by the clock of the record. */
const inDays = (now: Date, days: number): string => new Date(now.getTime() + days * DAY).toISOString().slice(0, 10);
/** An hour of today, or of Monday on a weekend: nobody books a bay for a day the shop is shut. */
export function atHour(now: Date, hour: number): string {
  const today = Math.floor(now.getTime() / DAY);
  const [SATURDAY, SUNDAY] = [6, 0];
  const weekday = now.getUTCDay();
  const later = weekday === SATURDAY ? 2 : weekday === SUNDAY ? 1 : 0;
  return new Date((today + later) * DAY + hour * 3600_000).toISOString();
}

/** An earlier visit of the same coach, finished: a ground joint cleaned and proven. */
// eslint-disable-next-line max-lines-per-function -- a document: one row an entry
export function heronEarlierJob(now: Date): Job {
  const start = new Date(now.getTime() - 190 * 24 * 3600_000);
  const doc = heron();
  const compiled = compileRig(doc);
  const sick = new HiddenRig(compiled, 'coach-negative.bad-joint', 1031);
  const well = new HiddenRig(compiled, 'nothing-wrong', 1031);
  const by = DEMO_PEOPLE[0].name;
  const verdict = demoUuid('heron 1009 verdict');
  const built = demoUuid('heron 1009 as-built');
  const found = demoUuid('heron 1009 as-found');
  const minute = (m: number) => new Date(start.getTime() + m * 60_000).toISOString();
  const told: Taken[] = [
    { state: 'rested', probe: 'coach-bank.plus', minute: 5 },
    { state: 'idle', probe: 'chassis-bank.plus', minute: 21 },
    { state: 'idle', probe: 'link.chassis-stud', ref: 'link.coach-stud', minute: 24 },
    { state: 'idle', probe: 'coach-bank.minus', minute: 28 },
    { state: 'idle', probe: 'coach-bank.minus', ref: 'house-frame.bay-1', minute: 30 },
  ];
  const proofs: Taken[] = [
    { state: 'idle', probe: 'coach-bank.minus', minute: 71 },
    { state: 'idle', probe: 'coach-bank.minus', ref: 'house-frame.bay-1', minute: 72 },
    { state: 'idle', probe: 'coach-bank.plus', minute: 73 },
    { state: 'idle', probe: 'link.chassis-stud', ref: 'link.coach-stud', minute: 75 },
    { state: 'boost-engine-off', probe: 'link.chassis-stud', ref: 'link.coach-stud', minute: 80 },
    { state: 'rested', probe: 'coach-bank.plus', minute: 86 },
    { state: 'rested', probe: 'link-cable.clamp', minute: 88 },
  ];
  return {
    schemaVersion: SCHEMA_VERSION,
    number: 1009,
    rigId: 'heron',
    status: 'done',
    complaint: { codes: ['coach-not-charging'], words: 'Coach bank charges slowly on the road.' },
    intake: { ...EMPTY_INTAKE, facts: ['slowly'] },
    followUps: [
      {
        id: demoUuid('heron 1009 torque'),
        due: inDays(now, -150),
        what: 'Re-torque the heavy studs',
        done: new Date(now.getTime() - 149 * DAY).toISOString(),
        by,
      },
      {
        id: demoUuid('heron 1009 yearly'),
        due: inDays(now, 175),
        what: 'Yearly drop across the contact, with its amps',
        by,
      },
    ],
    instruments: demoInstruments(start).slice(0, 1),
    rigState: { id: 'rested', since: minute(90) },
    blackLead: REFERENCE,
    revisions: [
      { id: found, kind: 'as-found', epoch: 0, at: minute(0), doc },
      { id: built, kind: 'as-built', parent: found, epoch: 1, at: minute(62), doc },
    ],
    readings: [...take('1009', sick, 0, start, told, by), ...take('1009', well, 1, start, proofs, by)],
    observations: [],
    verdicts: [
      {
        id: verdict,
        epoch: 0,
        fault: 'coach-negative.bad-joint',
        name: 'Coach ground joint bad',
        repair: 'Clean and remake the coach ground joint',
        probability: 0.98,
        settled: true,
        at: minute(33),
        by,
      },
    ],
    approvals: [
      {
        id: demoUuid('heron 1009 approval'),
        verdict,
        upTo: 220,
        currency: 'USD',
        who: 'the lab’s driver',
        how: 'phone',
        at: minute(40),
        by,
      },
    ],
    repairs: [
      {
        id: demoUuid('heron 1009 repair'),
        verdict,
        revision: built,
        did: 'Coach ground bolt cleaned to bright metal, new star washer, greased, torqued and marked.',
        at: minute(62),
        by,
      },
    ],
    photos: [],
    usage: EMPTY_USAGE,
    choices: [],
  };
}

export const demoJobs = (now: Date): Job[] => [heronEarlierJob(now), heronJob(now), ...fleetJobs(now)];
