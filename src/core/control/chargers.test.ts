/**
 * Controllers that charge, played through a day each: what they do, when they change, what they say. The times are
 * those of docs/models.md; the volts are set here.
 */
import { describe, expect, it } from 'vitest';
import { breaker, tripSeconds } from './breaker';
import { chargeStages } from './chargeStages';
import type { ControllerKind, ControllerStep } from './controller';
import { differentialMaintainer } from './differentialMaintainer';
import { smartRegulator } from './smartRegulator';
import { standbyCharger } from './standbyCharger';
import { triggeredMaintainer } from './triggeredMaintainer';

type Inputs = Record<string, number>;

/** A controller that is stepped on second by second, and asked what it does. */
class Played {
  step: ControllerStep;
  constructor(
    readonly kind: ControllerKind,
    readonly settings: Inputs,
    inputs: Inputs,
  ) {
    this.step = kind.step({ name: kind.initial, seconds: 0 }, inputs, settings, 0);
  }
  /** Lets it feel these inputs for so many seconds, one at a time. */
  for(seconds: number, inputs: Inputs): this {
    for (let s = 0; s < seconds; s++) this.step = this.kind.step(this.step.mode, inputs, this.settings, 1);
    return this;
  }
  get mode() {
    return this.step.mode.name;
  }
  get chosen() {
    return this.step.chosen ?? {};
  }
}

describe('a voltage-triggered maintainer', () => {
  const SET = { startAt: 13.6, stopAt: 13.2 };
  const start = () => new Played(triggeredMaintainer, SET, { coach: 12.6, amps: 0 });

  it('waits under its threshold for ever, and gives nothing: red lamp, no fault', () => {
    const m = start().for(4000, { coach: 13.59, amps: 0 });
    expect(m.mode).toBe('waiting');
    expect(m.chosen['power']).toBe('off');
    expect(m.step.why).toBe('coach has 13.59 V: waits for 13.6 V');
    expect(m.step.timer).toBeUndefined();
  });

  it('starts at its threshold once that has held five seconds, not on a blip', () => {
    const m = start().for(5, { coach: 13.6, amps: 0 });
    expect([m.mode, m.chosen['power']]).toEqual(['watching', 'off']);
    expect(m.step.timer).toBeCloseTo(1, 9);
    m.for(1, { coach: 13.5, amps: 0 });
    expect(m.mode).toBe('waiting');
    m.for(6, { coach: 13.6, amps: 0 });
    expect([m.mode, m.chosen['power'], m.chosen['stage']]).toEqual(['bulk', 'on', 'absorb']);
  });

  it('floats ten minutes after its current has fallen under half an ampere', () => {
    const m = start().for(8, { coach: 13.8, amps: 0 }).for(60, { coach: 13.8, amps: 4 });
    expect(m.mode).toBe('bulk');
    m.for(600, { coach: 13.8, amps: 0.49 });
    expect(m.mode).toBe('tail');
    // Half an ampere is no tail: the clock begins again.
    m.for(1, { coach: 13.8, amps: 0.5 });
    expect(m.mode).toBe('bulk');
    m.for(601, { coach: 13.8, amps: 0.3 });
    expect([m.mode, m.chosen['stage'], m.chosen['power']]).toEqual(['float', 'float', 'on']);
  });

  it('lets go five seconds after the coach falls under its lower threshold, floating or not', () => {
    for (const amps of [4, 0]) {
      const m = start().for(700, { coach: 13.8, amps }).for(5, { coach: 13.19, amps });
      expect([m.mode, m.chosen['power']]).toEqual(['letting-go', 'on']);
      m.for(1, { coach: 13.19, amps });
      expect([m.mode, m.chosen['power']]).toEqual(['waiting', 'off']);
    }
  });
});

describe('a differential maintainer', () => {
  const SET = { closeAt: 0.75, openAt: 0.2 };
  const start = () => new Played(differentialMaintainer, SET, { coach: 12.6, chassis: 12.6 });
  const gap = (v: number) => ({ coach: 12.6 + v, chassis: 12.6 });

  it('joins when the coach stands higher by its gap for five seconds, and never the other way', () => {
    expect(start().for(100, gap(0.74)).step.closed['contact']).toBe(false);
    expect(start().for(100, gap(-3)).step.closed['contact']).toBe(false);
    const m = start().for(5, gap(0.76));
    expect(m.step.closed['contact']).toBe(false);
    expect(m.for(1, gap(0.76)).step.closed['contact']).toBe(true);
  });

  it('stays joined while a smaller gap is left, and parts five seconds after that is gone', () => {
    const m = start().for(10, gap(1)).for(500, gap(0.21));
    expect(m.step.closed['contact']).toBe(true);
    m.for(5, gap(0.19));
    expect([m.mode, m.step.closed['contact']]).toEqual(['letting-go', true]);
    // A moment's dip is none.
    m.for(1, gap(0.3)).for(4, gap(0.19));
    expect(m.step.closed['contact']).toBe(true);
    expect(m.for(2, gap(0.19)).step.closed['contact']).toBe(false);
  });
});

