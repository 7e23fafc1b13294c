/** The strip as one line of names. */
import { renderToStaticMarkup } from 'react-dom/server';
import { describe, expect, it } from 'vitest';
import { motorhomeOf } from '../../../tests/motorhomes';
import { slimStrip } from './slim';
import { SlimStrip } from './SlimStrip';

const rig = motorhomeOf({});
const face = (verdict?: 'ok' | 'low' | 'high') => ({ spoken: '', ...(verdict ? { verdict } : {}) });

describe('the slim strip', () => {
  it('has every part once, nose to tail', () => {
    const parts = slimStrip(rig, {});
    expect(parts.map((p) => p.id).sort()).toEqual(rig.parts.map((p) => p.id).sort());
    const at = new Map(rig.parts.map((p) => [p.id, p.station]));
    for (let k = 1; k < parts.length; k++)
      expect(at.get(parts[k]!.id)!).toBeGreaterThanOrEqual(at.get(parts[k - 1]!.id)!);
  });

  it('marks a part by the worst of its readings, and not one whose id begins alike', () => {
    const of = (id: string, faces: Parameters<typeof slimStrip>[1]) =>
      slimStrip(rig, faces).find((p) => p.id === id)!.reads;
    expect(of('coach-bank', {})).toBeUndefined();
    expect(of('coach-bank', { 'coach-bank.plus': face() })).toBeUndefined();
    expect(of('coach-bank', { 'coach-bank.plus': face('ok') })).toBe('ok');
    expect(of('coach-bank', { 'coach-bank.plus': face('ok'), 'coach-bank.minus': face('low') })).toBe('low');
    expect(of('coach-bank', { 'coach-bank-two.plus': face('low') })).toBeUndefined();
  });

  it('says suspicion and findings in words too', () => {
    const parts = slimStrip(rig, {}, { link: 0.593, alternator: 0.014 }, { 'coach-bank': 'danger' });
    const html = renderToStaticMarkup(<SlimStrip parts={parts} />);
    expect(html).toContain('suspected, 59 percent');
    expect(html).toContain('59 %');
    expect(html).toContain('a rule calls it a danger');
    expect(parts.find((p) => p.id === 'alternator')!.suspected).toBeUndefined();
  });
});
