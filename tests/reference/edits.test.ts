/**
 * Whatever somebody makes of a rig, by edits that are legal, every verb answers or refuses in its own words. A short
 * walk here on every family; ten thousand edits in `./surrik trials edits`.
 */
import { describe, expect, it } from 'vitest';
import { seededRng } from '../../src/core/units/rng';
import { exampleJob } from '../answers';
import { EVERY_RIG } from '../everyRig';
import { askEveryVerb, jobAbout } from '../everyVerb';
import { randomEdit } from '../randomEdits';

describe('random legal edits', () => {
  const like = exampleJob('heron');
  it.each(EVERY_RIG.filter((_, i) => i % 6 === 1))('of %s leave every verb an answer or a refusal', (name, drawn) => {
    const rng = seededRng(20261129 + name.length);
    let rig = drawn;
    const done: string[] = [];
    for (let n = 0; n < 4; n++) {
      const { rig: next, what } = randomEdit(rig, rng);
      rig = next;
      done.push(what);
      expect(askEveryVerb(jobAbout(like, rig), rig, n === 3), done.join(', ')).toEqual([]);
    }
  });
});
