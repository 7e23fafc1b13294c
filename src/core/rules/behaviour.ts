/** Rules of what a link does: thresholds, profiles, enables, chains, what is lost. */
import { houseBankOf } from '../rig/value';
import { gaugeName } from '../units/wire';
import { ENABLE_SCHOOLS } from '../parts/enableSchools';
import { CHARGE_VOLTS, chemistryOf } from '../parts/chemistry';
import { asDesigned } from '../diagnose/asDesigned';
import { is, partKind } from '../parts/kinds';
import { THRESHOLD_ORDER } from '../parts/thresholdOrder';
import { isFuseOrBreaker } from '../parts/fuses';
import { runsOf } from '../size/runs';
import { follow } from '../rig/follow';
import type { Conductor, Part } from '../rig/schema';
import { unlookedIn } from './batteryFeeds';
import { closesByVolts, voltsLinksOnLithium } from './lithium';
import { fitFuse } from './ownFuse';
import type { DesignRule, RuleContext, Violation } from './rule';

const PRACTICE = 'common practice';

const saw = (at: string, says: string, fix: string, mend?: Violation['mend']): Violation => ({
  at,
  says,
  fix,
  ...(mend ? { mend } : {}),
});
/** The bank a charger's output ends on. */
function fills(c: RuleContext, charger: Part): Part | undefined {
  const run = runsOf(c.rig).find((r) =>
    [r.from, r.to].some((e) => e.part === charger.id && (e.terminal === 'output' || e.terminal === 'plus')),
  );
  const end = run && [run.from, run.to].map((e) => c.part(e.part)).find((p) => is(p, 'battery'));
  return end ?? houseBankOf(c.rig);
}
const param = (value: number) => ({ value, spread: 0.06, provenance: 'nameplate' as const });

/** Batteries that work 12 V brakes: on a towed vehicle that lives on more volts. */
const brakeBanks = (c: RuleContext): Part[] =>
  c
    .parts('battery')
    .filter(
      (p) =>
        c.blocks(p) === 1 &&
        c.rig.vehicles.some((v) => v.id === p.vehicle && v.coupledTo !== undefined) &&
        c.parts('battery').some((q) => q.vehicle === p.vehicle && c.blocks(q) > 1),
    );

/** Fridge elements on a tow connector's pin with nothing on the way that lets go, and the feed they are on. */
function unswitchedFridges(c: RuleContext): { fridge: Part; feed: Conductor; unlooked: boolean }[] {
  if (c.parts('solenoid').length > 0 || c.rig.parts.some(closesByVolts)) return [];
  const unlooked = unlookedIn(c.rig);
  return c.parts('fridge').flatMap((fridge) => {
    const [feed] = c.on(fridge.id, 'plus');
    const onPin = feed && follow(c.rig, { part: fridge.id, terminal: 'plus' }).some((s) => is(s.part, 'towConnector'));
    return onPin ? [{ fridge, feed, unlooked: unlooked(feed) }] : [];
  });
}

