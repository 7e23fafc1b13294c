/** Rules of battery monitors: what their shunt does not see, and the side it is in. */
import { is } from '../parts/kinds';
import type { Endpoint, Part } from '../rig/schema';
import { PRACTICE, saw, type DesignRule, type RuleContext } from './rule';

const part = (c: RuleContext, id: string): Part | undefined => c.rig.parts.find((p) => p.id === id);

/** What a shunt's terminal is wired to. */
const across = (c: RuleContext, shunt: Part, terminal: string): Endpoint[] =>
  c
    .on(shunt.id, terminal)
    .flatMap((w) => [w.from, w.to].filter((e) => !(e.part === shunt.id && e.terminal === terminal)));

/** The battery a shunt counts for: the one its battery side is wired to. */
const bankOf = (c: RuleContext, shunt: Part): Endpoint | undefined =>
  across(c, shunt, 'battery').find((e) => is(part(c, e.part), 'battery'));

export const MONITOR_RULES: readonly DesignRule[] = [
  {
    id: 'shunt-bypassed',
    severity: 'will not work',
    title: 'A return past the monitor’s shunt',
    why: 'What does not pass the shunt is not counted: the monitor shows a charge the bank does not have.',
    source: PRACTICE,
    check: (c) =>
      c.parts('shunt').flatMap((shunt) => {
        const at = bankOf(c, shunt);
        if (!at || at.terminal !== 'minus') return [];
        return c
          .on(at.part, 'minus')
          .filter((w) => ![w.from, w.to].some((e) => e.part === shunt.id))
          .map((w) =>
            saw(
              w.id,
              `${w.name} is on the post of ${part(c, at.part)!.name}, not behind ${shunt.name}.`,
              'Move it to the shunt’s system side: on the post goes the lead to the shunt alone.',
            ),
          );
      }),
  },
  {
    id: 'shunt-in-feed',
    severity: 'look',
    title: 'A shunt in the positive',
    why: 'A monitor made for the negative shows nonsense there, or is destroyed; few are made for the positive.',
    source: PRACTICE,
    check: (c) =>
      c.parts('shunt').flatMap((shunt) => {
        const at = bankOf(c, shunt);
        return at?.terminal === 'plus'
          ? [
              saw(
                shunt.id,
                `${shunt.name} is on the + of ${part(c, at.part)!.name}.`,
                'Read its label: unless it says so, it belongs into the negative.',
              ),
            ]
          : [];
      }),
  },
  {
    id: 'shunt-reversed',
    severity: 'will not work',
    title: 'A shunt the wrong way round',
    why: 'It counts a charge as a drain, and a drain as a charge.',
    source: PRACTICE,
    check: (c) =>
      c
        .parts('shunt')
        .filter((s) => !bankOf(c, s) && across(c, s, 'system').some((e) => is(part(c, e.part), 'battery')))
        .map((s) => saw(s.id, `The bank is on the system side of ${s.name}.`, 'Swap the leads on its two studs.')),
  },
];
