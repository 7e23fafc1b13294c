/** Rules of chargers: profiles, enables, what feeds them, what they ask of the alternator. */
import { chargersOnAlternator, mostTaken } from '../rig/charging';
import { houseBankOf } from '../rig/value';
import { ENABLE_SCHOOLS } from '../parts/enableSchools';
import { CHARGE_SHARE, CHARGE_VOLTS, chemistryOf } from '../parts/chemistry';
import { asDesigned } from '../diagnose/asDesigned';
import { is } from '../parts/kinds';
import { runsOf } from '../size/runs';
import type { Part } from '../rig/schema';
import { PRACTICE, saw, setTo, type DesignRule, type RuleContext, type Violation } from './rule';

/** The bank a charger's output ends on. */
function fills(c: RuleContext, charger: Part): Part | undefined {
  const run = runsOf(c.rig).find((r) =>
    [r.from, r.to].some((e) => e.part === charger.id && (e.terminal === 'output' || e.terminal === 'plus')),
  );
  const end = run && [run.from, run.to].map((e) => c.part(e.part)).find((p) => is(p, 'battery'));
  return end ?? houseBankOf(c.rig);
}

/** Banks with the chargers that fill them. */
function filledBanks(c: RuleContext): { bank: Part; chargers: Part[] }[] {
  const banks = new Map<Part, Part[]>();
  for (const p of [...c.parts('charger'), ...c.parts('mainsCharger')]) {
    const bank = fills(c, p);
    if (bank) banks.set(bank, [...(banks.get(bank) ?? []), p]);
  }
  return [...banks].map(([bank, chargers]) => ({ bank, chargers }));
}

