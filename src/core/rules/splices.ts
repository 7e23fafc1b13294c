/** Rules of ends and splices that do not last where things shake and get wet. */
import { WIRE_ENDS } from '../rig/ends';
import { PRACTICE, saw, type DesignRule } from './rule';

export const SPLICE_RULES: readonly DesignRule[] = [
  {
    id: 'poor-splice',
    severity: 'wears out',
    title: 'An end that does not last on the road',
    why: 'It loosens and corrodes: a joint that reads well on the bench fails under load within seasons.',
    source: PRACTICE,
    check: (c) =>
      c.rig.conductors.flatMap((w) => {
        const row = WIRE_ENDS.find((e) => e.id === w.ends);
        return row && 'poor' in row
          ? [
              saw(
                w.id,
                `${w.name} is joined by ${row.poor}.`,
                w.ends === 'two-in-one'
                  ? 'A pigtail: both crimped to one short wire, and that one into the hole.'
                  : 'Cut back to bright copper, crimp, and seal with adhesive heat-shrink.',
              ),
            ]
          : [];
      }),
  },
];
