/** Another link drawn into a rig somebody has edited: a whole rig comes out, whatever was added to it. */
import { describe, expect, it } from 'vitest';
import { EVERY_RIG } from '../../../tests/everyRig';
import { randomEdit } from '../../../tests/randomEdits';
import { checkRig } from '../rig/check';
import { seededRng } from '../units/rng';
import { candidatesOf } from './candidates';

describe('every candidate of an edited rig', () => {
  it.each(EVERY_RIG.filter((_, i) => i % 2 === 0))('of %s is a rig', (name, drawn) => {
    const rng = seededRng(name.length * 31);
    let rig = drawn;
    const done: string[] = [];
    for (let n = 0; n < 8; n++) {
      const edit = randomEdit(rig, rng);
      rig = edit.rig;
      done.push(edit.what);
      for (const c of candidatesOf(rig)) expect(checkRig(c.rig), `${c.id} after ${done.join(', ')}`).toEqual([]);
    }
  });
});