export const CHARGER_RULES: readonly DesignRule[] = [
  {
    id: 'profile-too-high',
    severity: 'danger',
    title: 'Charge voltage too high for this battery',
    why: 'Gassing, heat, a BMS that trips.',
    source: PRACTICE,
    check: (c) => profile(c, (absorb, n, { most }) => absorb > most * n, 'at most', 'most'),
  },
  {
    id: 'profile-too-low',
    severity: 'will not work',
    title: 'Charge voltage too low for this battery',
    why: 'The bank never fills; lead-acid sulfates.',
    source: PRACTICE,
    check: (c) => profile(c, (absorb, n, { needs }) => absorb < needs * n, 'at least', 'needs'),
  },
  {
    id: 'float-too-high',
    severity: 'wears out',
    title: 'Float voltage too high for this battery',
    why: 'Held for weeks it uses water, dries the plates, or keeps lithium at its top.',
    source: PRACTICE,
    check: (c) =>
      [...c.parts('charger'), ...c.parts('mainsCharger')].flatMap((p): Violation[] => {
        const bank = fills(c, p);
        if (!bank || p.params['float'] === undefined) return [];
        const chemistry = c.option(bank, 'chemistry');
        const most = CHARGE_VOLTS[chemistry]!.float * c.blocks(bank);
        const held = c.value(p, 'float');
        const usual = Number((most - 0.2 * c.blocks(bank)).toFixed(2));
        return held > most
          ? [
              saw(
                p.id,
                `${p.name} floats at ${held.toFixed(1)} V; ${chemistryOf(chemistry).label} wants at most ${most.toFixed(1)} V held.`,
                `Set its float to about ${usual.toFixed(1)} V.`,
                { part: p.id, set: { params: { float: setTo(usual) } } },
              ),
            ]
          : [];
      }),
  },
  {
    id: 'enable-always',
    severity: 'danger',
    title: 'A charger that is always enabled',
    why: 'It drains the start battery whenever it is coupled.',
    source: PRACTICE,
    check: (c) =>
      c
        .parts('charger')
        .filter((p) => c.option(p, 'enable') === 'always' && c.value(p, 'lockout') < 12.5 * inputBlocks(c, p))
        .map((p) =>
          saw(
            p.id,
            `${p.name} keeps running until the start battery is down to ${c.value(p, 'lockout').toFixed(1)} V.`,
            'An ignition enable, or its lockout at 12.6 V.',
            { part: p.id, set: { params: { lockout: setTo(12.6), restart: setTo(12.9) } } },
          ),
        ),
  },
  {
    id: 'enable-missing',
    severity: 'will not work',
    title: 'An enable without a wire',
    why: 'It never wakes.',
    source: PRACTICE,
    check: (c) =>
      c
        .parts('charger')
        .filter(
          (p) =>
            ENABLE_SCHOOLS.find((s) => s.id === c.option(p, 'enable'))?.by === 'wire' &&
            c.on(p.id, 'enable').length === 0,
        )
        .map((p) =>
          saw(p.id, `${p.name}: nothing on its enable terminal.`, 'Run the enable wire, or set it to sense volts.'),
        ),
  },
  {
    id: 'enable-poor',
    severity: 'tidy',
    title: 'A poor way to enable a charger',
    why: 'Works only with lights on, or drains what it should spare.',
    source: PRACTICE,
    check: (c) =>
      c.parts('charger').flatMap((p) => {
        const school = ENABLE_SCHOOLS.find((s) => s.id === c.option(p, 'enable'))!;
        return school.rating === 'poor'
          ? [
              saw(
                p.id,
                `${p.name}: ${school.label.toLowerCase()}; ${school.speaksAgainst}.`,
                'A circuit that is live only in run.',
              ),
            ]
          : [];
      }),
  },
  {
    id: 'charger-no-negative',
    severity: 'will not work',
    title: 'A charger without its negative',
    why: 'Looks like a dead unit.',
    source: PRACTICE,
    check: (c) =>
      c
        .parts('charger')
        .filter((p) => c.on(p.id, 'ground').length === 0)
        .map((p) => saw(p.id, `${p.name}: nothing on its negative stud.`, 'Run its negative, as thick as its feed.')),
  },
  {
    id: 'chained-chargers',
    severity: 'will not work',
    title: 'A charger fed by another charger’s battery',
    why: 'The first cannot keep up, that battery sinks, both drop out.',
    source: PRACTICE,
    check: (c) =>
      asDesigned(c.rig, ['coach-not-charging']).some((a) => a.id === 'chained-chargers')
        ? c
            .parts('charger')
            .slice(-1)
            .map((p) =>
              saw(
                p.id,
                `${p.name} is fed from a battery that another charger is charging.`,
                'Feed it from the start battery side.',
              ),
            )
        : [],
  },
  {
    id: 'panels-over-limit',
    severity: 'danger',
    title: 'Panels above the charger’s volts',
    why: 'It refuses them, or dies of them.',
    source: '25 V on some: common practice',
    check: (c) =>
      c.parts('panelInput').flatMap((p): Violation[] => {
        const open = c.value(p, 'panelVolts') * (c.option(p, 'panels') === 'series' ? 2 : 1);
        return open > c.value(p, 'panelLimit')
          ? [
              saw(
                p.id,
                `${p.name}: panels reach ${open.toFixed(0)} V open-circuit; input limit ${c.value(p, 'panelLimit').toFixed(0)} V.`,
                'Panels in parallel.',
                { part: p.id, set: { options: { panels: 'parallel' } } },
              ),
            ]
          : [];
      }),
  },
  {
    id: 'charger-over-alternator',
    severity: 'wears out',
    title: 'A charger bigger than the alternator’s idle',
    why: 'At idle the start battery makes up the shortfall.',
    source: '40–60 % of the rating at idle: common practice',
    check: (c) =>
      c.parts('alternator').flatMap((a) => {
        const loads = c.parts('chassisLoads').reduce((sum, p) => sum + c.value(p, 'running'), 0);
        const takes = chargersOnAlternator(c.rig).reduce((sum, p) => sum + mostTaken(p, inputBlocks(c, p)), 0);
        const idle = c.value(a, 'idleLimit');
        return takes > 0 && takes + loads > idle
          ? [
              saw(
                a.id,
                `${a.name} gives ${idle.toFixed(0)} A at hot idle; loads ${loads.toFixed(0)} A and chargers up to ${takes.toFixed(0)} A.`,
                'A smaller charger, an input limit, or a switch for the driver.',
              ),
            ]
          : [];
      }),
  },
  {
    id: 'charger-boxed',
    severity: 'wears out',
    title: 'A charger boxed in',
    why: 'It gives less when hot, and dies sooner.',
    source: PRACTICE,
    check: (c) =>
      c
        .parts('charger')
        .filter((p) => c.option(p, 'mounting') === 'boxed')
        .map((p) =>
          saw(p.id, `${p.name} has no air round its fins.`, 'A stand-off in the open.', {
            part: p.id,
            set: { options: { ...p.options, mounting: 'stand-off' } },
          }),
        ),
  },
  {
    id: 'standby-both-first',
    severity: 'tidy',
    title: 'Two chargers, neither standing by',
    why: 'In parallel they push each other into float early.',
    source: PRACTICE,
    check: (c) => {
      const all = c.parts('mainsCharger');
      return all.length > 1 && all.every((p) => c.option(p, 'duty') === 'own')
        ? [
            saw(all[1]!.id, `${all[0]!.name} and ${all[1]!.name} both lead.`, 'Set the second to follow.', {
              part: all[1]!.id,
              set: { options: { ...all[1]!.options, duty: 'standby' } },
            }),
          ]
        : [];
    },
  },
  {
    id: 'two-way-no-float',
    severity: 'wears out',
    title: 'A two-way link on a charger without float',
    why: 'In storage the start battery is overcharged for months.',
    source: PRACTICE,
    check: (c) =>
      c.parts('servesBothBanks').length > 0
        ? c
            .parts('mainsCharger')
            .filter((p) => c.option(p, 'build') === 'converter' && c.value(p, 'setPoint') > 13.7 * c.blocks(p))
            .map((p) =>
              saw(
                p.id,
                `${p.name} holds ${c.value(p, 'setPoint').toFixed(1)} V without float.`,
                'A charger that goes to float.',
              ),
            )
        : [],
  },
  {
    id: 'bank-charged-hard',
    severity: 'wears out',
    title: 'More charger than this bank takes well',
    why: 'It heats, gasses and ages; a lithium bank’s BMS may open.',
    source: 'Lead C/4 to C/3, lithium C/2: from memory; the battery’s label comes first',
    check: (c) =>
      filledBanks(c).flatMap(({ bank, chargers }) => {
        const chemistry = c.option(bank, 'chemistry');
        const takes = CHARGE_SHARE[chemistry]! * c.value(bank, 'capacity');
        const gives = chargers.reduce(
          (sum, p) => sum + (c.option(p, 'duty') === 'standby' ? 0 : c.value(p, 'limit')),
          0,
        );
        return gives > takes * 1.05
          ? [
              saw(
                bank.id,
                `${chargers.map((p) => p.name).join(' and ')} supply ${gives.toFixed(0)} A; ` +
                  `${c.value(bank, 'capacity').toFixed(0)} Ah ${chemistryOf(chemistry).label} takes ${takes.toFixed(0)} A.`,
                'A smaller charger, a limit set on it, or a bigger bank.',
              ),
            ]
          : [];
      }),
  },
  {
    id: 'profiles-differ',
    severity: 'wears out',
    title: 'Two chargers with different profiles on one bank',
    why: 'The lower one drops out early, the higher one decides alone: one of the two profiles is wrong.',
    source: `${PRACTICE}; 0.3 V apart at 12 V`,
    check: (c) =>
      filledBanks(c).flatMap(({ bank, chargers }) => {
        const absorbs = chargers.map((p) => ({ p, volts: c.value(p, p.params['absorb'] ? 'absorb' : 'setPoint') }));
        const [low, high] = [...absorbs]
          .sort((a, b) => a.volts - b.volts)
          .filter((_, i, all) => i === 0 || i === all.length - 1);
        return low && high && high.volts - low.volts > 0.3 * c.blocks(bank)
          ? [
              saw(
                high.p.id,
                `${high.p.name} charges to ${high.volts.toFixed(1)} V, ${low.p.name} to ${low.volts.toFixed(1)} V.`,
                `Set both for ${bank.name}.`,
              ),
            ]
          : [];
      }),
  },
  {
    id: 'charger-on-inverter',
    severity: 'look',
    title: 'Is a charger on the inverter’s own output?',
    why: 'Off shore power the inverter then feeds the charger that charges its own bank, and the bank runs flat.',
    source: PRACTICE,
    check: (c) => {
      const all = c.parts('mainsCharger');
      const inverter = all.find((p) => c.option(p, 'build') === 'inverter-charger');
      return inverter
        ? all
            .filter((p) => p !== inverter)
            .map((p) =>
              saw(
                p.id,
                `${p.name} stands with ${inverter.name}, and nobody has looked what feeds it.`,
                'With the inverter on and the cord out it must be off: else move it to a circuit the inverter does not ' +
                  'feed. Set this aside once seen.',
              ),
            )
        : [];
    },
  },
];

