/** Rules of what is towed: fridge elements, brake feeds, the return through the plug. */
import { asDesigned } from '../diagnose/asDesigned';
import { isFuseOrBreaker } from '../parts/fuses';
import { is } from '../parts/kinds';
import { follow } from '../rig/follow';
import type { Conductor, Part } from '../rig/schema';
import { gaugeName } from '../units/wire';
import { cited } from '../codes/ruleSet';
import { unlookedIn } from './batteryFeeds';
import { closesByVolts } from './lithium';
import { fitFuse } from './ownFuse';
import { PRACTICE, saw, type DesignRule, type RuleContext } from './rule';

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
    // What lets go by its trigger needs no switched feed.
    if (is(fridge, 'choosesItself')) return [];
    const onPin = feed && follow(c.rig, { part: fridge.id, terminal: 'plus' }).some((s) => is(s.part, 'towConnector'));
    return onPin ? [{ fridge, feed, unlooked: unlooked(feed) }] : [];
  });
}

/** House loads of what is towed, where driving has to cut them, as somebody saw them or nobody has. */
const habitation = (c: RuleContext, seen: string): Part[] =>
  c.rules.habitationCut
    ? c
        .parts('houseLoads')
        .filter(
          (p) =>
            c.option(p, 'onTow') === seen &&
            c.rig.vehicles.some((v) => v.id === p.vehicle && v.role === 'trailer' && v.coupledTo !== undefined),
        )
    : [];

export const TOWED_RULES: readonly DesignRule[] = [
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
    id: 'fridge-trigger-live',
    severity: 'danger',
    title: 'A fridge that never lets go of 12 V',
    why: 'Its trigger is live from a battery whether an engine runs or not: the element empties that battery.',
    source: PRACTICE,
    check: (c) =>
      c.parts('choosesItself').flatMap((fridge) => {
        // A constant pin feeds it as well as a bank behind; only a contact that something opens lets go.
        const past = (p: Part) => !is(p, 'solenoid') && !is(p, 'byVolts');
        const reached = follow(c.rig, { part: fridge.id, terminal: 'trigger' }, past, ['control', 'feed']);
        const bank = reached.find((s) => is(s.part, 'battery'))?.part;
        return bank
          ? [
              saw(
                fridge.id,
                `The trigger of ${fridge.name} hangs on ${bank.name}, through nothing that lets go with the ignition.`,
                'A wire from the ignition, or from a feed that only the running engine makes live and no bank shares.',
              ),
            ]
          : [];
      }),
  },
  {
    id: 'fridge-trigger-nowhere',
    severity: 'will not work',
    title: 'A fridge without its trigger',
    why: 'It chooses 12 V by its trigger alone: with nothing on it, it stays on gas or off on the road.',
    source: PRACTICE,
    check: (c) =>
      c
        .parts('choosesItself')
        .filter((p) => c.on(p.id, 'trigger').length === 0)
        .map((p) =>
          saw(
            p.id,
            `Nothing is on the trigger of ${p.name}.`,
            'A wire from a circuit that is live with the engine only.',
          ),
        ),
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
    id: 'habitation-look',
    severity: 'look',
    title: 'Does a habitation relay cut the 12 V loads while driving?',
    why: 'Here they have to be off while the towing engine runs; only fridge and charge feeds stay on.',
    source: (r) => (r.habitationCut ? cited(r.habitationCut) : PRACTICE),
    check: (c) =>
      habitation(c, 'not-looked').map((p) => ({
        ...saw(
          p.id,
          `${p.name}: nobody has looked whether they stay on with the engine running.`,
          'Couple up, start the engine, and try a light inside.',
        ),
        answers: [
          { says: 'They go off', edit: { part: p.id, set: { options: { ...p.options, onTow: 'cut' } } } },
          { says: 'They stay on', edit: { part: p.id, set: { options: { ...p.options, onTow: 'live' } } } },
        ],
      })),
  },
  {
    id: 'habitation-live',
    severity: 'will not work',
    title: 'No habitation relay',
    why: 'The 12 V loads inside stay on while driving: they take the charge, and the rules here want them off.',
    source: (r) => (r.habitationCut ? cited(r.habitationCut) : PRACTICE),
    check: (c) =>
      habitation(c, 'live').map((p) =>
        saw(
          p.id,
          `${p.name} stay on with the towing engine running.`,
          'A habitation relay, its coil on the engine-running pin.',
        ),
      ),
  },
];
