/** Rules of links that join banks straight, and of the alternator behind them. */
import { isFuseOrBreaker } from '../parts/fuses';
import { CHARGE_SHARE, chemistryOf } from '../parts/chemistry';
import { is } from '../parts/kinds';
import { follow } from '../rig/follow';
import type { Conductor, Part } from '../rig/schema';
import { gaugeName, wireArea } from '../units/wire';
import { PRACTICE, SAME_COPPER_SHARE, saw, type DesignRule, type RuleContext, type Violation } from './rule';

/** Sized runs whose line passes a part, or ends on it. */
const runsThrough = (c: RuleContext, part: Part) =>
  c.sizing.runs.filter(
    (r) =>
      r.inline.includes(part.id) ||
      r.conductors.some((w) =>
        c.rig.conductors.some((x) => x.id === w.id && (x.from.part === part.id || x.to.part === part.id)),
      ),
  );

/** Amps a line carries for minutes on this use. */
const carriedBy = (c: RuleContext, part: Part): number =>
  Math.max(0, ...runsThrough(c, part).map((r) => r.load.continuous));

/** Batteries of one vehicle with nothing between them but copper, fuses and a disconnect: always one bank. */
function alwaysJoined(c: RuleContext): [Part, Part][] {
  const past = (p: Part) => isFuseOrBreaker(p) || is(p, 'disconnect');
  return c
    .parts('battery')
    .flatMap((a) =>
      follow(c.rig, { part: a.id, terminal: 'plus' }, past).flatMap(({ part: b }): [Part, Part][] =>
        b && is(b, 'battery') && b.vehicle === a.vehicle && a.id < b.id ? [[a, b]] : [],
      ),
    );
}

const groundsOf = (c: RuleContext, battery: Part): Conductor[] =>
  c.on(battery.id, 'minus').filter((w) => [w.from, w.to].some((e) => c.rig.grounds.some((g) => g.id === e.part)));

/** Grounds of the metal an alternator is bolted to. */
function engineGrounds(c: RuleContext, alternator: Part): Conductor[] {
  const block = c.rig.bonds.flatMap((b) =>
    b.from.part === alternator.id ? [b.to.part] : b.to.part === alternator.id ? [b.from.part] : [],
  );
  return c.rig.conductors.filter(
    (w) =>
      w.use === 'return' &&
      [w.from, w.to].some((e) => block.includes(e.part) || (e.part === alternator.id && e.terminal === 'case')),
  );
}

