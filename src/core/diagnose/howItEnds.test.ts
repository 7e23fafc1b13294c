/** How a round ends: by proof for a sound rig, by the direct test for a fault, never over a reading that does not fit. */
import { describe, expect, it } from 'vitest';
import { compileRig } from '../compile/compile';
import { operatingState } from '../operate/states';
import { measurementId, rigMeasurements } from '../probe/measurement';
import { coupledRig, USUAL_COUPLED } from '../rig/archetypes/coupled';
import { motorhome, USUAL_MOTORHOME } from '../rig/archetypes/motorhome';
import { Belief, type Evidence } from './belief';
import { diagnose, type Diagnosis } from './diagnose';
import { directTests } from './directTest';
import { HiddenRig } from './hiddenRig';
import type { IntakeClue } from './intake';
import type { Circumstances } from './nextTest';
import type { Observed } from './observations';
import { statesOfComplaints, statesToSee } from './complaintStates';
import { sidesUnread, unproved } from './proof';
import { againstSound, seemsSound } from './soundness';

const compiled = compileRig(motorhome('test', 'Test coach'));
const measurements = rigMeasurements(compiled.rig);
const BOLT = 'frame.bay-2';

/** Walks a round by what is asked, on a rig that hides a fault. */
function walk(
  fault: string,
  complaints: readonly IntakeClue[],
  seed: number,
  spoil?: (e: Evidence, n: number) => number,
) {
  const belief = new Belief(compiled, complaints);
  const hidden = new HiddenRig(compiled, fault, seed);
  const evidence: Evidence[] = [];
  const observed: Observed[] = [];
  const asked: string[] = [];
  let state = 'rested';
  let answer!: Diagnosis;
  for (let n = 0; n < 30; n++) {
    belief.setEvidence(evidence, observed);
    answer = diagnose(belief, { state });
    const [next] = answer.next;
    if (answer.stop.reached || !next) break;
    state = next.state;
    asked.push(`${next.state}/${next.test}`);
    const question = belief.questions.find((q) => q.id === next.test);
    if (question) {
      observed.push({ id: question.id, what: question.id, answer: hidden.answer(question) });
      continue;
    }
    const id = `${next.state}/${next.test}`;
    const at = evidence.findIndex((e) => e.id === id);
    const reading: Evidence = {
      id,
      state,
      probe: next.probe!,
      ...(next.ref === undefined ? {} : { ref: next.ref }),
      value: hidden.read(state, next.probe!, next.ref, at < 0 ? 0 : 1).value,
      ...(at < 0 ? {} : { confirmed: true }),
    };
    const value = spoil?.(reading, evidence.length) ?? reading.value;
    if (at < 0) evidence.push({ ...reading, value });
    else evidence[at] = reading;
  }
  belief.setEvidence(evidence, observed);
  return { belief, answer, asked, evidence, observed };
}

/** A sound rig of which every heavy point was read once, in three states. */
function everyPoint(seed: number) {
  const belief = new Belief(compiled, ['slow-charging']);
  const hidden = new HiddenRig(compiled, 'nothing-wrong', seed);
  const banks = ['coach-bank.plus', 'chassis-bank.plus', 'coach-bank.minus', 'coach-bank.middle'];
  const points = [
    ...banks,
    'link.chassis-stud',
    'link.coach-stud',
    'alternator.output',
    'boost.output',
    'ignition.run',
  ];
  const read = (state: string, probe: string, ref?: string): Evidence => ({
    id: `${state}/${probe}`,
    state,
    probe,
    ...(ref === undefined ? {} : { ref }),
    value: hidden.read(state, probe, ref, 1).value,
  });
  const evidence = ['idle', 'fast-idle', 'rested'].flatMap((state) => points.map((probe) => read(state, probe, BOLT)));
  evidence.push(read('idle', 'coach-negative.clamp'));
  belief.setEvidence(evidence);
  const classes = () =>
    [...belief.classes()]
      .map(([id, probability]) => ({ class: id, probability }))
      .sort((a, b) => b.probability - a.probability);
  return { belief, evidence, classes };
}

const now = (belief: Belief): Circumstances => ({
  state: 'idle',
  openPlaces: new Set(),
  done: new Set(belief.evidence.map((e) => `${e.state}/${measurementId(e.probe, e.ref)}`)),
});

