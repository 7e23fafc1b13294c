/** Flags, chips and the small strip: what each says of a point, read and unread, low, high and in its band. */
import { renderToStaticMarkup } from 'react-dom/server';
import { describe, expect, it } from 'vitest';
import { VARIETY, motorhomeInWords } from '../../../tests/motorhomes';
import { motorhome } from '../../core/rig/archetypes/motorhome';
import { rigMeasurements } from '../../core/probe/measurement';
import { HighFlag, LowChip, type FlagFace } from './FlagFaces';
import type { Flag } from './geometry';
import { stripLayout } from './layout';
import { MiniStrip } from './MiniStrip';
import { feetTicks, rulerLabels } from './ruler';

const flag: Flag = { key: 'coach-bank.plus', label: 'P5', name: 'Coach +', x: 100, low: false, tap: [110, 190] };
const html = (piece: React.ReactNode) => renderToStaticMarkup(<svg>{piece}</svg>);
const high = (face: FlagFace, lead?: 'red' | 'black') =>
  html(<HighFlag flag={flag} face={face} width={72} onPick={() => undefined} {...(lead ? { lead } : {})} />);
const low = (face: FlagFace, lead?: 'red' | 'black') =>
  html(
    <LowChip
      flag={{ ...flag, low: true }}
      face={face}
      width={50}
      onPick={() => undefined}
      {...(lead ? { lead } : {})}
    />,
  );

describe.each([
  ['a flag', high],
  ['a chip', low],
] as const)('%s', (_, draw) => {
  it('reads aloud what it is and what was read, and can be reached by key', () => {
    const drawn = draw({ value: '12.61', verdict: 'low', spoken: 'P5, coach plus, 12.61 V, low' });
    expect(drawn).toContain('aria-label="P5, coach plus, 12.61 V, low"');
    expect(drawn).toContain('role="button"');
    expect(drawn).toContain('tabindex="0"');
    expect(drawn).toContain('12.61');
    expect(drawn).toContain('P5');
  });

  it('says low and high by a mark, not by color alone, and marks what fits otherwise', () => {
    const [ok, below, above] = (['ok', 'low', 'high'] as const).map((verdict) =>
      draw({ value: '12.61', verdict, spoken: 'x' }),
    );
    expect(new Set([ok, below, above]).size).toBe(3);
    expect(below).toContain('bad');
    expect(above).toContain('bad');
    expect(ok).not.toMatch(/class="[^"]*\bbad\b/);
  });

  it('shows which lead is on it', () => {
    expect(draw({ spoken: 'x' }, 'red')).toContain('aria-pressed="true"');
    expect(draw({ spoken: 'x' }, 'black')).toContain('aria-pressed="false"');
    expect(draw({ spoken: 'x' })).toContain('aria-pressed="false"');
  });
});

describe('a point that is still to take', () => {
  it('shows its band on a flag, and that it is to take on a chip', () => {
    expect(high({ band: '12.9–13.7', spoken: 'x' })).toContain('12.9–13.7');
    expect(low({ spoken: 'x' })).toContain('to take');
  });
});

describe.each(VARIETY.slice(0, 8).map((c) => [motorhomeInWords(c), c] as const))('the strip of %s', (_, choices) => {
  const rig = motorhome('t', 'T', choices);
  const layout = stripLayout(rig);

  it('in small has a dot for every flag and a triangle for what is out of its band', () => {
    const bad = layout.flags[0]!.key;
    const drawn = html(<MiniStrip rig={rig} dots={{ [bad]: 'bad' }} here={undefined} />);
    expect((drawn.match(/mini-bad/g) ?? []).length).toBe(1);
    expect((drawn.match(/mini-(ok|todo)/g) ?? []).length).toBe(layout.flags.length - 1);
    expect(drawn).not.toMatch(/NaN|undefined/);
  });

  it('in small says where the probe in hand is, inside its frame', () => {
    for (const m of rigMeasurements(rig)) {
      const drawn = html(<MiniStrip rig={rig} dots={{}} here={m} />);
      expect(drawn).toContain(`${m.label} is at ${m.place.toLowerCase()}`);
      const at = /translate\(([\d.]+) /.exec(drawn);
      if (at) {
        expect(Number(at[1])).toBeGreaterThanOrEqual(20);
        expect(Number(at[1])).toBeLessThanOrEqual(338);
      }
    }
  });

  it('has a ruler that runs from nought on, never back, its labels apart', () => {
    const ticks = feetTicks(layout);
    for (const t of ticks) expect(t.x1).toBeGreaterThan(t.x0);
    for (let i = 1; i < ticks.length; i++) expect(ticks[i]!.x0).toBeCloseTo(ticks[i - 1]!.x1, 6);
    for (const unit of ['ft', 'm'] as const) {
      const labels = rulerLabels(layout, unit, 40);
      expect(labels[0]!.text).toBe(`0 ${unit}`);
      for (let i = 1; i < labels.length; i++) expect(labels[i]!.x - labels[i - 1]!.x).toBeGreaterThanOrEqual(40);
    }
  });
});
