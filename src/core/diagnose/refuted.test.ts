/** A suspect whose own test came out against it is no verdict, whatever the readings say. Common practice. */
import { describe, expect, it } from 'vitest';
import { compileRig } from '../compile/compile';
import { motorhome } from '../rig/archetypes/motorhome';
import { Belief } from './belief';
import { diagnose } from './diagnose';
import { bothOf } from './faults';
import { refutedBy } from './refuted';

const compiled = compileRig(motorhome('test', 'Test coach'));

const refuted = (fault: string, what: string, answer: string, beside?: string) => {
  const belief = new Belief(compiled, ['coach-short-life']);
  belief.setEvidence([], [{ id: 'q', what, answer }]);
  const of = (id: string) => belief.faults.find((f) => f.id === id)!;
  return refutedBy(belief, beside ? bothOf(of(beside), of(fault), 1) : of(fault));
};

describe('a suspect', () => {
  it.each([
    ['coach-bank.shorted-cell', 'load-test.coach-bank', 'passes', 'fails'],
    ['coach-bank.sulphated', 'load-test.coach-bank', 'passes', 'fails'],
    ['link.coil-open', 'coil-ohms.link', 'right', 'open'],
    ['coil-ground.ground-lost', 'continuity.coil-ground', 'good', 'open'],
  ])('%s is refuted by %s: %s, not by %s', (fault, test, against, for_) => {
    expect(refuted(fault, test, against)).toMatch(/load test|ohms/);
    expect(refuted(fault, test, for_)).toBeUndefined();
  });

  it('is refuted as one of two as well, and not by a test of something else', () => {
    expect(refuted('link.coil-open', 'coil-ohms.link', 'right', 'boost.fuse-blown')).toBeDefined();
    expect(refuted('link.contact-open', 'load-test.coach-bank', 'passes')).toBeUndefined();
  });

  it('is not refuted by a look that may well have missed it', () => {
    expect(refuted('link-cable.bad-lug', 'bad-end.link-cable', 'no')).toBeUndefined();
  });
});

it('a bank that passes its load test is not sold, however low it reads', () => {
  const belief = new Belief(compiled, ['coach-short-life']);
  const read = (state: string, probe: string, value: number) => ({
    id: `${state}/${probe}`,
    state,
    probe,
    ref: 'frame.bay-2',
    value,
    confirmed: true,
  });
  const evidence = [
    read('rested', 'coach-bank.plus', 10.33),
    read('rested', 'coach-bank.middle', 4.1),
    read('rested', 'boost.feed', 10.33),
    read('rested', 'boost.fused', 10.33),
    read('rested', 'coach-bank.minus', 0.01),
  ];
  const end = (answer: string) => {
    belief.setEvidence(evidence, [{ id: 'q', what: 'load-test.coach-bank', answer }]);
    return diagnose(belief, { state: 'rested' });
  };
  const bank = belief.faults.find((f) => f.id === 'coach-bank.shorted-cell')!.class;
  expect(end('fails').stop).toMatchObject({ reached: true, class: bank });
  const passed = end('passes');
  expect(passed.stop.reached).toBe(false);
});