describe('a sound rig', () => {
  it('ends as sound once it has shown that it does what the owner misses', () => {
    const { belief, answer } = walk('nothing-wrong', ['slow-charging'], 5);
    expect(answer.stop).toMatchObject({ reached: true, class: 'nothing-wrong' });
    // By hand: 125 of 146 found right, 126 of 148 claimed.
    expect(answer.sort).toMatchObject({ verdicts: 146, right: 125, share: 126 / 148 });
    expect(answer.classes[0]!.probability).toBeGreaterThanOrEqual(126 / 148 - 1e-9);
    expect(unproved(belief)).toEqual([]);
    const idle = belief.evidence.filter((e) => e.state === 'idle').flatMap((e) => [e.probe, e.ref]);
    for (const point of ['coach-bank.plus', 'chassis-bank.plus', 'coach-bank.minus']) expect(idle).toContain(point);
    expect(idle.some((p) => p?.endsWith('.clamp'))).toBe(true);
  });

  it('is not called sound over two flat banks before they were seen apart while one of them is worked', () => {
    // Equal volts at rest are what a cable left between two banks gives too. Common practice.
    const studs = 'link.chassis-stud~link.coach-stud';
    for (const complaint of ['both-flat', 'link-always-on'] as const) {
      const { belief, answer, evidence } = walk('nothing-wrong', [complaint], 31);
      if (!answer.stop.reached || answer.stop.class !== 'nothing-wrong')
        throw new Error(`${complaint}: not ended as sound`);
      const apart = evidence.find((e) => `${e.probe}~${e.ref}` === studs && e.state !== 'rested');
      expect(apart, complaint).toBeDefined();
      expect(Math.abs(apart!.value)).toBeGreaterThan(0.1);
      // Taken away, it is owed again; and one that shows them joined stands against a sound rig.
      belief.setEvidence(evidence.filter((e) => e !== apart));
      expect(unproved(belief).map((u) => u.test)).toContain(studs);
      belief.setEvidence(evidence.map((e) => (e === apart ? { ...e, value: 0, confirmed: true } : e)));
      expect(diagnose(belief, { state: 'rested' }).stop.class).not.toBe('nothing-wrong');
    }
  });

  it('over a flat starting battery is seen charged too: at idle, and faster with the drop to its post where that is low', () => {
    // Common practice: what is flat was emptied, or never filled; 13.1 V with the engine running is the least.
    const belief = new Belief(compiled, ['chassis-flat']);
    const post = (state: string, value: number): Evidence => ({
      id: state,
      state,
      probe: 'chassis-bank.plus',
      ref: BOLT,
      value,
    });
    const owed = (...evidence: Evidence[]) => {
      belief.setEvidence(evidence);
      return unproved(belief).map((u) => `${u.state}/${u.test ?? u.points[0] ?? u.questions[0]}`);
    };
    expect(owed(post('rested', 12.5))).toContain('idle/chassis-bank.plus');
    const running = (...evidence: Evidence[]) => owed(...evidence).filter((o) => /^(fast-)?idle/.test(o));
    const ground = { ...post('idle', 0.02), id: 'ground', probe: 'chassis-bank.minus' };
    expect(running(post('rested', 12.5), post('idle', 13.6))).toEqual(['idle/chassis-bank.minus']);
    expect(running(post('rested', 12.5), post('idle', 13.6), ground)).toEqual([]);
    const low = owed(post('rested', 12.5), post('idle', 12.7));
    expect(low).toContain('fast-idle/chassis-bank.plus');
    expect(low.some((o) => o.startsWith('fast-idle/') && o.includes('alternator.output'))).toBe(true);
  });

  it('wants a clamp on the bank that is left alone: what lets amps through is no sound rig, however far apart the volts', () => {
    const { belief, answer, evidence } = walk('nothing-wrong', ['both-flat'], 31);
    expect(answer.stop.class).toBe('nothing-wrong');
    const alone = evidence.find((e) => e.state === 'shore' && e.probe === 'chassis-negative.clamp');
    expect(Math.abs(alone!.value)).toBeLessThan(2);
    belief.setEvidence(evidence.filter((e) => e !== alone));
    expect(unproved(belief)).toContainEqual(
      expect.objectContaining({ state: 'shore', points: ['chassis-negative.clamp'] }),
    );
    belief.setEvidence(evidence.map((e) => (e === alone ? { ...e, value: 9, confirmed: true } : e)));
    expect(diagnose(belief, { state: 'shore' }).stop.class).not.toBe('nothing-wrong');
  });

  it('is not one whose parked battery climbs with the bank on shore: something joins them that is not drawn', () => {
    // Common practice, no source: a battery nothing charges stays where it stands. No clamp reaches a tow vehicle's.
    const trailer = compileRig(coupledRig('t', 'T', { ...USUAL_COUPLED.trailer, link: 'dcdc' }));
    const shares = (onShore: number) => {
      const belief = new Belief(trailer, ['both-flat']);
      const read = (state: string, probe: string, value: number): Evidence => ({
        id: `${state}/${probe}`,
        state,
        probe,
        ref: 'frame.front',
        value,
        confirmed: true,
      });
      belief.setEvidence([
        read('rested', 'chassis-bank.plus', 12.4),
        read('rested', 'link-fuse.source', 12.4),
        read('rested', 'coach-bank.plus', 12.3),
        read('shore', 'coach-bank.plus', 13.4),
        read('shore', 'chassis-bank.plus', onShore),
        read('shore', 'link-fuse.source', onShore),
      ]);
      return belief.classes();
    };
    expect(shares(12.42).get('nothing-wrong')).toBeGreaterThan(0.5);
    expect(shares(12.95).get('nothing-wrong')).toBeLessThan(0.05);
    expect(shares(12.95).get('not-on-list')).toBeGreaterThan(0.7);
  });

  it('is sound over a look that saw what the meter does not find, not over one nothing was measured of', () => {
    const { belief, evidence, classes } = everyPoint(5);
    expect(seemsSound(belief, classes())).toBe(true);
    // An end that looks bad, of a cable whose two ends were read: what it speaks for has hardly a share left.
    for (const what of ['bad-end.link-cable', 'bad-end.fuse-lead', 'bad-end.coach-negative']) {
      const look = { id: 'look', what, answer: 'yes' };
      expect(belief.questions.map((q) => q.id)).toContain(what);
      belief.setEvidence(evidence, [look]);
      expect(seemsSound(belief, classes()), what).toBe(true);
      belief.setEvidence([], [look]);
      expect(seemsSound(belief, classes()), what).toBe(false);
    }
  });

  it('is not sound with a load test failed, or with halves apart at rest: on a charger they may stand as they like', () => {
    const { belief, evidence, classes } = everyPoint(5);
    belief.setEvidence(evidence, [{ id: 'test', what: 'load-test.coach-bank', answer: 'fails' }]);
    expect(seemsSound(belief, classes())).toBe(false);
    belief.setEvidence(evidence, [{ id: 'test', what: 'load-test.coach-bank', answer: 'passes' }]);
    expect(seemsSound(belief, classes())).toBe(true);
    // Common practice, no source: 0.2 V apart is a weak block, so the middle stands 0.1 V off half.
    const middle = (state: string, off: number) =>
      evidence.map((e) => {
        if (e.probe !== 'coach-bank.middle' || e.state !== state) return e;
        const plus = evidence.find((o) => o.state === state && o.probe === 'coach-bank.plus' && o.ref === e.ref)!;
        const minus = evidence.find((o) => o.state === state && o.probe === 'coach-bank.minus' && o.ref === e.ref);
        return { ...e, value: (plus.value + (minus?.value ?? 0)) / 2 - off };
      });
    const at = evidence.findIndex((e) => e.probe === 'coach-bank.middle' && e.state === 'rested');
    expect(at).toBeGreaterThanOrEqual(0);
    for (const [state, off, sound] of [
      ['rested', 0.03, true],
      ['rested', 0.13, false],
      ['idle', 0.13, true],
    ] as const) {
      const spoiled = middle(state, off);
      belief.setEvidence(spoiled);
      expect(seemsSound(belief, classes()), `${state} ${off}`).toBe(sound);
      if (!sound) expect(againstSound(belief, classes())).toBe(at);
      // What does not stand halfway on a charger is looked at where it tells.
      if (state === 'idle') {
        const without = spoiled.filter((e) => e.state !== 'rested');
        belief.setEvidence(without);
        expect(unproved(belief)).toContainEqual(
          expect.objectContaining({ state: 'rested', points: ['coach-bank.middle'] }),
        );
      }
    }
  });

  it('has a reading that stands alone against it taken again before it is called anything', () => {
    for (const [probe, off] of [
      ['coach-bank.minus', 0.15],
      ['coach-bank.plus', 0.3],
      ['link.chassis-stud', 0.3],
    ] as const) {
      const { belief, evidence, classes } = everyPoint(5);
      const odd = evidence.findIndex((e) => e.probe === probe && e.state === 'idle');
      const spoiled = evidence.map((e, r) => (r === odd ? { ...e, value: e.value + off } : e));
      belief.setEvidence(spoiled);
      expect(againstSound(belief, classes()), probe).toBe(odd);
      expect(seemsSound(belief, classes()), probe).toBe(false);
      const { stop, next } = diagnose(belief, { state: 'idle' });
      expect(stop.reached, probe).toBe(false);
      expect(next[0], probe).toMatchObject({ retake: true, state: 'idle', probe });
      // Taken twice it is no slip of one take: it is not asked for a third time.
      belief.setEvidence(spoiled.map((e, r) => (r === odd ? { ...e, confirmed: true } : e)));
      expect(againstSound(belief, classes()), probe).not.toBe(odd);
    }
  });

  it('is never called sound by likelihood alone: where it ends so, its proof is in', () => {
    for (const [complaint, seed] of [
      ['coach-not-charging', 21],
      ['slow-charging', 22],
      ['chassis-flat', 23],
      ['boost-dead', 24],
    ] as const) {
      const { belief, answer } = walk('nothing-wrong', [complaint], seed);
      if (answer.stop.reached && answer.stop.class === 'nothing-wrong') expect(unproved(belief), complaint).toEqual([]);
    }
  });

  it('whose link waits for more volts at idle shows what it does at fast idle, not at idle', () => {
    const oneWay = new Belief(compileRig(motorhome('w', 'W', { ...USUAL_MOTORHOME, link: 'one-way' })), [
      'slow-charging',
    ]);
    const states = () => [...new Set(unproved(oneWay).map((u) => u.state))];
    expect(states()).toEqual(['idle']);
    const low: [string, number][] = [
      ['chassis-bank.plus', 12.8],
      ['coach-bank.plus', 12.4],
      ['link.chassis-stud', 12.79],
      ['link.coach-stud', 12.4],
      ['delay.chassis-sense', 12.78],
      ['delay.output', 0],
    ];
    oneWay.setEvidence(
      low.map(([probe, value]) => ({ id: probe, state: 'idle', probe, ref: BOLT, value, confirmed: true })),
    );
    expect(states()).toEqual(['fast-idle']);
  });

  it('is load-tested where its bank does not last', () => {
    const { answer, observed } = walk('nothing-wrong', ['coach-short-life'], 5);
    if (answer.stop.class === 'nothing-wrong')
      expect(observed.some((o) => /^(load-test|gravity)\.coach-bank$/.test(o.what))).toBe(true);
    expect(answer.stop.reached).toBe(true);
    // What no reading shows is said: its blocks stand side by side.
    expect(answer.stop.class).toBe('nothing-wrong');
    expect(answer.stop.why).toContain('bad jumper');
    expect(answer.sort).toBeUndefined();
    expect(answer.classes.reduce((sum, c) => sum + c.probability, 0)).toBeCloseTo(1, 9);
    expect(answer.suspects.reduce((sum, s) => sum + s.probability, 0)).toBeCloseTo(1, 9);
  });
});

