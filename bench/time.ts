/**
 * Time's half of `./surrik bench`: a trip, a winter, event times against a run a hundred times tighter, the same
 * small net in ngspice's transient, and six options by sixty samples on two cores.
 */
import { execFile } from 'node:child_process';
import { mkdtempSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { promisify } from 'node:util';
import { compileRig } from '../src/core/compile/compile';
import { candidatesOf, usualPick } from '../src/core/plan/candidates';
import { motorhome, USUAL_MOTORHOME } from '../src/core/rig/archetypes/motorhome';
import { sampleCandidate } from '../src/core/plan/sensitivity';
import type { Leg, Scenario } from '../src/core/simulate/scenarioSchema';
import { simulate } from '../src/core/simulate/simulate';
import { wireResistance } from '../src/core/units/wire';
import { smallPart, smallRig } from '../tests/smallRigs';
import { bankDeck, transient, type Bank } from '../tests/spiceBanks';

const now = () => performance.now();
const median = (list: number[]) => [...list].sort((a, b) => a - b)[list.length >> 1]!;
const leg = (kind: Leg['kind'], hours: number, more: Partial<Leg> = {}): Leg => ({
  id: `${kind}${hours}`,
  name: kind,
  kind,
  hours,
  celsius: 15,
  sunHours: 0,
  loads: ['standby', 'fridge-compressor'],
  ...more,
});
const scenario = (legs: Leg[]): Scenario => ({
  id: 'bench',
  name: 'Bench',
  startHour: 20,
  startSoc: { 'coach-bank': 0.9 },
  legs: legs.map((l, i) => ({ ...l, id: `l${i}` })),
});

const TRIP = scenario([
  leg('stand', 10, { loads: ['standby', 'fridge-compressor', 'furnace-fan'] }),
  leg('drive', 4, { idleShare: 0.2 }),
  leg('stand', 1),
  leg('drive', 4, { idleShare: 0.1 }),
  leg('stand', 11),
  leg('idle', 0.75),
  leg('drive', 3.25),
  leg('shore', 10),
  leg('stand', 4),
]);
const WINTER = scenario(Array.from({ length: 3 }, () => leg('stand', 30 * 24, { celsius: 5, loads: [], sunHours: 0 })));
const LINKS = ['ignition-delay', 'bidirectional', 'timed-window', 'dcdc-boost'] as const;
const rigs = LINKS.map(
  (link) =>
    [
      link,
      compileRig(motorhome('bench', 'Bench', { ...USUAL_MOTORHOME, link, solar: link === 'timed-window' })),
    ] as const,
);

const args = process.argv.slice(2);
if (args[0] === 'samples') {
  // A half of the samples, in a process of its own.
  const [, half, all] = args.map(Number) as [number, number, number];
  const list = candidatesOf(motorhome('bench', 'Bench'));
  const use = [
    scenario([
      leg('stand', 16),
      leg('drive', 5, { idleShare: 0.2 }),
      leg('stand', 22),
      leg('drive', 5, { idleShare: 0.2 }),
    ]),
  ];
  for (const c of list.filter((x) => usualPick(list).includes(x.id)))
    sampleCandidate(
      c,
      use,
      all,
      1,
      Array.from({ length: all }, (_, i) => i).filter((i) => i % 2 === half),
    );
  process.exit(0);
}

for (const [name, work, reach] of [
  ['48-hour trip', TRIP, 100],
  ['90 days of storage', WINTER, 300],
] as const) {
  for (const [link, compiled] of rigs) {
    for (let k = 0; k < 4; k++) simulate(compiled, work);
    const times = Array.from({ length: 9 }, () => {
      const t = now();
      simulate(compiled, work);
      return now() - t;
    });
    console.log(
      `${name}, ${link}: median ${median(times).toFixed(1)} ms, worst of nine ${Math.max(...times).toFixed(1)} (reach ${reach})`,
    );
  }
}

let far = 0;
let events = 0;
let outside = 0;
let late = 0;
for (const [, compiled] of rigs) {
  const usual = simulate(compiled, TRIP).events.filter((e) => e.kind === 'controller');
  const exact = simulate(compiled, TRIP, { tolerance: 2e-5 });
  const tight = exact.events.filter((e) => e.kind === 'controller');
  /** Slowest of the two banks' volts just before a time, V/s: what a module watches. */
  const slope = (t: number) => {
    let i = exact.t.findIndex((x) => x >= t - 1e-6);
    if (i < 1) i = 1;
    while (i > 1 && exact.t[i - 1]! >= exact.t[i]!) i--;
    const of = (id: string) => {
      const v = exact.series.find((s) => s.id === id)!.values;
      return Math.abs((v[i]! - v[i - 1]!) / Math.max(1e-9, exact.t[i]! - exact.t[i - 1]!));
    };
    return Math.min(of('coach-bank.volts'), of('chassis-bank.volts'));
  };
  usual.forEach((e, i) => {
    const other = tight[i];
    events++;
    if (!other || other.what !== e.what) {
      outside++;
      return;
    }
    const off = Math.abs(other.t - e.t);
    far = Math.max(far, off);
    if (off > 1) late++;
    if (off > Math.max(1, 1e-3 / slope(other.t))) outside++;
  });
}
console.log(
  `event times against a run 100 times tighter: ${events} events, ${late} further than 1 s, farthest ` +
    `${far.toFixed(1)} s; ${outside} further than the watched volts take for 1 mV (reach none)`,
);

const folder = mkdtempSync(join(tmpdir(), 'surrik-bench-time-'));
const foot = wireResistance('4/0', 0.3);
const banks: [Bank, Bank] = [
  { name: 'a', chemistry: 'agm', ah: 100, soc: 0.8 },
  { name: 'b', chemistry: 'flooded', ah: 200, soc: 0.45 },
];
const small = compileRig(
  smallRig(
    [
      ...banks.map((b) =>
        smallPart(
          b.name,
          'battery-bank',
          'coach',
          { capacity: b.ah, soc: b.soc, surface: 0, ageing: 1 },
          { chemistry: b.chemistry },
        ),
      ),
      smallPart(
        'charger',
        'shore-charger',
        'coach',
        { setPoint: 14.2, limit: 45, droop: 0.004 },
        { build: 'converter' },
      ),
    ],
    [
      ['charger.plus', 'a.plus', 0.002],
      ['charger.minus', 'frame.bolt', 0.001],
      ['a.minus', 'frame.bolt', 0.001],
      ['b.minus', 'frame.bolt', 0.001],
      ['a.plus', 'b.plus', 0.01],
    ],
  ),
);
// Before either bank is full: beyond it ngspice's charge would run past one.
const hours = 3;
const shore = scenario([leg('shore', hours, { celsius: 25, loads: [] })]);
delete shore.startSoc;
const deck = [
  ...banks.flatMap(bankDeck),
  `Bc 0 plus_a I=min(45,max(0,(14.2-v(plus_a))/${0.004 + 0.003 + 2 * foot}))`,
  `Rma minus_a 0 ${0.001 + foot}`,
  `Rmb minus_b 0 ${0.001 + foot}`,
  `Rl plus_a plus_b ${0.01 + foot}`,
];
const exact = simulate(small, shore, { tolerance: 1e-6 }).summary.batteries.map((b) => b.ahIn - b.ahOut);
const missed = (ah: readonly number[]) => Math.max(...ah.map((x, i) => Math.abs(x - exact[i]!)));
const seconds = hours * 3600;
const AGAIN = 40;
/** One analysis by ngspice without its start: forty more of them against one. */
const spice = (longest: number) => {
  const once = (again: number) => {
    let best = Infinity;
    let rows: number[][] = [];
    for (let k = 0; k < 5; k++) {
      const t = now();
      rows = transient(folder, 'bench', deck, seconds, ['v(q_a)', 'v(q_b)'], 'reltol=1e-4 method=gear', longest, again);
      best = Math.min(best, now() - t);
    }
    return { ms: best, ah: rows[rows.length - 1]!.slice(1) };
  };
  const one = once(0);
  return { ms: (once(AGAIN).ms - one.ms) / AGAIN, ah: one.ah };
};
for (const longest of [seconds / 50, seconds / 200, seconds / 1000]) {
  const theirs = spice(longest);
  // The coarsest of our tolerances that is as near.
  const ours = [2e-1, 2e-2, 2e-3, 2e-4, 2e-5, 2e-6].map((tolerance) => {
    const run = () => simulate(small, shore, { tolerance, series: false });
    for (let k = 0; k < 6; k++) run();
    const times = Array.from({ length: 15 }, () => {
      const t = now();
      run();
      return now() - t;
    });
    return { ms: Math.min(...times), off: missed(run().summary.batteries.map((x) => x.ahIn - x.ahOut)) };
  });
  const asNear = ours.find((o) => o.off <= missed(theirs.ah));
  const held = asNear
    ? `${asNear.ms.toFixed(2)} ms for ${asNear.off.toExponential(1)} Ah, ${(theirs.ms / asNear.ms).toFixed(1)} times faster`
    : `is not as near: ${ours.map((o) => `${o.ms.toFixed(2)} ms ${o.off.toExponential(0)} Ah`).join(', ')}`;
  console.log(
    `ngspice transient, steps up to ${longest.toFixed(0)} s: ${theirs.ms.toFixed(2)} ms for ` +
      `${missed(theirs.ah).toExponential(1)} Ah of error; ours ${held} (reach 10)`,
  );
}
rmSync(folder, { recursive: true, force: true });

const t = now();
const run = promisify(execFile);
await Promise.all(
  [0, 1].map((half) => run('node', ['node_modules/tsx/dist/cli.mjs', 'bench/time.ts', 'samples', String(half), '60'])),
);
console.log(
  `six options by 60 samples of a two-day trip, two processes, their start included: ${((now() - t) / 1000).toFixed(1)} s (reach 20)`,
);
