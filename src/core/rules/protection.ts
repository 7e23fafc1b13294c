/** Rules of fuses, breakers and wires. What they judge by is worked out in size/. */
import { is } from '../parts/kinds';
import type { FuseCheck } from '../size/fuseChecks';
import { fuseLimit, wireSpecOf } from '../size/fuseLimit';
import { runsOf } from '../size/runs';
import { FUSE_KINDS, interruptsAt, isFuseOrBreaker } from '../parts/fuses';
import { lengthInBoth, midSentence } from '../units/format';
import { gaugeName, wireArea } from '../units/wire';
import { follow, type FeedStep } from '../rig/follow';
import type { Conductor } from '../rig/schema';
import { fitFuse } from './ownFuse';
import { PRACTICE, SAME_COPPER_SHARE, type Autofix, type DesignRule, type RuleContext, type Violation } from './rule';
import { unprotectedFeeds, type UnprotectedFeed } from './batteryFeeds';
import { cited } from '../codes/ruleSet';

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

/** The first lead on a fuse that is not to be fused so high: what it hangs on carries the same amps as what it protects. */
const tooThinFor = (c: RuleContext, f: FuseCheck, amps: number): Conductor | undefined =>
  ['source', 'load']
    .flatMap((terminal) => c.on(f.part, terminal))
    .find((w) => w.use === 'feed' && amps > fuseLimit(wireSpecOf(w), c.rules).amps);

const rated = (f: FuseCheck, c: RuleContext): Pick<Violation, 'fix' | 'mend'> => {
  const { pick } = f.window;
  // The largest its wire bears may be what is in it.
  if (pick === undefined || pick === f.rating) return { fix: 'A thicker wire behind it, or less current.' };
  const thin = pick > f.rating ? tooThinFor(c, f, pick) : undefined;
  if (thin) return { fix: `${thin.name} is too thin for the ${pick} A it wants: more copper there first.` };
  return {
    fix: `Fit ${pick} A.`,
    mend: {
      part: f.part,
      set: { note: `${pick} A`, params: { rating: { value: pick, spread: 0, provenance: 'nameplate' } } },
    },
  };
};

/** A smaller fuse where one still carries the load; else more copper in the piece it does not protect. */
const protecting = (f: FuseCheck, c: RuleContext): Pick<Violation, 'fix' | 'mend'> =>
  f.window.pick !== undefined && f.window.pick < f.rating ? rated(f, c) : moreCopper(f, c);

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
        fix:
          `Fit “${kind.label}”: interrupting rating ` +
          `${interruptsAt(kind, volts).toLocaleString('en-US')} A at ${volts.toFixed(0)} V.`,
        mend: { part: f.part, set: { options: { type: kind.id } } },
      }
    : { fix: 'Fit a class T fuse, in a rating that is made.' };
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

/** A fuse comes first on the way, and it is this battery's own: nearer to it than to any other. */
const farWithFuse = (c: RuleContext, { fuse, metres, battery }: UnprotectedFeed): boolean =>
  fuse !== undefined &&
  metres > c.rules.fuseWithin.most &&
  around(c, fuse.id).every((s) => !is(s.part, 'battery') || s.part === battery || s.metres >= metres);

const unfusedAt = ({ conductor, battery, fuse, metres }: UnprotectedFeed): string =>
  `${conductor.name}, ${gaugeName(conductor.gauge)}: no fuse at ${battery.name}` +
  (fuse ? `; the first is ${fuse.name}, ${lengthInBoth(metres)} on` : '');

const moveOrFit = (c: RuleContext, f: UnprotectedFeed): Pick<Violation, 'fix' | 'mend'> => {
  const fit = fitFuse(c, f.conductor, f.end, `at ${f.battery.name}`);
  return fit.mend
    ? { ...fit, fix: `Move it to the battery, or fit one there. ${fit.fix}` }
    : { fix: 'Move the fuse to the battery.' };
};

/** A fuse somebody has seen: its rating is still to be read. */
const asSeen = (mend: Autofix): Autofix =>
  'pieces' in mend
    ? {
        pieces: {
          ...mend.pieces,
          parts: mend.pieces.parts.map((p) => ({
            ...p,
            params: {
              ...p.params,
              rating: {
                ...p.params['rating']!,
                provenance: 'assumed',
                source: 'usual on this cable: read it off the fuse',
              },
            },
          })),
        },
      }
    : mend;

