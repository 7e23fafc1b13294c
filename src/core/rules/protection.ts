/** Rules of fuses, breakers and wires. What they judge by is worked out in size/. */
import { is } from '../parts/kinds';
import type { FuseCheck } from '../size/fuseChecks';
import { runsOf } from '../size/runs';
import { FUSE_KINDS, interruptsAt, isFuseOrBreaker } from '../parts/fuses';
import { midSentence } from '../units/format';
import { gaugeName, wireArea } from '../units/wire';
import { follow, type FeedStep } from '../rig/follow';
import type { Conductor } from '../rig/schema';
import { fitFuse } from './ownFuse';
import type { DesignRule, RuleContext, Violation } from './rule';

const PRACTICE = 'common practice';
/** Share of the feed's copper from which a return counts as like it: one AWG step. */
const SAME_COPPER_SHARE = 0.6;

/** Fuse checks with a verdict, as what a rule saw. */
const fuses = (
  c: RuleContext,
  id: FuseCheck['checks'][number]['id'],
  verdict: 'bad' | 'watch',
  fix: (f: FuseCheck, c: RuleContext) => Pick<Violation, 'fix' | 'mend'>,
  only: (f: FuseCheck) => boolean = () => true,
): Violation[] =>
  c.sizing.fuses
    .filter(only)
    .flatMap((f) =>
      f.checks
        .filter((k) => k.id === id && k.verdict === verdict)
        .map((k) => ({ at: f.part, says: `${f.name}: ${k.says}`, ...fix(f, c) })),
    );

const rated = (f: FuseCheck): Pick<Violation, 'fix' | 'mend'> =>
  f.window.pick === undefined
    ? { fix: 'A thicker wire behind it, or less current.' }
    : {
        fix: `Fit ${f.window.pick} A.`,
        mend: {
          part: f.part,
          set: {
            note: `${f.window.pick} A`,
            params: { rating: { value: f.window.pick, spread: 0, provenance: 'nameplate' } },
          },
        },
      };

/** A smaller fuse where one still carries the load; else more copper in the piece it does not protect. */
const protecting = (f: FuseCheck, c: RuleContext): Pick<Violation, 'fix' | 'mend'> =>
  f.window.pick !== undefined && f.window.pick < f.rating ? rated(f) : moreCopper(f, c);

/** More copper in the piece a fuse does not protect, or a fuse of its own there. */
const moreCopper = (f: FuseCheck, c: RuleContext): Pick<Violation, 'fix' | 'mend'> => {
  const { id, name, thicker } = f.weakest;
  if (thicker)
    return {
      fix: `${name} in ${gaugeName(thicker)}, or a fuse of its own where it begins.`,
      mend: { conductors: [id], set: { gauge: thicker } },
    };
  const wire = c.rig.conductors.find((w) => w.id === id)!;
  const end = beginsAt(c, f, id);
  // It is the first behind this fuse: another one beside it would be no smaller.
  if (wire[end].part === f.part) return { fix: `A smaller fuse, or ${midSentence(name)} far thicker.` };
  return fitFuse(c, wire, end, `of its own where ${midSentence(name)} begins`);
};

/** What is reached from a fuse's two studs before another fuse. */
const around = (c: RuleContext, fuse: string): FeedStep[] =>
  ['source', 'load'].flatMap((terminal) => follow(c.rig, { part: fuse, terminal }, (p) => !isFuseOrBreaker(p)));

/** The end of a branch nearer to the fuse before it. */
const beginsAt = (c: RuleContext, f: FuseCheck, id: string): 'from' | 'to' => {
  const step = around(c, f.part).find((s) => s.conductor.id === id);
  return step && step.to.part === step.conductor.from.part && step.to.terminal === step.conductor.from.terminal
    ? 'to'
    : 'from';
};

