/** What keeps a motorhome's start battery up from its coach bank: a small unit and its thin, fused wire. */
import type { PartKindId } from '../../parts/kinds';
import { assumed, type Parameter } from '../../units/parameter';
import type { Part } from '../schema';
import { POST_LEAD_METRES } from '../insertFuse';
import type { MotorhomeChoices } from './choicesSchema';
import { cable, fuseRating } from './drawing';
import type { LinkDrawing, PartMaker, PlaceName, Runner } from './motorhomePlaces';

/** Kinds of part, A of their fuses and names of the maintainers: what each gives at most, with room. */
const MAINTAINERS = {
  differential: { kind: 'differential-maintainer', fuse: 5, note: '1 A' },
  triggered: { kind: 'triggered-maintainer', fuse: 10, note: 'from 13.6 V' },
  'diode-lamp': { kind: 'diode-lamp', fuse: 10, note: '55 W' },
} as const satisfies Record<string, { kind: PartKindId; fuse: number; note: string }>;

/** A maintainer from the coach bank to the chassis bank, its thin wire fused at both. */
export function maintainerParts(c: MotorhomeChoices, part: PartMaker, run: Runner, volts: number): LinkDrawing {
  if (!c.maintainer || c.maintainer === 'none') return { parts: [], conductors: [], probes: [] };
  const { kind, fuse, note } = MAINTAINERS[c.maintainer];
  const scaled = (value: number, spread: number) => assumed(value * volts, spread * volts);
  const params: Record<string, Parameter> =
    c.maintainer === 'triggered' && volts > 1
      ? {
          startAt: scaled(13.6, 0.06),
          stopAt: scaled(13.1, 0.06),
          absorb: scaled(14.2, 0.06),
          float: scaled(13.4, 0.06),
        }
      : {};
  const fuseAt = (id: string, where: PlaceName, side: Part['side'], place: string, name: string) =>
    part(id, 'link-fuse', where, side, place, name, `${fuse} A`, { rating: fuseRating(fuse) }, { type: 'blade' });
  const lead = (id: string, name: string, from: string, to: string, metres: number) =>
    cable(id, name, 'feed', from, to, '14', metres, 0.01);
  return {
    parts: [
      fuseAt('maintainer-coach-fuse', 'coach', 'coach', 'Coach bay', 'Maintainer fuse'),
      part('maintainer', kind, 'module', 'both', 'Link box', 'Maintainer', note, params),
      fuseAt('maintainer-chassis-fuse', 'chassis', 'engine', 'Engine bay', 'Maintainer fuse, chassis'),
    ],
    conductors: [
      lead(
        'maintainer-coach-lead',
        'Coach bank to maintainer fuse',
        'coach-bank.plus',
        'maintainer-coach-fuse.source',
        POST_LEAD_METRES,
      ),
      lead(
        'maintainer-from',
        'Maintainer from coach',
        'maintainer-coach-fuse.load',
        'maintainer.from',
        run('coach', 'module') + 0.6,
      ),
      lead(
        'maintainer-to',
        'Maintainer to chassis',
        'maintainer.to',
        'maintainer-chassis-fuse.load',
        run('module', 'chassis') + 0.6,
      ),
      lead(
        'maintainer-chassis-lead',
        'Chassis fuse to chassis bank',
        'maintainer-chassis-fuse.source',
        'chassis-bank.plus',
        POST_LEAD_METRES,
      ),
      ...(kind === 'diode-lamp'
        ? []
        : [
            cable(
              'maintainer-ground',
              'Maintainer to frame',
              'return',
              'maintainer.ground',
              'frame.bay-2',
              '14',
              0.9,
              0.01,
            ),
          ]),
    ],
    probes: [
      ['maintainer.from', 'Maintainer in'],
      ['maintainer.to', 'Maintainer out'],
      ['maintainer-to.clamp', 'Maintainer amps'],
    ],
  };
}
