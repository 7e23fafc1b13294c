import { describe, expect, it } from 'vitest';
import { kirchhoffResidual } from '../circuit/readings';
import { compileRig } from '../compile/compile';
import { observationsOf } from '../diagnose/observations';
import { rigFaults } from '../diagnose/faults';
import { RigModel } from '../operate/settle';
import { statesOf } from '../operate/states';
import { readOutputs, rigOutputs } from '../probe/outputs';
import { motorhomeInWords as name, VARIETY } from '../../../tests/motorhomes';
import type { MotorhomeChoices } from './archetypes/choicesSchema';
import { motorhome, USUAL_MOTORHOME } from './archetypes/motorhome';
import { checkRig } from './check';

function read(c: MotorhomeChoices, state: string) {
  const compiled = compileRig(motorhome('t', 'T', c));
  const model = new RigModel(compiled);
  const settled = model.settle(state);
  const outputs = rigOutputs(compiled);
  const values = new Float64Array(outputs.length);
  readOutputs(model, outputs, values);
  return { settled, at: Object.fromEntries(outputs.map((o, i) => [o.key, values[i]!])) as Record<string, number> };
}

describe('a motorhome from choices', () => {
  it.each(VARIETY.map((c) => [name(c), c] as const))('is a sound rig that settles in every state: %s', (_, choices) => {
    const rig = motorhome('t', 'T', choices);
    expect(checkRig(rig)).toEqual([]);
    const compiled = compileRig(rig);
    const model = new RigModel(compiled);
    for (const state of statesOf(rig)) {
      const settled = model.settle(state.id);
      expect(settled.solved, state.id).toBe(true);
      expect(settled.hunting, state.id).toBeUndefined();
      expect(kirchhoffResidual(model.solver, model.values)).toBeLessThan(1e-6);
    }
  });

  it('keeps a part id whatever the choices: what is the same thing has the same id', () => {
    const ids = VARIETY.map((c) => new Map(motorhome('t', 'T', c).parts.map((p) => [p.id, p.kind])));
    for (const always of ['ignition', 'house', 'charger', 'coach-bank', 'chassis-bank', 'alternator']) {
      for (const map of ids) expect(map.has(always), always).toBe(true);
    }
  });

  it('can hide at least forty faults, each of which does something to some reading', () => {
    // A set-point too high shows nothing while a low bank holds the alternator at its limit: in some rig it does.
    const all = new Map<string, number>();
    const seen = new Set<string>();
    for (const choices of VARIETY) {
      const rig = motorhome('t', 'T', choices);
      const compiled = compileRig(rig);
      const model = new RigModel(compiled);
      const outputs = rigOutputs(compiled);
      const states = statesOf(rig);
      const healthy = states.map((s) => {
        const row = new Float64Array(outputs.length);
        model.settle(s.id);
        readOutputs(model, outputs, row);
        return row;
      });
      const row = new Float64Array(outputs.length);
      for (const fault of rigFaults(rig)) {
        if (fault.effects.length === 0) continue;
        // One that no meter finds on a bank this low is asked after instead.
        if (observationsOf(rig, rigFaults(rig)).some((q) => (q.faults[fault.id]?.['yes'] ?? 0) > 0.8))
          seen.add(fault.name);
        let largest = 0;
        states.forEach((s, k) => {
          const settled = model.settle(s.id, { effects: fault.effects, severity: 0.9 });
          expect(settled.solved, `${name(choices)}: ${fault.id} at ${s.id}`).toBe(true);
          readOutputs(model, outputs, row);
          outputs.forEach((_, o) => (largest = Math.max(largest, Math.abs(row[o]! - healthy[k]![o]!))));
        });
        all.set(fault.name, Math.max(all.get(fault.name) ?? 0, largest));
      }
    }
    for (const [fault, largest] of all) if (!seen.has(fault)) expect(largest, fault).toBeGreaterThan(0.01);
    expect(all.size).toBeGreaterThanOrEqual(50);
  });
});

describe('a link (common practice, no source)', () => {
  const with_ = (link: MotorhomeChoices['link'], more: Partial<MotorhomeChoices> = {}): MotorhomeChoices => ({
    ...USUAL_MOTORHOME,
    link,
    ...more,
  });

  it('by one-way module closes on the engine, never on shore', () => {
    expect(read(with_('one-way'), 'idle').settled.modes['link']!.mode).toBe('closed');
    expect(read(with_('one-way'), 'rested').settled.modes['link']!.mode).toBe('open');
    expect(read(with_('one-way'), 'shore').settled.modes['link']!.mode).toBe('open');
  });

  it('by bidirectional module closes whichever bank is being charged', () => {
    expect(read(with_('bidirectional'), 'idle').settled.modes['delay']!.mode).toBe('closed-by-chassis');
    const shore = read(with_('bidirectional'), 'shore');
    expect(shore.settled.modes['delay']!.mode).toBe('closed-by-coach');
    expect(shore.at['link-cable.clamp']!).toBeLessThan(-1); // toward the chassis bank
    expect(read(with_('bidirectional'), 'rested').settled.modes['link']!.mode).toBe('open');
  });

  it('by bidirectional module is blind behind an open disconnect, and sees through one at the bank', () => {
    const blind = read(with_('bidirectional', { senseAt: 'behind-disconnect' }), 'disconnect-open');
    const seeing = read(with_('bidirectional', { senseAt: 'bank' }), 'disconnect-open');
    expect(blind.at['delay.coach-sense']!).toBeLessThan(1);
    expect(seeing.at['delay.coach-sense']!).toBeGreaterThan(11.5);
  });

  it('by bidirectional module stays closed on a rested LFP bank: it rests where others are charging', () => {
    const lfp = { chemistry: 'lfp', layout: 'parallel', capacity: 400 } as const;
    expect(read(with_('bidirectional', { coach: lfp }), 'key-on').settled.modes['link']!.mode).toBe('closed');
  });

  it('by diodes charges both banks and lets nothing back, at 0.6 to 0.8 V lost', () => {
    const idle = read(with_('diode', { boost: false }), 'idle').at;
    const lost = idle['link.input']! - idle['link.coach-stud']!;
    expect(lost).toBeGreaterThan(0.6);
    expect(lost).toBeLessThan(0.85);
    expect(idle['link-cable.clamp']!).toBeGreaterThan(10);
    expect(Math.abs(read(with_('diode', { boost: false }), 'shore').at['link-cable.clamp']!)).toBeLessThan(0.01);
  });

  it('by timed window waits while the coach is above its low mark', () => {
    const full = read(with_('timed-window', { coach: { ...USUAL_MOTORHOME.coach, chemistry: 'lfp' } }), 'idle');
    expect(full.settled.modes['delay']!.mode).toBe('waiting');
    expect(read(with_('timed-window'), 'idle').settled.modes['delay']!.mode).toBe('linked');
  });

  it('at 24 V works at twice the volts', () => {
    const twelve = read(with_('ignition-delay'), 'idle').at;
    const twentyFour = read(with_('ignition-delay', { nominalVolts: 24 }), 'idle').at;
    expect(twentyFour['chassis-bank.plus']! / twelve['chassis-bank.plus']!).toBeGreaterThan(1.95);
    expect(twentyFour['chassis-bank.plus']! / twelve['chassis-bank.plus']!).toBeLessThan(2.05);
    expect(read(with_('ignition-delay', { nominalVolts: 24 }), 'idle').settled.modes['link']!.mode).toBe('closed');
  });
});