const kindFor = (f: FuseCheck, volts: number): Pick<Violation, 'fix' | 'mend'> => {
  const kind = FUSE_KINDS.find((k) => interruptsAt(k, volts) >= f.fault.near && k.ratings.includes(f.rating));
  return kind
    ? {
        fix: `Take “${kind.label}”: opens into ${interruptsAt(kind, volts)} A at ${volts.toFixed(0)} V.`,
        mend: { part: f.part, set: { options: { type: kind.id } } },
      }
    : { fix: 'Take a fuse of class T, in a rating that is made.' };
};
const blocksOf = (c: RuleContext, f: FuseCheck): number =>
  14.5 *
  Math.max(
    1,
    ...runsOf(c.rig)
      .filter((r) => r.inline.some((p) => p.id === f.part))
      .flatMap((r) => [r.from, r.to])
      .map((e) => c.part(e.part))
      .flatMap((p) => (is(p, 'battery') ? [c.blocks(p!)] : [])),
  );

export const PROTECTION_RULES: readonly DesignRule[] = [
  {
    id: 'fuse-over-wire',
    severity: 'danger',
    title: 'A fuse rated over its wire',
    why: 'The wire burns before the fuse opens.',
    source: '33 CFR 183.460 (from memory); ampacity by 183.425 table 5',
    check: (c) => fuses(c, 'window', 'bad', protecting, (f) => f.rating > f.window.to),
  },
  {
    id: 'fuse-under-load',
    severity: 'will not work',
    title: 'A fuse under its load',
    why: 'It opens on the road, some hot day.',
    source: PRACTICE,
    check: (c) => fuses(c, 'window', 'bad', rated, (f) => f.rating > 0 && f.rating <= f.window.to),
  },
  {
    id: 'fuse-tight',
    severity: 'wears out',
    title: 'A tight fuse',
    why: 'Over 80 % of its rating for hours it runs warm and ages.',
    source: `${PRACTICE}; NEC 210.20(A) says the same`,
    check: (c) => fuses(c, 'window', 'watch', rated),
  },
  {
    id: 'fuse-unknown',
    severity: 'tidy',
    title: 'A fuse of unknown rating',
    why: 'Nothing can be said of what it protects.',
    source: PRACTICE,
    check: (c) =>
      c.sizing.fuses
        .filter((f) => f.rating <= 0)
        .map((f) => ({
          at: f.part,
          says: `${f.name} has no rating.`,
          fix: 'Read it off the body and put it in under Rig.',
        })),
  },
  {
    id: 'fuse-not-made',
    severity: 'will not work',
    title: 'A fuse nobody makes',
    why: 'This kind does not come in that rating.',
    source: 'Ratings by kind, from memory',
    check: (c) => fuses(c, 'made', 'bad', rated),
  },
  {
    id: 'fuse-volts',
    severity: 'danger',
    title: 'A fuse made for fewer volts',
    why: 'Above its volts the arc can hold inside it.',
    source: 'ISO 8820 rated voltage; 48 V charges at up to 58 V (common practice)',
    check: (c) => fuses(c, 'volts', 'bad', (f) => kindFor(f, blocksOf(c, f))),
  },
  {
    id: 'fuse-interrupts',
    severity: 'danger',
    title: 'A fuse that cannot open into this bank',
    why: 'A bank gives more into a short than it can break: it may burst.',
    source: 'Interrupt ratings by kind, from memory',
    check: (c) => fuses(c, 'interrupts', 'bad', (f) => kindFor(f, blocksOf(c, f))),
  },
  {
    id: 'short-harms-wire',
    severity: 'danger',
    title: 'A short outlasts its wire',
    why: 'At the far end the bank’s current is too small to open the fuse in time.',
    source: 'IEC 60364-4-43, 434.5.2; gates of ISO 8820',
    // A smaller fuse from the window need not open sooner than the wire is harmed: only copper or a fuse nearer does.
    check: (c) => fuses(c, 'clears', 'bad', moreCopper),
  },
  {
    id: 'fuse-far',
    severity: 'danger',
    title: 'Much unprotected cable',
    why: 'Between battery and fuse a chafed cable has nothing to stop it.',
    source: '33 CFR 183.455 (7 in, for boats): common guide for RVs',
    check: (c) =>
      fuses(c, 'place', 'bad', (f) => {
        const near = around(c, f.part)
          .filter((s) => is(s.part, 'battery'))
          .sort((a, b) => a.metres - b.metres)[0];
        const wire = near?.conductor;
        const fit = wire && fitFuse(c, wire, wire.from.part === near.part!.id ? 'from' : 'to', `at ${near.part!.name}`);
        return fit?.mend
          ? { ...fit, fix: `Move it to the battery, or fit one there. ${fit.fix}` }
          : { fix: 'Move the fuse to the battery.' };
      }),
  },
  {
    id: 'fuse-somewhat-far',
    severity: 'tidy',
    title: 'A fuse some way from its battery',
    why: 'The guide is 0.18 m; more wants loom and a clear route.',
    source: '33 CFR 183.455 (7 in, for boats): common guide for RVs',
    check: (c) => fuses(c, 'place', 'watch', () => ({ fix: 'Nearer, or sheath the cable up to it.' })),
  },
  {
    id: 'breaker-auto-between',
    severity: 'wears out',
    title: 'A breaker that closes by itself between two batteries',
    why: 'It re-closes onto a fault, unattended.',
    source: 'SAE J553 types; common practice',
    check: (c) =>
      fuses(c, 'type', 'watch', (f) => ({
        fix: 'A fuse, or a type III.',
        mend: { part: f.part, set: { options: { type: 'manual' } } },
      })),
  },
  {
    id: 'one-end-fused',
    severity: 'danger',
    title: 'One end of two without a fuse',
    why: 'A cable with a battery at each end is fed from both.',
    source: PRACTICE,
    check: (c) =>
      runsOf(c.rig).flatMap((run): Violation[] => {
        const ends = [run.from, run.to].map((e) => c.part(e.part));
        if (!ends.every((p) => is(p, 'battery'))) return [];
        const count = run.inline.filter(isFuseOrBreaker).length;
        if (count >= 2) return [];
        // The end farther from the fuse that is there, by cable.
        const metres = (list: readonly Conductor[]) =>
          list
            .slice(
              0,
              Math.max(
                0,
                list.findIndex((w) => [w.from, w.to].some((e) => isFuseOrBreaker(c.part(e.part)))),
              ),
            )
            .reduce((s, w) => s + w.length, 0);
        const last = count === 1 && metres(run.conductors) <= metres([...run.conductors].reverse());
        const [bank, wire] = last ? [ends[1]!, run.conductors.at(-1)!] : [ends[0]!, run.conductors[0]!];
        return [
          {
            at: run.id,
            says: `${run.name}: ${count === 0 ? 'no fuse' : 'one fuse'} between ${ends[0]!.name} and ${ends[1]!.name}.`,
            ...fitFuse(c, wire, wire.from.part === bank.id ? 'from' : 'to', `at ${bank.name}`),
          },
        ];
      }),
  },
  {
    id: 'charger-side-unfused',
    severity: 'danger',
    title: 'A charger’s lead without a fuse at the battery',
    why: 'The bank can feed it; treat every charger terminal as able to feed.',
    source: PRACTICE,
    check: (c) =>
      runsOf(c.rig).flatMap((run): Violation[] => {
        const [a, b] = [c.part(run.from.part), c.part(run.to.part)];
        const charger = [a, b].find((p) => is(p, 'charger'));
        const bank = [a, b].find((p) => is(p, 'battery'));
        if (!charger || !bank || run.inline.some(isFuseOrBreaker)) return [];
        const wire = run.conductors.find((w) => [w.from, w.to].some((e) => e.part === bank.id))!;
        return [
          {
            at: run.id,
            says: `${run.name}: nothing between ${bank.name} and ${charger.name}.`,
            ...fitFuse(c, wire, wire.from.part === bank.id ? 'from' : 'to', `at ${bank.name}`),
          },
        ];
      }),
  },
  {
    id: 'wire-too-thin',
    severity: 'danger',
    title: 'A wire too thin for its current',
    why: 'It is hotter than its insulation bears.',
    source: '33 CFR 183.425 table 5 (from memory)',
    check: (c) => thin(c, 'too thin'),
  },
  {
    id: 'charger-locks-out',
    severity: 'will not work',
    title: 'A charger starved by its cable',
    why: 'Its input sags, it lets go, the volts come back: it hunts.',
    source: PRACTICE,
    check: (c) => thin(c, 'locks out'),
  },
  {
    id: 'drops-too-much',
    severity: 'will not work',
    title: 'A line that loses too much',
    why: 'What is lost on the way does not charge.',
    source: '3 % of the nominal volts: common practice',
    check: (c) => thin(c, 'drops too much'),
  },
  {
    id: 'terminal-misfit',
    severity: 'will not work',
    title: 'A cable that will not enter its terminal',
    why: 'Cut strands are hot strands.',
    source: `${PRACTICE}; sizes assumed`,
    check: (c) =>
      c.sizing.runs.flatMap((r) => {
        const row = r.table.rows.find((x) => x.gauge === r.table.now);
        return row?.fit
          ? [
              {
                at: r.id,
                says: `${r.name}, ${gaugeName(r.table.now)}: ${row.fit}.`,
                fix: 'A pigtail of the right gauge, or a pin reducer.',
              },
            ]
          : [];
      }),
  },
  {
    id: 'return-thinner',
    severity: 'wears out',
    title: 'A return thinner than its feed',
    why: 'Volts fall on both legs; poor returns are as common as poor feeds.',
    source: PRACTICE,
    check: (c) => {
      return c.parts('charger').flatMap((p): Violation[] => {
        const [feed] = c.on(p.id, 'input');
        const [back] = c.on(p.id, 'ground');
        if (!feed || !back || wireArea(back.gauge) >= SAME_COPPER_SHARE * wireArea(feed.gauge)) return [];
        return [
          {
            at: back.id,
            says: `${back.name} is ${gaugeName(back.gauge)}, ${feed.name} ${gaugeName(feed.gauge)}.`,
            fix: 'The return as thick as the feed.',
            mend: { conductors: [back.id], set: { gauge: feed.gauge } },
          },
        ];
      });
    },
  },
];

