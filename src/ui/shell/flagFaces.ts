/** What each flag of the strip shows: the reading in the present state, or the band it should be in. */
import { judge } from '../../core/probe/judge';
import { show, showBand, showText } from '../../core/units/format';
import type { FlagFace } from '../strip/FlagFaces';
import { readingOf, type Measuring } from './jobPage';

/** By the key of the point its red lead goes to. */
export function flagFaces(
  { measurements, readings, band: bandOf }: Pick<Measuring, 'measurements' | 'readings' | 'band'>,
  state: string,
): Record<string, FlagFace> {
  const faces: Record<string, FlagFace> = {};
  for (const m of measurements) {
    if (m.kind === 'drop') continue;
    const r = readingOf(readings, state, m);
    const band = bandOf(state, m.id);
    const name = `${m.label}, ${m.name.toLowerCase()}`;
    if (r?.value !== undefined && band) {
      const verdict = judge(r.value, band);
      const s = show(r.value, r.unit);
      faces[m.red] = {
        value: s.unit === 'V' ? s.text : `${s.text} ${s.unit}`,
        verdict,
        spoken: `${name}, ${showText(r.value, r.unit)}, ${verdict === 'ok' ? 'in band' : verdict === 'low' ? 'low' : 'high'}`,
      };
    } else if (r) {
      faces[m.red] = {
        value: r.status === 'overload' ? 'OL' : 'no reach',
        spoken: `${name}, ${r.status === 'overload' ? 'overload' : 'could not be reached'}`,
      };
    } else {
      faces[m.red] = {
        ...(band ? { band: showBand(band.lo, band.hi, band.unit).replace(' to ', '–').replace(' V', '') } : {}),
        spoken: `${name}, to take`,
      };
    }
  }
  return faces;
}
