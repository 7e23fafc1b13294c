/** Rules of what decides by volts: what it feels, what it closes and opens at, where its sense wire is. */
import { is, partKind } from '../parts/kinds';
import { THRESHOLD_ORDER } from '../parts/thresholdOrder';
import { closesByVolts, voltsLinksOnLithium } from './lithium';
import { PRACTICE, saw, setTo, type DesignRule, type Violation } from './rule';

export const THRESHOLD_RULES: readonly DesignRule[] = [
  {
    id: 'volts-link-on-lithium',
    severity: 'danger',
    title: 'Voltage-sensing link on a lithium bank',
    why: 'Lithium rests at a voltage where lead-acid is charging: the link stays closed until the bank is nearly flat.',
    source: PRACTICE,
    check: (c) =>
      voltsLinksOnLithium(c.rig).map(({ link, bank, openAt, rests }) =>
        saw(
          link.id,
          `${link.name} opens under ${openAt.toFixed(1)} V, ${bank.name} rests at ${rests.toFixed(1)} V.`,
          'An ignition enable, or an open threshold above the bank’s resting voltage.',
        ),
      ),
  },
  {
    id: 'thresholds-crossed',
    severity: 'will not work',
    title: 'Thresholds the wrong way round',
    why: 'It chatters or never acts.',
    source: PRACTICE,
    check: (c) =>
      c.rig.parts.flatMap((p) =>
        THRESHOLD_ORDER.flatMap(([low, high]): Violation[] => {
          const [a, b] = [p.params[low]?.value, p.params[high]?.value];
          return a !== undefined && b !== undefined && a >= b
            ? [
                saw(
                  p.id,
                  `${p.name}: “${partKind(p.kind).params[low]!.label}” ${a.toFixed(2)} ` +
                    `V, “${partKind(p.kind).params[high]!.label}” ${b.toFixed(2)} V.`,
                  'Set the two the right way round under Rig.',
                ),
              ]
            : [];
        }),
      ),
  },
  {
    id: 'thresholds-close',
    severity: 'wears out',
    title: 'Thresholds too close',
    why: 'Load and cable move the volts more than the gap: it hunts.',
    source: `${PRACTICE}; a gap of 0.1 V at 12 V`,
    check: (c) =>
      c.rig.parts.filter(closesByVolts).flatMap((p): Violation[] => {
        const gap = c.value(p, 'closeAt') - c.value(p, 'openAt');
        return gap > 0 && gap < 0.1 * c.blocks(p)
          ? [
              saw(p.id, `${p.name}: ${gap.toFixed(2)} V between closing and opening.`, 'Open lower, or close higher.', {
                part: p.id,
                set: { params: { openAt: setTo(Number((c.value(p, 'closeAt') - 0.2 * c.blocks(p)).toFixed(2))) } },
              }),
            ]
          : [];
      }),
  },
  {
    id: 'thresholds-no-room',
    severity: 'will not work',
    title: 'Thresholds that do not fit the volts',
    why: 'It hunts under load, stays closed at rest, or never closes.',
    source: 'Predicted volts at its sense, middle 95 % of what the assumptions allow',
    check: (c) =>
      c.sizing.thresholds
        .filter((t) => t.verdict !== 'holds')
        .map((t) =>
          saw(
            t.part,
            `${t.name}: ${t.says}`,
            t.wants
              ? `Close at ${t.wants.closeAt.toFixed(2)} V, open at ${t.wants.openAt.toFixed(2)} V.`
              : 'An ignition lead instead of volts.',
            t.wants
              ? {
                  part: t.part,
                  set: {
                    params: { [t.params.closes]: setTo(t.wants.closeAt), [t.params.opens]: setTo(t.wants.openAt) },
                  },
                }
              : undefined,
          ),
        ),
  },
  {
    id: 'lockout-under-load',
    severity: 'will not work',
    title: 'A charger that starves at idle',
    why: 'Its input sags, it drops out, the voltage recovers, and it cycles.',
    source: 'Predicted volts at its input, middle 95 % of what the assumptions allow',
    check: (c) =>
      c.sizing.lockouts
        .filter((l) => l.verdict !== 'holds')
        .map((l) =>
          saw(
            l.part,
            `${l.name}: ${l.says}`,
            l.wants
              ? `Lock out at ${l.wants.lockout.toFixed(1)} V, restart at ${l.wants.restart.toFixed(1)} V.`
              : 'A smaller charger, or a better line.',
            l.wants
              ? { part: l.part, set: { params: { lockout: setTo(l.wants.lockout), restart: setTo(l.wants.restart) } } }
              : undefined,
          ),
        ),
  },
  {
    id: 'sensing-smart-alternator',
    severity: 'will not work',
    title: 'Voltage sensing on a smart alternator',
    why: 'Its volts no longer prove that the engine runs.',
    source: PRACTICE,
    check: (c) =>
      c.parts('alternator').some((a) => c.option(a, 'regulator') === 'smart')
        ? [
            ...c.parts('charger').filter((p) => c.option(p, 'enable') === 'volts'),
            ...c.rig.parts.filter(closesByVolts),
          ].map((p) =>
            saw(
              p.id,
              `${p.name} goes by volts; the alternator holds back when the batteries seem full.`,
              'An ignition lead to its enable.',
            ),
          )
        : [],
  },
  {
    id: 'sense-behind-disconnect',
    severity: 'will not work',
    title: 'A sense wire behind the disconnect',
    why: 'With the disconnect off the module is blind.',
    source: PRACTICE,
    check: (c) =>
      c.rig.conductors
        .filter(
          (w) =>
            [w.from, w.to].some((e) => e.terminal === 'coach-sense') &&
            [w.from, w.to].some((e) => is(c.part(e.part), 'disconnect') && e.terminal === 'house'),
        )
        .map((w) =>
          saw(w.id, `${w.name} starts behind the disconnect.`, 'Take it to the battery side, with a fuse of its own.'),
        ),
  },
];