describe('a smart regulator', () => {
  const SET = { tail: 10, sag: 12.2 };
  const start = () => new Played(smartRegulator, SET, { volts: 14.2, amps: 40 });

  it('charges while amps flow, and holds back ten minutes after they have tailed off', () => {
    const m = start().for(3000, { volts: 14.2, amps: 12 });
    expect([m.mode, m.chosen['stage']]).toEqual(['charge', 'charge']);
    m.for(600, { volts: 14.2, amps: 9.9 });
    expect([m.mode, m.chosen['stage']]).toEqual(['tail', 'charge']);
    m.for(1, { volts: 14.2, amps: 9.9 });
    expect([m.mode, m.chosen['stage']]).toEqual(['hold', 'hold']);
    expect(m.step.why).toContain('under 10 A for 10 min');
  });

  it('goes on holding while the volts stand, engine or none; a sag of half a minute brings it back', () => {
    const m = start().for(700, { volts: 14, amps: 1 });
    expect(m.for(5000, { volts: 12.21, amps: 0 }).mode).toBe('hold');
    m.for(30, { volts: 12.1, amps: 0 });
    expect([m.mode, m.chosen['stage']]).toEqual(['sagging', 'hold']);
    expect(m.step.timer).toBeGreaterThan(0);
    // Recovering in between starts the half minute over.
    m.for(1, { volts: 12.3, amps: 0 }).for(30, { volts: 12.1, amps: 0 });
    expect(m.mode).toBe('sagging');
    expect(m.for(1, { volts: 12.1, amps: 0 }).mode).toBe('charge');
  });

  it('is ready to charge when the engine stops before it has held', () => {
    const m = start().for(300, { volts: 14, amps: 2 }).for(1, { volts: 12.6, amps: 0 });
    expect([m.mode, m.step.why]).toEqual(['charge', 'engine off']);
  });
});

describe('a mains charger', () => {
  const SET = { setPoint: 14.4, float: 13.5, tail: 4, absorbFor: 4 * 3600, rebulk: 12.8, droop: 0.005 };
  const start = () => new Played(chargeStages, SET, { mains: 1, volts: 12.4, amps: 45 });

  it('is off without mains, whatever it was at, and starts in bulk when they come back', () => {
    const m = start().for(60, { mains: 0, volts: 14.4, amps: 0 });
    expect([m.mode, m.step.why]).toEqual(['off', 'no shore power']);
    expect(m.for(1, { mains: 1, volts: 12.5, amps: 40 }).mode).toBe('bulk');
  });

  it('holds its volts once it is there, and counts what its own droop takes', () => {
    const m = start().for(100, { mains: 1, volts: 14.0, amps: 45 });
    expect(m.mode).toBe('bulk');
    // 14.15 at the posts and 0.225 V in itself are 14.375: within its 0.08 V.
    expect(m.for(1, { mains: 1, volts: 14.15, amps: 45 }).mode).toBe('absorption');
    // A load that pulls it down by a tenth does not throw it back to bulk, a heavier one does.
    expect(m.for(1, { mains: 1, volts: 14.05, amps: 45 }).mode).toBe('absorption');
    expect(m.for(1, { mains: 1, volts: 13.9, amps: 45 }).mode).toBe('bulk');
  });

  it('floats twenty minutes after its current has tailed off', () => {
    const m = start().for(60, { mains: 1, volts: 14.4, amps: 10 }).for(1200, { mains: 1, volts: 14.4, amps: 3.9 });
    expect([m.mode, m.chosen['stage']]).toEqual(['tail', 'absorb']);
    expect(m.for(1, { mains: 1, volts: 14.4, amps: 3.9 }).chosen['stage']).toBe('float');
    expect(m.mode).toBe('float');
  });

  it('floats after its longest absorption though the current never tails off', () => {
    const m = start().for(4 * 3600, { mains: 1, volts: 14.4, amps: 20 });
    expect(m.mode).toBe('absorption');
    expect(m.for(1, { mains: 1, volts: 14.4, amps: 20 }).mode).toBe('float');
    expect(m.step.why).toContain('4.0 h');
  });

  it('starts over when a floating bank has sagged for a minute', () => {
    const m = start().for(60, { mains: 1, volts: 14.4, amps: 10 }).for(1300, { mains: 1, volts: 14.4, amps: 1 });
    expect(m.mode).toBe('float');
    m.for(60, { mains: 1, volts: 12.79, amps: 45 });
    expect([m.mode, m.chosen['stage']]).toEqual(['sagging', 'float']);
    expect(m.for(1, { mains: 1, volts: 12.79, amps: 45 }).mode).toBe('bulk');
  });
});