export const PROTECTION_RULES: readonly DesignRule[] = [
  {
    id: 'fuse-over-wire',
    severity: 'danger',
    title: 'Fuse too big for its wire',
    why: 'The wire burns before the fuse opens.',
    source: (r) =>
      `${r.smallWire ? `${cited(r.smallWire.from)}; ` : ''}33 CFR 183.455(c) and 183.425 table 5 (from memory; ` +
      'boats allow 150 % of ampacity, this is stricter)',
    check: (c) => fuses(c, 'window', 'bad', protecting, (f) => f.rating > f.window.to),
  },
  {
    id: 'fuse-under-load',
    severity: 'will not work',
    title: 'Fuse too small for its load',
    why: 'It opens on the road, some hot day.',
    source: PRACTICE,
    check: (c) => fuses(c, 'window', 'bad', rated, (f) => f.rating > 0 && f.rating <= f.window.to),
  },
  {
    id: 'fuse-tight',
    severity: 'wears out',
    title: 'Fuse with too little headroom',
    why: 'Over 80 % of its rating continuous, it runs warm and ages.',
    source: 'Fuse makers rate for 75–80 % continuous (from memory)',
    check: (c) => fuses(c, 'window', 'watch', rated),
  },
  {
    id: 'fuse-unknown',
    severity: 'tidy',
    title: 'Fuse rating unknown',
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
    title: 'Not a standard rating for this fuse type',
    why: 'This type is not sold in that rating.',
    source: 'Ratings by kind, from memory',
    check: (c) => fuses(c, 'made', 'bad', rated),
  },
  {
    id: 'fuse-volts',
    severity: 'danger',
    title: 'Fuse voltage rating too low',
    why: 'Above its volts the arc can hold inside it.',
    source: 'ISO 8820 rated voltage; 48 V charges at up to 58 V (common practice)',
    check: (c) => fuses(c, 'volts', 'bad', (f) => kindFor(f, blocksOf(c, f))),
  },
  {
    id: 'fuse-interrupts',
    severity: 'danger',
    title: 'Interrupting rating too low',
    why: 'The banks can push more into a short than it can break: it may burst.',
    source: 'Interrupt ratings by kind, from memory',
    check: (c) => fuses(c, 'interrupts', 'bad', (f) => kindFor(f, blocksOf(c, f))),
  },
  {
    id: 'short-harms-wire',
    severity: 'danger',
    title: 'The wire burns before the fuse opens on a short',
    why: 'At the far end the bank’s current is too small to open the fuse in time.',
    source: 'IEC 60364-4-43, 434.5.2; gates of ISO 8820',
    // A smaller fuse from the window need not open sooner than the wire is harmed: only copper or a fuse nearer does.
    check: (c) => fuses(c, 'clears', 'bad', moreCopper),
  },
  {
    id: 'fuse-far',
    severity: 'danger',
    title: 'Too much unprotected cable',
    why: 'Between battery and fuse a chafed cable has nothing to stop it.',
    source: (r) => r.fuseWithin.says,
    check: (c) =>
      unprotectedFeeds(c.rig, c.rules)
        .filter((f) => !f.unlooked && farWithFuse(c, f))
        .map((f) => ({
          at: f.conductor.id,
          says: `${f.conductor.name}: ${lengthInBoth(f.metres)} of cable from ${f.battery.name} to ${f.fuse!.name}.`,
          ...moveOrFit(c, f),
        })),
  },
  {
    id: 'fuse-somewhat-far',
    severity: 'tidy',
    title: 'A fuse some way from its battery',
    why: 'The guide is 7 in (0.18 m); more wants loom and a clear route.',
    source: (r) => r.fuseWithin.says,
    check: (c) =>
      unprotectedFeeds(c.rig, c.rules)
        .filter((f) => f.metres <= c.rules.fuseWithin.most)
        .map((f) => ({
          at: f.conductor.id,
          says: `${f.conductor.name}: ${lengthInBoth(f.metres)} of cable from ${f.battery.name} to ${f.fuse!.name}.`,
          fix: 'Nearer, or sheath the cable up to it.',
        })),
  },
  {
    id: 'breaker-auto-between',
    severity: 'wears out',
    title: 'Auto-reset breaker between two batteries',
    why: 'It re-closes onto a fault, unattended.',
    source: 'SAE J553 types; common practice',
    check: (c) =>
      fuses(c, 'type', 'watch', (f) => ({
        fix: 'A fuse, or a type III.',
        mend: { part: f.part, set: { options: { type: 'manual' } } },
      })),
  },
  {
    id: 'breaker-auto-alone',
    severity: 'tidy',
    title: 'An auto-reset breaker as a battery’s only protection',
    why: 'On a short it closes again and again until somebody looks.',
    source: '33 CFR 183.455(b) wants one that is reset by hand (from memory); on tow lines it is common practice',
    check: (c) =>
      c.parts('breaker').flatMap((p): Violation[] => {
        if (c.option(p, 'type') !== 'auto') return [];
        const batteries = new Set(around(c, p.id).flatMap((s) => (is(s.part, 'battery') ? [s.part!] : [])));
        const [battery] = batteries;
        return battery && batteries.size === 1
          ? [
              {
                at: p.id,
                says: `${p.name}, type I, is the first protection at ${battery.name}.`,
                fix: 'A fuse, or a type III.',
                mend: { part: p.id, set: { options: { ...p.options, type: 'manual' } } },
              },
            ]
          : [];
      }),
  },
  {
    id: 'feed-unfused',
    severity: 'danger',
    title: 'No fuse at the battery',
    why: 'What a chafed cable draws is set by the battery alone: it burns. Cranking cables are exempt.',
    source: (r) => r.fuseWithin.says,
    check: (c) =>
      unprotectedFeeds(c.rig, c.rules)
        .filter((f) => !f.unlooked && f.metres > c.rules.fuseWithin.most && !farWithFuse(c, f))
        .map((f) => ({
          at: f.conductor.id,
          says: `${unfusedAt(f)}.`,
          ...fitFuse(c, f.conductor, f.end, `at ${f.battery.name}`),
        })),
  },
  {
    id: 'feed-look',
    severity: 'look',
    title: 'Is there a fuse at the battery?',
    why: 'It was drawn as usual rigs are; only a look tells. Without one, a chafed cable burns.',
    source: (r) => r.fuseWithin.says,
    check: (c) =>
      unprotectedFeeds(c.rig, c.rules)
        .filter((f) => f.unlooked && f.metres > c.rules.fuseWithin.most)
        .map((f) => {
          const { mend } = fitFuse(c, f.conductor, f.end, '');
          return {
            at: f.conductor.id,
            says: `${unfusedAt(f)}, and nobody has looked.`,
            fix: `Follow the cable from the post of ${f.battery.name} to the first fuse on it.`,
            answers: [
              ...(mend ? [{ says: 'It has a fuse there', edit: asSeen(mend) }] : []),
              { says: 'No fuse there', edit: { conductors: [f.conductor.id], set: { looked: true } } },
            ],
          };
        }),
  },
  {
    id: 'wire-too-thin',
    severity: 'danger',
    title: 'Wire too thin for its current',
    why: 'It runs hotter than its insulation is rated for.',
    source: '33 CFR 183.425 table 5 (from memory)',
    check: (c) => thin(c, 'too thin'),
  },
  {
    id: 'charger-locks-out',
    severity: 'will not work',
    title: 'Charger starved by its cable',
    why: 'Its input sags, it drops out, the voltage recovers, and it cycles.',
    source: PRACTICE,
    check: (c) => thin(c, 'locks out'),
  },
  {
    id: 'drops-too-much',
    severity: 'will not work',
    title: 'Too much voltage drop',
    why: 'What is lost on the way does not charge the bank.',
    source: '3 % of the nominal volts: common practice',
    check: (c) => thin(c, 'drops too much'),
  },
  {
    id: 'terminal-misfit',
    severity: 'will not work',
    title: 'Cable too big for the terminal',
    why: 'Never trim strands: what is left runs hot.',
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
    title: 'Return thinner than its feed',
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
    // Where no copper helps it is not the cable that starves it: another rule says what does.
    if (verdict === 'locks out' && r.table.rows.every((x) => x.verdict === verdict)) return [];
    const says =
      verdict === 'too thin'
        ? `${Math.max(r.table.continuous, r.table.flows).toFixed(0)} A continuous on ${gaugeName(row.gauge)} ` +
          `(ampacity ${row.ampacity.toFixed(0)} A).`
        : verdict === 'locks out'
          ? `on ${gaugeName(row.gauge)} the input sags below its lockout.`
          : `${row.loopDrop.toFixed(2)} V lost at ${row.lostAt.toFixed(0)} A, ` +
            `${(r.table.allowed ?? 0).toFixed(2)} V allowed.`;
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
