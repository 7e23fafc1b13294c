/** Grades against the trade's rules: load test and gravity from memory, the rest common practice, no source. */
import { describe, expect, it } from 'vitest';
import { cellVolts, grade, loadTestLimit } from './grades';

describe('graded figures', () => {
  it('a load test passes at 9.6 V and 21 °C, and is let off in the cold', () => {
    expect(loadTestLimit(21)).toBe(9.6);
    expect(loadTestLimit(40)).toBe(9.6);
    expect(loadTestLimit(-18)).toBe(8.5);
    for (let t = -30; t < 40; t++) expect(loadTestLimit(t + 1)).toBeGreaterThanOrEqual(loadTestLimit(t));
    expect(grade('load-test', { volts: 9.7, celsius: 21 }, 12).answer).toBe('passes');
    expect(grade('load-test', { volts: 9.4, celsius: 21 }, 12).answer).toBe('fails');
    expect(grade('load-test', { volts: 9.4, celsius: 0 }, 12).answer).toBe('passes');
    expect(grade('load-test', { volts: 19.0, celsius: 21 }, 24).answer).toBe('fails');
  });

  it('six cells at 1.265 rest at a full battery’s 12.65 to 12.75 V, at 1.12 near empty', () => {
    // Rule: rest volts of a cell = gravity + 0.845 (from memory); the trade's rested volts: common practice, no source.
    expect(6 * cellVolts(1.265)).toBeGreaterThan(12.6);
    expect(6 * cellVolts(1.265)).toBeLessThan(12.75);
    expect(6 * cellVolts(1.12)).toBeLessThan(11.9);
    expect(grade('gravity', { lowest: 1.26, highest: 1.27 }, 12).answer).toBe('good');
    expect(grade('gravity', { lowest: 1.18, highest: 1.2 }, 12).answer).toBe('low');
    expect(grade('gravity', { lowest: 1.1, highest: 1.26 }, 12).answer).toBe('apart');
  });

  it('coils are told apart by ohms, at 12 and at 24 V; a wire by sound, ohms, open', () => {
    expect(grade('coil', { ohms: 15 }, 12).answer).toBe('right');
    expect(grade('coil', { ohms: 4 }, 12).answer).toBe('low');
    expect(grade('coil', { ohms: 60 }, 24).answer).toBe('right');
    expect(grade('coil', { ohms: 15 }, 24).answer).toBe('low');
    expect(grade('coil', { ohms: 1e8 }, 12).answer).toBe('open');
    expect(grade('continuity', { ohms: 0.3 }, 12).answer).toBe('good');
    // On a coil feed anything over 0.3–0.5 Ω is bad (common practice, no source).
    expect(grade('continuity', { ohms: 0.8 }, 12).answer).toBe('ohms');
    expect(grade('continuity', { ohms: 40 }, 12).answer).toBe('ohms');
    expect(grade('continuity', { ohms: 1e8 }, 12).answer).toBe('open');
  });

  it('heat is judged above what is around it, never by the spot alone', () => {
    expect(grade('temperature-rise', { spot: 60, ambient: 15 }, 12).answer).toBe('hot');
    expect(grade('temperature-rise', { spot: 60, ambient: 50 }, 12).answer).toBe('cool');
    expect(grade('temperature-rise', { spot: 45, ambient: 20 }, 12).answer).toBe('warm');
  });
});
