/** Jobs in the middle of an afternoon, for tests of what may be done to them next. */
import { demoJobs } from '../db/demo/jobs';
import { demoInstruments, demoUuid } from '../db/demo/shop';
import type { Command, CommandType, Payload } from '../src/core/job/command';
import { currentRevision, type Job } from '../src/core/job/job';
import { applyCommand } from '../src/core/job/applyCommand';
import { usualScenarios } from '../src/core/plan/usualScenarios';
import { insertFuse } from '../src/core/rig/insertFuse';
import { usualTow } from '../src/core/rules/tow/usual';

export const NOW = new Date('2026-11-24T16:00:00Z');
export const [done, open] = demoJobs(NOW) as [Job, Job];
let made = 0;
export const newId = () => demoUuid(`afternoon ${made++}`);
export const command = <T extends CommandType>(type: T, payload: Payload<T>): Command =>
  ({
    id: newId(),
    type,
    version: 1,
    baseSeq: 0,
    at: '2026-11-24T17:00:00Z',
    actor: 'Bay 2 technician',
    payload,
  }) as Command;
export const after = (job: Job, c: Command): Job => {
  const next = applyCommand(job, c);
  if (!next.ok) throw new Error(`${c.type}: ${next.error.found}, wanted ${next.error.wanted}`);
  return next.value;
};

export const declared = after(
  open,
  command('verdict.declare', {
    id: demoUuid('v'),
    fault: 'link.contact-open',
    name: 'n',
    repair: 'r',
    probability: 0.9,
    settled: true,
  }),
);
export const approved = after(
  declared,
  command('approval.record', {
    id: demoUuid('a'),
    verdict: demoUuid('v'),
    upTo: 200,
    currency: 'USD',
    who: 'owner',
    how: 'phone',
  }),
);
export const repaired = after(
  approved,
  command('repair.record', { id: demoUuid('r'), verdict: demoUuid('v'), revision: demoUuid('rev'), did: 'fitted' }),
);
/** Measured after its repair: what a signature may stand under. */
export const proved = after(
  repaired,
  command('reading.keep', {
    id: demoUuid('proving'),
    state: 'idle',
    probe: 'link.coil-plus',
    ref: 'frame.bay-2',
    status: 'measured',
    value: 13,
    unit: 'V',
    secondsInState: 60,
  }),
);
export const photo = { id: demoUuid('p'), sha256: 'a'.repeat(64), width: 10, height: 10, bytes: 100, caption: 'x' };
export const pictured = after(open, command('photo.keep', photo));
export const noted = after(open, command('note.add', { id: demoUuid('note'), text: 'hot' }));
export const probed = after(open, command('probe.add', { key: 'house.plus', name: 'House panel' }));
export const [meter, other] = demoInstruments(NOW) as [
  ReturnType<typeof demoInstruments>[0],
  ReturnType<typeof demoInstruments>[0],
];
export const doc = currentRevision(open).doc;
export const wire = doc.conductors.find((c) => c.id === 'boost-wire')!;
export const fused = insertFuse(
  doc,
  doc.conductors.find((c) => c.id === 'link-cable')!,
  'to',
  150,
  'terminal',
);
export const link = doc.parts.find((p) => p.id === 'link')!;
export const reading = open.readings[0]!;
export const trip = usualScenarios({}, 'coach-bank')[0]!;
export const pick = {
  id: demoUuid('pick'),
  candidate: 'dcdc-60',
  name: '60 A DC-DC charger',
  reasons: 'Fills the bank.',
  minutes: [60, 120] as [number, number],
  parts: [300, 500] as [number, number],
  revision: demoUuid('proposed'),
  doc,
};
export const picked = after(open, command('option.choose', pick));

export const checked = after(
  open,
  command('check.record', { id: demoUuid('check'), check: 'lights', result: 'fail', note: 'left signal dark' }),
);
export const BY = 'Bay 2 technician';
export const followUp = { id: demoUuid('follow'), due: '2027-05-01', what: 'Drop across the contact', by: BY };
export const hunt = { sleptMinutes: 40, amps: 0.31, circuits: [] };
export const waiver = {
  id: demoUuid('waiver'),
  rule: 'feed-look',
  at: 'dash-feed',
  reason: 'A fusible link, seen at the post.',
};
export const coupled = demoJobs(NOW).find((j) => currentRevision(j).doc.vehicles.length === 2)!;
export const towed = usualTow(currentRevision(coupled).doc)!;

/** The pick built: the rig itself is another. */
export const finishedBuild = after(
  picked,
  command('build.finish', { revision: pick.revision, built: demoUuid('built in the afternoon') }),
);