export const LINK_RULES: readonly DesignRule[] = [
  {
    id: 'lithium-load-dump',
    severity: 'danger',
    title: 'Lithium on a direct link',
    why: 'When its BMS opens, the alternator sees a load dump.',
    source: PRACTICE,
    check: (c) =>
      c
        .parts('battery')
        .filter((bank) => c.option(bank, 'chemistry') === 'lfp')
        .flatMap((bank): Violation[] => {
          const other = follow(c.rig, { part: bank.id, terminal: 'plus' }).find((s) => is(s.part, 'battery'))?.part;
          return other
            ? [
                saw(
                  bank.id,
                  `${bank.name} is joined straight to ${other.name}, on the alternator’s side.`,
                  'A DC-DC charger between, or a start battery that stays on the alternator whatever the BMS does; tell the owner.',
                ),
              ]
            : [];
        }),
  },
  {
    id: 'coil-no-ground',
    severity: 'will not work',
    title: 'A coil without ground',
    why: 'It never pulls in.',
    source: PRACTICE,
    check: (c) =>
      c
        .parts('solenoid')
        .filter((p) => c.on(p.id, 'coil-minus').length === 0)
        .map((p) => saw(p.id, `${p.name}: nothing on its coil’s ground.`, 'Run the coil’s ground.')),
  },
  {
    id: 'coil-intermittent',
    severity: 'danger',
    title: 'Intermittent-duty solenoid used as continuous',
    why: 'Its coil burns.',
    source: 'Coils 3–5 Ω against 12–18 Ω: from memory',
    check: (c) =>
      c
        .parts('solenoid')
        .filter((p) => c.value(p, 'coil') < 8 * c.blocks(p) ** 2)
        .map((p) =>
          saw(p.id, `${p.name}: a coil of ${c.value(p, 'coil').toFixed(1)} Ω.`, 'A continuous-duty solenoid.'),
        ),
  },
  {
    id: 'alternator-no-margin',
    severity: 'wears out',
    title: 'No alternator margin on this use',
    why: 'A low bank at idle is the worst case: least cooling, most amps.',
    source: PRACTICE,
    check: (c) =>
      c.parts('alternator').flatMap((a) => {
        const run = c.sizing.runs.find((r) =>
          r.conductors.some((x) => c.on(a.id, 'output').some((w) => w.id === x.id)),
        );
        return run && run.load.continuous > 0.95 * c.value(a, 'idleLimit')
          ? [
              saw(
                a.id,
                `${run.load.continuous.toFixed(0)} A for minutes on this use, ${c.value(a, 'idleLimit').toFixed(0)} A at hot idle.`,
                'Measure its temperature after an hour at idle; regulate the charge.',
              ),
            ]
          : [];
      }),
  },
  {
    id: 'boost-lost',
    severity: 'tidy',
    title: 'No way back from a one-way charger',
    why: 'Neither bank can be lent to the other; somebody must be told.',
    source: PRACTICE,
    check: (c) =>
      c.rig.vehicles.length === 1 &&
      c.parts('charger').length > 0 &&
      c.parts('solenoid').length === 0 &&
      c.parts('bypass').length === 0
        ? [
            saw(
              c.parts('charger')[0]!.id,
              `${c.parts('charger')[0]!.name} passes nothing back.`,
              'A hand bypass, and a line on the owner’s card.',
            ),
          ]
        : [],
  },
  {
    id: 'diode-undercharges',
    severity: 'wears out',
    title: 'A diode isolator on a plain regulator',
    why: '0.6–0.8 V less for both banks.',
    source: PRACTICE,
    check: (c) =>
      c.parts('diodes').flatMap((p) =>
        c
          .parts('alternator')
          .filter((a) => c.value(a, 'setPoint') < 14.6 * c.blocks(a))
          .map((a) =>
            saw(
              p.id,
              `${a.name} is set to ${c.value(a, 'setPoint').toFixed(1)} V ahead of the diodes.`,
              'A regulator that senses behind them.',
            ),
          ),
      ),
  },
  {
    id: 'contact-over-rating',
    severity: 'wears out',
    title: 'A link contact carrying more than it is rated for',
    why: 'It runs hot, and one day welds or burns open.',
    source: 'Its label; 200 A continuous is the usual kind (from memory)',
    check: (c) =>
      c.parts('solenoid').flatMap((p) => {
        const [rated, carries] = [c.value(p, 'rated'), carriedBy(c, p)];
        return carries > rated
          ? [
              saw(
                p.id,
                `${p.name}: ${carries.toFixed(0)} A for minutes on this use, rated ${rated.toFixed(0)} A continuous.`,
                'A contact rated for it, or a charger that limits the current.',
              ),
            ]
          : [];
      }),
  },
  {
    id: 'link-charges-hard',
    severity: 'wears out',
    title: 'More charging current than this bank takes well',
    why: 'A direct link limits nothing: the bank heats, gasses and ages.',
    source: 'Lead C/4 to C/3, lithium C/2: from memory; the battery’s label comes first',
    check: (c) =>
      c.parts('solenoid').flatMap((p) =>
        c.parts('battery').flatMap((bank): Violation[] => {
          if (
            bank.side !== 'coach' ||
            runsThrough(c, p).every((r) => !r.conductors.some((w) => c.on(bank.id, 'plus').some((x) => x.id === w.id)))
          )
            return [];
          const chemistry = c.option(bank, 'chemistry');
          const takes = CHARGE_SHARE[chemistry]! * c.value(bank, 'capacity');
          const carries = carriedBy(c, p);
          return carries > takes
            ? [
                saw(
                  bank.id,
                  `${bank.name}: ${carries.toFixed(0)} A through ${p.name} for minutes on this use; ` +
                    `${c.value(bank, 'capacity').toFixed(0)} Ah ${chemistryOf(chemistry).label} takes ${takes.toFixed(0)} A.`,
                  'A charger that limits the current, or a bigger bank.',
                ),
              ]
            : [];
        }),
      ),
  },
  {
    id: 'mixed-parallel',
    severity: 'will not work',
    title: 'Different batteries joined as one bank',
    why: 'They rest and charge at different volts: one is never full, the other is overcharged.',
    source: PRACTICE,
    check: (c) =>
      alwaysJoined(c)
        .filter(([a, b]) => c.option(a, 'chemistry') !== c.option(b, 'chemistry'))
        .map(([a, b]) =>
          saw(
            b.id,
            `${a.name}, ${chemistryOf(c.option(a, 'chemistry')).label}, and ${b.name}, ` +
              `${chemistryOf(c.option(b, 'chemistry')).label}, with nothing between them.`,
            'One chemistry, age and size in a bank; else a charger between the two.',
          ),
        ),
  },
  {
    id: 'sensor-bypassed',
    severity: 'will not work',
    title: 'A return on the post of a sensed battery',
    why: 'A smart alternator goes by the sensor on the negative post: what bypasses it, it does not count.',
    source: PRACTICE,
    check: (c) =>
      c.parts('alternator').some((a) => c.option(a, 'regulator') === 'smart')
        ? c
            .parts('battery')
            .filter((b) => b.side === 'engine')
            .flatMap((b) =>
              c
                .on(b.id, 'minus')
                .filter((w) => !groundsOf(c, b).includes(w))
                .map((w) =>
                  saw(
                    w.id,
                    `${w.name} is on the negative post of ${b.name}.`,
                    'Land it on the chassis, on the body side of the sensor.',
                  ),
                ),
            )
        : [],
  },
  {
    id: 'strap-thinner',
    severity: 'wears out',
    title: 'An engine ground thinner than the alternator cable',
    why: 'All it charges, and the starter’s amps, go back through it: else through throttle cables and bearings.',
    source: PRACTICE,
    check: (c) =>
      c.parts('alternator').flatMap((a): Violation[] => {
        const [cable] = c.on(a.id, 'output');
        const straps = engineGrounds(c, a);
        const copper = straps.reduce((sum, w) => sum + wireArea(w.gauge), 0);
        if (!cable || straps.length === 0 || copper >= SAME_COPPER_SHARE * wireArea(cable.gauge)) return [];
        return [
          saw(
            straps[0]!.id,
            `${straps[0]!.name} is ${gaugeName(straps[0]!.gauge)}, ${cable.name} ${gaugeName(cable.gauge)}.`,
            'The engine ground at least as thick as the alternator cable.',
            { conductors: [straps[0]!.id], set: { gauge: cable.gauge } },
          ),
        ];
      }),
  },
];