function thin(c: RuleContext, verdict: 'too thin' | 'locks out' | 'drops too much'): Violation[] {
  return c.sizing.runs.flatMap((r): Violation[] => {
    const row = r.table.rows.find((x) => x.gauge === r.table.now)!;
    if (row.verdict !== verdict) return [];
    const says =
      verdict === 'too thin'
        ? `${r.table.continuous.toFixed(0)} A for hours in ${gaugeName(row.gauge)}, which carries ${row.ampacity.toFixed(0)} A.`
        : `${row.loopDrop.toFixed(2)} V lost at ${row.amps.toFixed(0)} A, ${(r.table.allowed ?? 0).toFixed(2)} V allowed.`;
    const { pick } = r.table;
    // What is as thick already stays as it is: no button lays a thinner wire.
    const own = (id: string) => c.rig.conductors.find((x) => x.id === id)!;
    const thinner = r.conductors.map((x) => x.id).filter((id) => pick && wireArea(own(id).gauge) < wireArea(pick));
    return [
      {
        at: r.id,
        says: `${r.name}: ${says}`,
        ...(pick
          ? {
              fix: `${gaugeName(pick)}.`,
              ...(thinner.length > 0 ? { mend: { conductors: thinner, set: { gauge: pick } } } : {}),
            }
          : { fix: 'No single gauge will do: a shorter run, better joints, or a smaller charger.' }),
      },
    ];
  });
}