describe('where a complaint shows', () => {
  it('must be measured in before any verdict: on shore for shore power, at idle for the road', () => {
    const { states } = new Belief(compiled, []).workspace;
    expect(statesOfComplaints(['shore-not-charging', 'coach-not-charging', 'slowly'], states)).toEqual([
      'shore',
      'idle',
    ]);
    expect(statesToSee(new Belief(compiled, ['shore-not-charging']))).toEqual(['shore']);
    const { answer, asked } = walk('charger.no-output', ['shore-not-charging'], 8);
    expect(answer.stop.reached).toBe(true);
    expect(asked.filter((a) => a.startsWith('shore/')).length).toBeGreaterThanOrEqual(2);
  });
});

describe('a fault', () => {
  it('is no verdict before its own direct test: blocks are not sold without a load test or hydrometer', () => {
    const { answer, observed } = walk('coach-bank.sulphated', ['coach-short-life'], 3);
    expect(answer.stop).toMatchObject({ reached: true });
    expect(answer.stop.class).toMatch(/^coach-bank/);
    expect(observed.some((o) => /^(load-test|gravity)\.coach-bank$/.test(o.what))).toBe(true);
  });

  it('of a solenoid wants coil and studs touched, and nothing more once they are', () => {
    const belief = new Belief(compiled, ['coach-not-charging']);
    const fault = belief.faults.find((f) => f.id === 'link.contact-open')!;
    expect(directTests(belief, fault, measurements, now(belief)).done).toBe(false);
    const hidden = new HiddenRig(compiled, fault.id, 2);
    const points: [string, string][] = [
      ['link.coil-plus', BOLT],
      ['link.coil-minus', BOLT],
      ['link.chassis-stud', 'link.coach-stud'],
    ];
    belief.setEvidence(
      points.map(([probe, ref]) => ({
        id: probe,
        state: 'idle',
        probe,
        ref,
        value: hidden.read('idle', probe, ref).value,
        confirmed: true,
      })),
    );
    expect(directTests(belief, fault, measurements, now(belief))).toEqual({ done: true, left: [] });
  });

  it('of a regulator must show in two starts: what a smart machine holds, it holds anew each time', () => {
    const belief = new Belief(compiled, ['chassis-not-charging']);
    const fault = belief.faults.find((f) => f.id === 'alternator.set-point-low')!;
    const hidden = new HiddenRig(compiled, fault.id, 3);
    const read: Evidence[] = [];
    const left = () => {
      belief.setEvidence(read);
      return directTests(belief, fault, measurements, now(belief)).left[0];
    };
    // The driver of the round: as it is asked, until nothing is.
    const states: string[] = [];
    for (let next = left(); next; next = left()) {
      const { red, black } = next.measurement!;
      states.push(next.state);
      expect(`${red} ${black}`).toContain('alternator.');
      const { value } = hidden.read(next.state, red, black);
      read.push({ id: String(states.length), state: next.state, probe: red, ...(black ? { ref: black } : {}), value });
      expect(states.length).toBeLessThan(6);
    }
    const runs = states.map((s) => operatingState(s).inputs.engine !== 'off');
    expect(runs).toEqual([true, false, true]);
    // Two readings of one start are one word.
    belief.setEvidence([read[0]!, { ...read[0]!, id: 'again', state: 'fast-idle' }]);
    expect(directTests(belief, fault, measurements, now(belief)).done).toBe(false);
  });

  it('asks what is left cheapest first, at the very piece', () => {
    const belief = new Belief(compiled, ['coach-not-charging']);
    const fault = belief.faults.find((f) => f.id === 'coach-negative.bad-joint')!;
    const { left } = directTests(belief, fault, measurements, now(belief));
    expect(left).toHaveLength(1);
    const { red, black } = left[0]!.measurement!;
    expect([red, black]).toContain('coach-bank.minus');
  });
});

