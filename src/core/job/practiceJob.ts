/** A practice job, as its record has it: light, for a screen. */
import { USUAL_MOTORHOME } from '../rig/archetypes/motorhome';
import type { Rig } from '../rig/schema';
import type { OpenJob } from './openJob';
import { madeBy, presentVerdict, type Job } from './job';

/** Whether what was hidden has been put right: the fault repaired was the one. */
export function isMended(job: Job, rig: Rig): boolean {
  return (
    rig.practice !== undefined &&
    madeBy(job) === 'repair' &&
    job.verdicts.some((v) => !v.withdrawn && v.fault === rig.practice!.fault) &&
    presentVerdict(job) === undefined
  );
}

/** What is asked for to open one: the usual coach that does not charge on the road. */
export const practiceJob = (id: string): OpenJob => ({
  id,
  nickname: 'Practice coach',
  complaint: {
    codes: ['coach-not-charging'],
    words: 'Practice, no vehicle: the coach bank does not charge on the road.',
  },
  rig: { family: 'motorhome', choices: USUAL_MOTORHOME },
  practice: true,
});