export const BEHAVIOUR_RULES: readonly DesignRule[] = [
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
                { part: p.id, set: { params: { float: param(usual) } } },
              ),
            ]
          : [];
      }),
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
                set: { params: { openAt: param(Number((c.value(p, 'closeAt') - 0.2 * c.blocks(p)).toFixed(2))) } },
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
                    params: { [t.params.closes]: param(t.wants.closeAt), [t.params.opens]: param(t.wants.openAt) },
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
              ? { part: l.part, set: { params: { lockout: param(l.wants.lockout), restart: param(l.wants.restart) } } }
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
            { part: p.id, set: { params: { lockout: param(12.6), restart: param(12.9) } } },
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
    id: 'fridge-on-chain',
    severity: 'will not work',
    title: 'A fridge element on a charged battery',
    why: '23–25 A is more than its charger leaves over.',
    source: PRACTICE,
    check: (c) =>
      asDesigned(c.rig, ['coach-not-charging']).some((a) => a.id === 'chained-chargers')
        ? c
            .parts('fridge')
            .map((p) =>
              saw(
                p.id,
                `${p.name}, ${c.value(p, 'watts').toFixed(0)} W, is fed from the accessory battery.`,
                'Feed it from the start battery, switched by the ignition.',
              ),
            )
        : [],
  },
  {
    id: 'fridge-constant',
    severity: 'danger',
    title: 'A fridge element that never stops',
    why: 'Left on 12 V it flattens the start battery.',
    source: PRACTICE,
    check: (c) =>
      unswitchedFridges(c)
        .filter(({ unlooked }) => !unlooked)
        .map(({ fridge }) =>
          saw(
            fridge.id,
            `${fridge.name} is fed from a pin that nothing switches.`,
            'An ignition-switched feed, or a relay on the trigger pin: exactly one of them.',
          ),
        ),
  },
  {
    id: 'fridge-look',
    severity: 'look',
    title: 'Does the fridge’s feed stop with the ignition?',
    why: 'Left on 12 V it flattens the start battery. It was drawn as usual rigs are; only a look tells.',
    source: PRACTICE,
    check: (c) =>
      unswitchedFridges(c)
        .filter(({ unlooked }) => unlooked)
        .map(({ fridge, feed }) => ({
          ...saw(
            fridge.id,
            `${fridge.name} is fed from a pin that nothing is drawn to switch, and nobody has looked.`,
            'Measure its feed with the ignition off, and look for a relay at the fridge.',
          ),
          answers: [{ says: 'Nothing switches it', edit: { conductors: [feed.id], set: { looked: true } } }],
        })),
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
        const takes = c.parts('charger').reduce((sum, p) => sum + c.value(p, 'inLimit'), 0);
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
    id: 'brake-behind-converter',
    severity: 'danger',
    title: 'Brakes behind a converter',
    why: 'Brakes and breakaway need their own uninterrupted feed.',
    source: `${PRACTICE}; 49 CFR 393.43 for how long they must hold`,
    check: (c) =>
      brakeBanks(c)
        .filter((p) =>
          c
            .on(p.id, 'plus')
            .some((w) => [w.from, w.to].some((e) => is(c.part(e.part), 'charger') && e.terminal === 'output')),
        )
        .map((p) => saw(p.id, `${p.name} is fed by a charger.`, 'A fused 12 V feed of its own from the vehicle.')),
  },
  {
    id: 'brake-line-unfused',
    severity: 'danger',
    title: 'Brake feed without its own fuse',
    why: 'The line’s fuse is far too big for its thin wire.',
    source: PRACTICE,
    check: (c) =>
      brakeBanks(c)
        .flatMap((p) => c.on(p.id, 'plus'))
        .filter((w) => ![w.from, w.to].some((e) => isFuseOrBreaker(c.part(e.part))))
        .map((w) => {
          const { fix, mend } = fitFuse(
            c,
            w,
            is(c.part(w.to.part), 'battery') ? 'from' : 'to',
            'of its own where it leaves the line',
          );
          return saw(
            w.id,
            `${w.name}, ${gaugeName(w.gauge)}, is fed from the charge line without its own fuse.`,
            `${fix} After that prove brakes and breakaway.`,
            mend,
          );
        }),
  },
  {
    id: 'frame-return-only',
    severity: 'will not work',
    title: 'No return but the hitch',
    why: 'A greased ball is no return.',
    source: PRACTICE,
    check: (c) =>
      c
        .parts('towConnector')
        .filter((p) => c.on(p.id, 'rear-ground').length === 0 || c.on(p.id, 'front-ground').length === 0)
        .map((p) =>
          saw(p.id, `${p.name}: no wire on its ground pin.`, 'A ground wire as thick as the charge wire, both sides.'),
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
        { part: p.id, set: { params: { [key]: param(middle) } } },
      ),
    ];
  });
}