describe('a bad joint', () => {
  it('is not the whole of it before both sides of the circuit were read, piece by piece where leads reach', () => {
    const { belief, answer, evidence } = walk('coach-negative.bad-joint', ['slow-charging'], 5);
    expect(answer.stop).toMatchObject({ reached: true, class: expect.stringContaining('coach ground') });
    expect(sidesUnread(belief, 'coach-negative.bad-joint')).toEqual([]);
    const idle = evidence.filter((e) => e.state === 'idle').map((e) => measurementId(e.probe, e.ref));
    for (const drop of ['link.chassis-stud~link.coach-stud', 'link-fuse.source~link.chassis-stud'])
      expect(idle).toContain(drop);
    // Through what is open nothing flows: nobody is sent to read the other side of it.
    expect(sidesUnread(new Belief(compiled, ['coach-not-charging']), 'link.contact-open')).toEqual([]);
  });

  it('that hides a second one behind it is found with it', () => {
    const belief = new Belief(compiled, ['slow-charging']);
    const hidden = new HiddenRig(compiled, 'coach-negative.bad-joint+link-fuse.loose', 12);
    const points: [string, string?][] = [
      ['coach-bank.minus', 'house-frame.bay-1'],
      ['coach-negative.clamp'],
      ['coach-bank.plus', BOLT],
      ['chassis-bank.plus', BOLT],
      ['link.chassis-stud', 'link.coach-stud'],
      ['link-fuse.source', 'link.chassis-stud'],
      ['chassis-bank.plus', 'link-fuse.source'],
    ];
    belief.setEvidence(
      points.map(([probe, ref]) => ({
        id: probe + ref,
        state: 'idle',
        probe,
        ...(ref === undefined ? {} : { ref }),
        value: hidden.read('idle', probe, ref).value,
        confirmed: true,
      })),
    );
    const [top] = [...belief.classes()].sort((a, b) => b[1] - a[1]);
    expect(top![0].split(' + ')).toHaveLength(2);
    expect(top![0]).toContain('coach-negative:');
  });
});

