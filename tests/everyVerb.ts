/** Every verb asked of one rig: an answer, or an error that says what is wrong; anything else is a fault of ours. */
import { SIZE_VERBS } from '../src/cli/sizeVerbs';
import { TIME_VERBS } from '../src/cli/timeVerbs';
import { BadInput } from '../src/cli/verb';
import { VERBS } from '../src/cli/verbs';
import { currentRevision, type Job } from '../src/core/job/job';
import { statesOf } from '../src/core/operate/states';
import type { Rig } from '../src/core/rig/schema';
import { NoOperatingPoint } from '../src/core/simulate/simulate';

/** A job about this rig, with nothing measured and nothing decided. */
export function jobAbout(like: Job, rig: Rig): Job {
  const revision = { ...currentRevision(like), doc: rig };
  const { usage: _, ...rest } = like;
  return {
    ...rest,
    revisions: [{ ...like.revisions[0]!, doc: rig, id: revision.id, epoch: 1 }],
    readings: [],
    observations: [],
    verdicts: [],
    approvals: [],
    repairs: [],
    photos: [],
    choices: [],
    waivers: [],
    usage: { scenarios: [] },
    rigState: { ...like.rigState, id: 'rested' },
    blackLead: undefined as never,
  } as Job;
}

/** What of it went wrong, by verb and in words; empty where every one answered or refused in its own words. */
export function askEveryVerb(job: Job, rig: Rig, heavy: boolean, everything = false): { verb: string; says: string }[] {
  const wrong: { verb: string; says: string }[] = [];
  const revision = currentRevision(job);
  const states = statesOf(rig).map((s) => s.id);
  const ask = (verb: string, run: () => unknown) => {
    try {
      const answer = run();
      const text = typeof answer === 'string' ? answer : JSON.stringify(answer);
      if (/NaN|"Infinity"|undefined/.test(text))
        wrong.push({ verb, says: `an answer with ${/NaN|"Infinity"|undefined/.exec(text)![0]}` });
    } catch (e) {
      if (e instanceof BadInput || e instanceof NoOperatingPoint) return;
      wrong.push({
        verb,
        says: e instanceof Error ? `${e.message} ${e.stack?.split('\n')[1]?.trim() ?? ''}` : String(e),
      });
    }
  };
  const all = { ...VERBS, ...TIME_VERBS, ...SIZE_VERBS };
  const run = (verb: string, options: Record<string, string> = {}) =>
    ask(verb, () => all[verb]!.run({ job, revision, options }));
  for (const state of states) run('solve', { state });
  run('netlist', { state: states[0]! });
  run('size');
  run('check');
  if (!heavy) return wrong;
  run('predict');
  run('simulate');
  if (!everything) return wrong;
  run('diagnose');
  run('compare');
  return wrong;
}