/** Volts at a charger's input are the vehicle's in front. */
const inputBlocks = (c: RuleContext, p: Part): number =>
  Math.min(1, c.blocks(p)) * (c.rig.vehicles[0]!.nominalVolts / 12);

function profile(
  c: RuleContext,
  wrong: (absorb: number, blocks: number, limits: { needs: number; most: number }) => boolean,
  word: string,
  which: 'needs' | 'most',
): Violation[] {
  return [...c.parts('charger'), ...c.parts('mainsCharger')].flatMap((p): Violation[] => {
    const bank = fills(c, p);
    if (!bank) return [];
    const chemistry = c.option(bank, 'chemistry');
    const limits = CHARGE_VOLTS[chemistry]!;
    const n = c.blocks(bank);
    const key = p.params['absorb'] ? 'absorb' : 'setPoint';
    const absorb = c.value(p, key);
    if (!wrong(absorb, n, limits)) return [];
    const middle = Number((((limits.needs + limits.most) / 2) * n).toFixed(1));
    return [
      saw(
        p.id,
        `${p.name} charges to ${absorb.toFixed(1)} V; ${chemistryOf(chemistry).label} wants ${word} ${(limits[which] * n).toFixed(1)} V.`,
        `Set it to about ${middle} V and prove it with the meter.`,
        { part: p.id, set: { params: { [key]: setTo(middle) } } },
      ),
    ];
  });
}