describe('volts lost along a wire', () => {
  it('are proved at both its ends in one state in which they show, then by a look at them', () => {
    const belief = new Belief(compiled, ['coach-not-charging']);
    const fault = belief.faults.find((f) => f.id === 'link-cable.bad-lug')!;
    const hidden = new HiddenRig(compiled, fault.id, 4);
    const take = (state: string, probe: string): Evidence => ({
      id: `${state} ${probe}`,
      state,
      probe,
      ref: BOLT,
      value: hidden.read(state, probe, BOLT).value,
      confirmed: true,
    });
    const left = (evidence: Evidence[], observed: Observed[] = []) => {
      belief.setEvidence(evidence, observed);
      return directTests(belief, fault, measurements, now(belief)).left;
    };
    const one = take('idle', 'link.coach-stud');
    // The other end in another state is no proof: something else may have changed between them.
    for (const evidence of [[one], [one, take('rested', 'coach-bank.plus')]])
      expect(left(evidence)[0]!.measurement!.red).toBe('coach-bank.plus');
    const both = [one, take('idle', 'coach-bank.plus')];
    expect(left(both)[0]!.question!.id).toBe('bad-end.link-cable');
    expect(left(both, [{ id: 'q', what: 'bad-end.link-cable', answer: 'yes' }])).toEqual([]);
  });

  it('by a cable too thin, with sound ends, are told from a bad lug by the look', () => {
    const belief = new Belief(compiled, ['slow-charging']);
    const share = (answer: string) => {
      belief.setEvidence([], [{ id: 'q', what: 'bad-end.link-cable', answer }]);
      const at = (id: string) => belief.probability[belief.faults.findIndex((f) => f.id === id)]!;
      return at('link-cable.too-thin') / at('link-cable.bad-lug');
    };
    expect(share('no')).toBeGreaterThan(3 * share('yes'));
  });
});

