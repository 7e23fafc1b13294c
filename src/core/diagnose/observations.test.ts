import { beforeAll, describe, expect, it } from 'vitest';
import { compileRig } from '../compile/compile';
import { LINK_CHOICES } from '../rig/archetypes/choices';
import { motorhome, USUAL_MOTORHOME } from '../rig/archetypes/motorhome';
import { Belief } from './belief';
import { diagnose } from './diagnose';
import { OBSERVATIONS, observationsOf } from './observations';

const compiled = compileRig(motorhome('test', 'Test coach'));
let belief: Belief;
beforeAll(() => {
  belief = new Belief(compiled, ['coach-not-charging', 'boost-dead']);
});
const share = (fault: string) => belief.probability[belief.faults.findIndex((f) => f.id === fault)]!;
const seen = (...list: [what: string, answer: boolean][]) => belief.setEvidence([], list.map(([what, answer], i) => ({ id: `o${i}`, what, answer })));

describe('what is seen and heard', () => {
  it('is about elements and parts the rig has, whatever the link', () => {
    for (const { id: link } of LINK_CHOICES) {
      const rig = compileRig(motorhome('t', 'T', { ...USUAL_MOTORHOME, link, boost: link !== 'diode' }));
      for (const o of observationsOf(rig.rig)) {
        if ('closes' in o.about) expect(rig.controllers.some((c) => 'closes' in o.about && c.part === o.about.closes), `${link}: ${o.id}`).toBe(true);
        else expect(rig.rule.has(o.about.element), `${link}: ${o.id}`).toBe(true);
      }
    }
    for (const o of OBSERVATIONS) expect(o.yesIfSo).toBeGreaterThan(o.yesIfNot);
  });

  it('a click clears what keeps the coil dead, and leaves a burnt contact', () => {
    seen();
    const before = { coil: share('link.coil-open'), contact: share('link.contact-open') };
    seen(['click-boost', true]);
    expect(share('link.coil-open')).toBeLessThan(before.coil / 5);
    expect(share('link.contact-open')).toBeGreaterThan(before.contact);
    seen(['click-boost', false]);
    expect(share('link.coil-open')).toBeGreaterThan(before.coil);
  });

  it('counts once a question, is undone by taking it back, and stays a probability', () => {
    seen();
    const before = Float64Array.from(belief.probability);
    seen(['click-boost', true], ['wedge', false], ['link-fuse-seen-blown', true]);
    expect(belief.probability.reduce((s, p) => s + p, 0)).toBeCloseTo(1, 9);
    expect(share('link-fuse.open')).toBeGreaterThan(0.5);
    seen();
    belief.probability.forEach((p, i) => expect(p).toBeCloseTo(before[i]!, 9));
  });

  it('speaks for and against suspects by the odds it moves them', () => {
    seen(['link-fuse-seen-blown', true]);
    const { suspects } = diagnose(belief, { state: 'idle' });
    const fuse = suspects.find((s) => s.fault === 'link-fuse.open')!;
    expect(fuse.for[0]).toMatchObject({ answer: true, strength: 'strong' });
    // Bayes with a factor of 0.95 to 0.01 on everything else.
    expect(fuse.for[0]!.logOdds).toBeCloseTo(Math.log(95), 6);
    expect(suspects.find((s) => s.fault === 'link.contact-open')!.against[0]!.answer).toBe(true);
  });

  it('that no question of this rig is about is left out', () => {
    seen(['moonlight', true]);
    expect(belief.observed).toEqual([]);
  });
});
