/** What would change the verdict, in words: a reading from so much on, between two, or an answer; and how likely. */
import { beforeAll, describe, expect, it } from 'vitest';
import { exampleJob } from '../../../tests/answers';
import { jobPageOf, rendered } from '../../../tests/jobPage';
import type { ChangeOfMind } from '../../core/diagnose/diagnose';
import type { JobPage } from '../shell/jobPage';
import { ChangesMind } from './ChangesMind';

const reading: ChangeOfMind = {
  test: 'link.coil-minus~frame.bay-2',
  state: 'idle',
  name: 'Coil –',
  label: 'P11',
  unit: 'V',
  leader: 'Coil ground lost',
  chance: 0.12,
  minutes: 4.7,
};
let page: JobPage;
beforeAll(async () => {
  page = await jobPageOf(exampleJob('heron'), 'fault');
});
const text = (c: ChangeOfMind) => rendered(page, <ChangesMind changes={c} />).replace(/<[^>]*>/g, '');

describe('what would change it', () => {
  it('is said with its unit, on the side it lies', () => {
    expect(text({ ...reading, lo: 12.09 })).toContain('P11, coil –, engine idle: 12.09 V or more, twice');
    expect(text({ ...reading, hi: 0.4 })).toMatch(/: (400 mV|0\.400? V) or less, twice/);
    expect(text({ ...reading, lo: 11.7, hi: 12.5 })).toMatch(/: 11\.7\d?.*12\.5.* V, twice/);
    expect(text({ ...reading, lo: 12.09 })).toContain('Then “Coil ground lost” leads (12 % likely).');
  });

  it('of a question is the answer; what hardly ever happens is no nought', () => {
    const { label: _, unit: __, ...question } = reading;
    const said = text({ ...question, name: 'Charge lamp is lit', answer: 'Yes', chance: 0.0004 });
    expect(said).toContain('Charge lamp is lit: “Yes”. Then');
    expect(said).toContain('(less than 1 % likely)');
  });
});