describe('a reading that fits nothing', () => {
  it('is asked for again at once', () => {
    const slip = (e: Evidence, n: number) => (n === 3 && !e.probe.endsWith('.clamp') ? -e.value - 1 : e.value);
    const { asked, answer } = walk('nothing-wrong', ['coach-not-charging'], 11, slip);
    const again = asked.filter((a, i) => asked.indexOf(a) !== i);
    expect(again.length).toBeGreaterThanOrEqual(1);
    expect(answer.stop.class).toBe('nothing-wrong');
  });
});

describe('two faults at once', () => {
  it('are named together where one leaves a complaint unexplained', () => {
    const belief = new Belief(compiled, ['coach-not-charging', 'boost-dead']);
    const pair = 'delay.dead+boost.fuse-blown';
    const hidden = new HiddenRig(compiled, pair, 4);
    const read = (state: string, probe: string, ref = BOLT): Evidence => ({
      id: `${state}/${probe}/${ref}`,
      state,
      probe,
      ref,
      value: hidden.read(state, probe, ref).value,
      confirmed: true,
    });
    belief.setEvidence([
      read('idle', 'delay.ignition'),
      read('idle', 'delay.output'),
      read('idle', 'delay.ground'),
      read('idle', 'link.coil-plus'),
      read('boost-engine-off', 'boost.feed'),
      read('boost-engine-off', 'boost.fused'),
      read('boost-engine-off', 'link.coil-plus'),
    ]);
    const [top] = [...belief.classes()].sort((a, b) => b[1] - a[1]);
    const half = (id: string) => belief.faults.find((f) => f.id === id)!.class;
    expect(top![0].split(' + ').sort()).toEqual([half('delay.dead'), half('boost.fuse-blown')].sort());
    // The next round begins without them.
    belief.setEvidence([]);
    expect(belief.faults.some((f) => f.id === pair || f.id === 'boost.fuse-blown+delay.dead')).toBe(false);
    expect(belief.probability.reduce((s, p) => s + p, 0)).toBeCloseTo(1, 9);
  });
});

describe('a contact that is welded', () => {
  it('is proved by the amps it carries as well: equal studs may come by another way round', () => {
    const { answer, evidence } = walk('link.welded', ['both-flat'], 9);
    expect(answer.stop).toMatchObject({ reached: true, class: 'link: Replace the isolator solenoid' });
    const wires = compiled.rig.conductors
      .filter((c) => [c.from, c.to].some((e) => e.part === 'link' && e.terminal.endsWith('-stud')))
      .map((c) => `${c.id}.clamp`);
    expect(evidence.some((e) => wires.includes(e.probe))).toBe(true);
  });
});
