/** Rules of an aluminum body as a return: its skin is no conductor, and copper on it corrodes. */
import { PRACTICE, saw, type DesignRule } from './rule';

export const ALUMINUM_RULES: readonly DesignRule[] = [
  {
    id: 'aluminum-joint',
    severity: 'look',
    title: 'How is the return joined to the aluminum?',
    why:
      'Aluminum grows a skin that insulates, and bare copper on it corrodes where it gets wet: ' +
      'a ground that was good fails within seasons.',
    source: PRACTICE,
    check: (c) =>
      c.rig.grounds
        .filter((g) => g.metal === 'aluminum')
        .flatMap((g) => {
          const unseen = c.rig.conductors.filter((w) => !w.looked && [w.from, w.to].some((e) => e.part === g.id));
          const [first] = unseen;
          if (!first) return [];
          return [
            {
              ...saw(
                first.id,
                `${unseen.length} ${unseen.length === 1 ? 'return is' : 'returns are'} bolted to ${g.name.toLowerCase()}: ` +
                  `${unseen.map((w) => w.name).join(', ')}.`,
                'Bright metal under the lug, joint paste, a tinned lug, a through bolt with a toothed washer, sealed; no ' +
                  'self-tapping screw. Then the drop across the joint with amps flowing.',
              ),
              answers: [
                {
                  says: 'Bolted through, bright, pasted and sealed',
                  edit: { conductors: unseen.map((w) => w.id), set: { looked: true } },
                },
              ],
            },
          ];
        }),
  },
];
