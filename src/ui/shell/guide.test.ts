/** What a practice job tells. */
import { describe, expect, it } from 'vitest';
import { guideSays, termMet } from './guide';
import type { NextAction } from './nextAction';

const measure = { kind: 'measure', measurement: {}, words: '', minutes: 1, retake: false } as unknown as NextAction;

describe('the guide', () => {
  it('gives the figure to type with its unit, and nothing before the meter has settled', () => {
    expect(guideSays(measure, {})).toBeUndefined();
    expect(guideSays(measure, { meter: { value: 12.62, unit: 'V' } })).toContain('12.62 V');
    expect(guideSays(measure, { meter: { value: -31.4, unit: 'A' } })).toMatch(/−31\.4 A/);
  });

  it('gives the answer to a look', () => {
    const ask = { kind: 'ask', question: 'q', words: '', minutes: 1 } as NextAction;
    expect(guideSays(ask, {})).toBeUndefined();
    expect(guideSays(ask, { answer: 'as cool as the rest' })).toContain('as cool as the rest');
  });

  it('has a line for every action that waits for a person', () => {
    for (const kind of ['change-state', 'declare', 'approve', 'repair', 'check', 'finish', 'report', 'look'] as const)
      expect(guideSays({ kind, words: '' } as NextAction, {})!.length).toBeGreaterThan(20);
    for (const kind of ['wait', 'own'] as const) expect(guideSays({ kind, words: '' }, {})).toBeUndefined();
  });

  it('explains a word at its first meeting only', () => {
    const met = (next: NextAction['kind'], taken: number, made = false) => termMet({ next, taken, bands: true, made });
    expect(met('change-state', 0)).toBe('state');
    expect(met('measure', 0)).toBe('probe');
    expect(met('measure', 1)).toBe('band');
    expect(met('measure', 5)).toBeUndefined();
    expect(met('change-state', 5)).toBeUndefined();
    expect(met('measure', 0, true)).toBe('epoch');
    expect(met('measure', 5, true)).toBeUndefined();
  });
});