describe('the second of two chargers', () => {
  const SET = { setPoint: 14.4, float: 13.5, tail: 4, absorbFor: 4 * 3600, rebulk: 12.8, droop: 0.005, joinBelow: 13 };
  const start = () => new Played(standbyCharger, SET, { mains: 1, volts: 13.6, amps: 0 });

  it('stands by while the first one carries the bank: idle and in order', () => {
    const m = start().for(7200, { mains: 1, volts: 13, amps: 0 });
    expect([m.mode, m.chosen['power']]).toEqual(['standing-by', 'standby']);
    expect(m.step.why).toContain('the other charger carries it');
  });

  it('joins two minutes after the bank has gone low, and not sooner', () => {
    const m = start().for(120, { mains: 1, volts: 12.99, amps: 0 });
    expect([m.mode, m.chosen['power']]).toEqual(['joining', 'standby']);
    m.for(1, { mains: 1, volts: 13.1, amps: 0 });
    expect(m.mode).toBe('standing-by');
    m.for(122, { mains: 1, volts: 12.5, amps: 0 });
    expect([m.mode, m.chosen['power'], m.chosen['stage']]).toEqual(['bulk', 'on', 'absorb']);
  });

  it('leaves the rest to the first as soon as its current tails off', () => {
    const m = start().for(130, { mains: 1, volts: 12.5, amps: 30 }).for(1, { mains: 1, volts: 14.4, amps: 3 });
    expect([m.mode, m.chosen['power']]).toEqual(['standing-by', 'standby']);
    expect(m.step.why).toContain('leaves the rest to the other');
  });

  it('is off without mains', () => {
    expect(start().for(1, { mains: 0, volts: 12, amps: 0 }).mode).toBe('off');
  });
});

describe('a breaker', () => {
  const set = (type: number) => ({ element: 0.001, rating: 50, resetAfter: 20, type });
  /** Volts across it at so many times its rating. */
  const times = (multiple: number) => ({ drop: multiple * 50 * 0.001 });
  const start = (type: number) => new Played(breaker, set(type), times(0)).for(1, times(0.5));

  /** SAE J553, from memory: 5 to 60 s at twice the rating; carries 100 % for ever. */
  it('carries its rating for ever and opens in 5 to 60 s at twice it', () => {
    expect(tripSeconds(1)).toBe(Infinity);
    expect(tripSeconds(1.1)).toBe(Infinity);
    expect(tripSeconds(2)).toBeGreaterThan(5);
    expect(tripSeconds(2)).toBeLessThan(60);
    expect(tripSeconds(2)).toBeCloseTo(30, 9);
    for (let m = 1.2; m < 8; m += 0.2) expect(tripSeconds(m + 0.2)).toBeLessThanOrEqual(tripSeconds(m));
    expect(tripSeconds(1000)).toBe(0.02);
  });

  it('trips after that time and says why', () => {
    const m = start(3).for(30, times(2));
    expect([m.mode, m.step.closed['element']]).toEqual(['warming', true]);
    m.for(1, times(2));
    expect([m.mode, m.step.closed['element']]).toEqual(['tripped', false]);
    expect(m.step.why).toContain('100 A through 50 A');
  });

  it('of type I closes by itself after cooling, fault or none', () => {
    const m = start(1).for(31, times(2)).for(20, { drop: 12 });
    expect(m.step.closed['element']).toBe(false);
    expect(m.for(1, { drop: 12 }).step.closed['element']).toBe(true);
  });

  it('of type II stays open while it is fed, and closes once nothing wants to flow', () => {
    const m = start(2).for(31, times(2)).for(5000, { drop: 12 });
    expect([m.mode, m.step.closed['element']]).toEqual(['tripped', false]);
    m.for(20, { drop: 1 });
    expect(m.step.closed['element']).toBe(false);
    expect(m.for(2, { drop: 1 }).step.closed['element']).toBe(true);
    expect(start(2).for(31, times(2)).for(100, { drop: 1.01 }).mode).toBe('tripped');
  });

  it('of type III waits for a hand', () => {
    expect(start(3).for(31, times(2)).for(100_000, { drop: 0 }).mode).toBe('tripped');
  });

  it('does not care which way the current goes', () => {
    const back = new Played(breaker, set(3), times(0)).for(1, times(0)).for(31, times(-2));
    expect(back.step.closed['element']).toBe(false);
  });
});
