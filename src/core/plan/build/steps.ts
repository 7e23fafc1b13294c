/**
 * The steps of a build as a graph: what must be done before what. Isolate first; dry mounting before cable;
 * lugs before pulling where an end is tight; grounds before controls before feeds; battery positives after
 * everything else, negatives on with the fuses out, and the fuses in last: the last connection makes the spark, and a
 * fuse makes it away from the battery. Minutes are assumed.
 */
import { isFuseOrBreaker } from '../../parts/fuses';
import type { PriceRange } from '../../parts/price';
import { is, partKind } from '../../parts/kinds';
import type { Conductor, Part, Rig } from '../../rig/schema';
import { awgNumber } from '../../units/wire';
import { cutList, type Cut } from './cutList';
import type { BuildStep } from './graph';

/** From this thick a lug is no matter of a hand crimper, and a tight place none for a lug. */
const HEAVY_AWG = 6;
/** Cable longer than this goes under the floor. */
const UNDER_FLOOR_METRES = 2;
const MINUTES = {
  isolate: [5, 10],
  remove: [8, 20],
  lug: [5, 10],
  ground: [8, 15],
  control: [8, 15],
  feed: [6, 12],
  fuse: [2, 4],
  setup: [5, 15],
  negative: [4, 8],
  label: [5, 10],
} as const satisfies Record<string, PriceRange>;
const MOUNT_SHARE = 0.5;
/** Routes called by name; the cut list has the rest. */
const ROUTES_NAMED = 4;
const pullMinutes = (c: Cut): PriceRange => [4 + 3 * c.length, 8 + 6 * c.length];
const LIVE = 'Fuse out or negative off before heavy cable moves; second wrench on the inner nut.';

const UNDER = [
  'Clear of exhaust, fuel and moving parts.',
  'Under a vehicle only on stands, with air suspension and jacks locked out.',
] as const;

const isCharger = (p: Part): boolean => is(p, 'charger') || is(p, 'mainsCharger') || is(p, 'waitsForCharge');
const isModule = (p: Part): boolean => partKind(p.kind).role === 'control';

/** What to mind where a part is mounted: common practice; 33 CFR 183.410 and NFPA 1192 for sparks, from memory. */
function mountCautions(p: Part): string[] {
  if (isCharger(p)) return ['Boxed in it derates and dies: stand-off and air.'];
  if (is(p, 'battery'))
    return [
      'Flooded or AGM in living space: a box vented to the outside. Lithium there only where local rules allow it.',
      'Three or more in parallel: a fuse at each.',
    ];
  if (isFuseOrBreaker(p) || is(p, 'solenoid'))
    return ['In a battery, LP or gasoline compartment ignition-protected kinds only: others spark.'];
  return [];
}

type Ids = readonly string[];
type NewStep = Omit<BuildStep, 'under' | 'cautions' | 'after'> &
  Partial<Pick<BuildStep, 'under' | 'cautions'>> & { after: Ids };

/** What differs between two versions of a rig, and the steps as they are found. */
interface Work {
  cuts: readonly Cut[];
  gone: readonly Part[];
  come: readonly Part[];
  /** The same part with other figures or settings. */
  changed: readonly Part[];
  wiresGone: readonly Conductor[];
  batteries: readonly Part[];
  placeOf(id: string): string;
  /** Adds a step; its id, for those that come after it. */
  add(step: NewStep): string;
}

const figures = (p: Part): string => JSON.stringify([p.params, p.options, p.note]);

function workOf(from: Rig, to: Rig, steps: BuildStep[]): Work {
  const cuts = cutList(from, to);
  const same = (list: readonly Part[], p: Part) => list.find((q) => q.id === p.id && q.kind === p.kind);
  return {
    cuts,
    gone: from.parts.filter((p) => !same(to.parts, p)),
    come: to.parts.filter((p) => !same(from.parts, p)),
    changed: to.parts.filter((p) => {
      const was = same(from.parts, p);
      return was && figures(was) !== figures(p);
    }),
    wiresGone: from.conductors.filter(
      (c) => !to.conductors.some((d) => d.id === c.id) || cuts.some((x) => x.id === c.id),
    ),
    batteries: [
      ...new Map([...from.parts, ...to.parts].filter((p) => is(p, 'battery')).map((p) => [p.id, p])).values(),
    ],
    placeOf: (id) =>
      to.parts.find((p) => p.id === id)?.place ?? from.parts.find((p) => p.id === id)?.place ?? groundPlace(to, id),
    add(step) {
      steps.push({ under: false, cautions: [], ...step, after: [...step.after] });
      return step.id;
    },
  };
}

/** Everything dead: engine and cord, then each battery's negative. */
function isolate({ batteries, add }: Work, before: Ids): Ids {
  const key = add({
    id: 'isolate',
    title: 'Engine off, key out; shore cord out, panels covered, generator off',
    place: 'Dash',
    minutes: MINUTES.isolate,
    after: before,
    cautions: [
      'Rings and watch off, safety glasses on: a bank can give thousands of amps.',
      'Brake on, wheels chocked. LP gas off at the bottle.',
      'Hands off orange cables. Battery under a seat: key off ten minutes first, for the airbags; note its radio code.',
    ],
  });
  return batteries.map((b) =>
    add({
      id: `off-${b.id}`,
      title: `${b.name}: negative off, and wrapped`,
      place: b.place,
      minutes: MINUTES.negative,
      after: [key],
      cautions:
        b.options?.['chemistry'] === 'lfp'
          ? ['Cover both studs at once: its BMS does not stop a short outside its case.']
          : [
              'Negative first; no spark near a vented battery.',
              'Acid: water and baking soda within reach. A heavy block is lifted by two, or by a strap.',
            ],
      piece: b.id,
    }),
  );
}

/** Old wires out; a control wire that is only cut anew stays until it is pulled. */
const takeOut = ({ wiresGone, cuts, placeOf, add }: Work, off: Ids): Ids =>
  wiresGone
    .filter((w) => w.use !== 'control' || cuts.every((x) => x.id !== w.id))
    .map((c) =>
      add({
        id: `out-${c.id}`,
        title: `Take out ${c.name}`,
        place: placeOf(c.from.part),
        under: c.length > UNDER_FLOOR_METRES,
        minutes: [3 + c.length, 5 + 2 * c.length],
        after: off,
        cautions: [LIVE, ...(c.length > UNDER_FLOOR_METRES ? UNDER : [])],
        piece: c.id,
      }),
    );

const removeParts = ({ gone, wiresGone, add }: Work, off: Ids, taken: Ids): Ids =>
  gone.map((p) =>
    add({
      id: `remove-${p.id}`,
      title: isModule(p)
        ? `Take out ${p.name}, cap its socket and tag it: if it stays, someone will reconnect it`
        : `Take out ${p.name}`,
      place: p.place,
      minutes: MINUTES.remove,
      after: [
        ...off,
        ...wiresGone
          .filter((c) => c.from.part === p.id || c.to.part === p.id)
          .map((c) => `out-${c.id}`)
          .filter((id) => taken.includes(id)),
      ],
      cautions: [LIVE],
      piece: p.id,
    }),
  );

/** New parts, by the id of the part. */
const mountParts = ({ come, add }: Work, off: Ids, removed: Ids): ReadonlyMap<string, string> =>
  new Map(
    come.map((p): [string, string] => {
      const [least, most] = partKind(p.kind).price.minutes;
      return [
        p.id,
        add({
          id: `mount-${p.id}`,
          title:
            `Mount ${p.name} dry: look where the part behind is, drill, deburr, ` +
            `seal the holes${isCharger(p) ? '; air all round its fins' : ''}`,
          place: p.place,
          minutes: [least * MOUNT_SHARE, most * MOUNT_SHARE],
          after: [...off, ...removed],
          cautions: mountCautions(p),
          piece: p.id,
        }),
      ];
    }),
  );

/** What is cut is measured first: along its way, around what is in it, and the length written down. */
function measureRoutes({ cuts, add }: Work): Ids {
  if (cuts.length === 0) return [];
  const names = cuts.slice(0, ROUTES_NAMED).map((c) => c.name);
  const more = cuts.length - names.length;
  return [
    add({
      id: 'routes',
      title: 'Measure each route with a cord and write its length down under Sizing',
      // It goes the length of the rig: counted where one starts.
      place: 'Dash',
      minutes: [2 + cuts.length, 5 + 3 * cuts.length],
      after: [],
      cautions: [
        `${names.join(', ')}${more > 0 ? ` and ${more} more` : ''}: their lengths are assumed until somebody has measured them.`,
        'Around exhaust, fuel and moving parts, not past them.',
      ],
    }),
  ];
}

/** Cables pulled, by the id of the cable; a heavy one gets its far lug on the bench first. */
function pullCables(
  { cuts, placeOf, add }: Work,
  routes: Ids,
  off: Ids,
  taken: Ids,
  mounted: ReadonlyMap<string, string>,
): ReadonlyMap<string, string> {
  const pulled = new Map<string, string>();
  for (const c of cuts) {
    const ends = c.ends.flatMap((e) => mounted.get(e.at.part) ?? []);
    const heavy = c.use !== 'control' && awgNumber(c.gauge) <= HEAVY_AWG;
    const cut = { length: c.length, gauge: c.gauge };
    const lug = heavy
      ? add({
          id: `lug-${c.id}`,
          title: `Cut ${c.name}: lug, shrink and label on the end for ${c.ends[1].part} before it is pulled`,
          place: 'Bench',
          minutes: MINUTES.lug,
          after: routes,
          cautions: ['Tug test every crimp.'],
          piece: c.id,
          cut,
        })
      : undefined;
    const under = c.length > UNDER_FLOOR_METRES;
    pulled.set(
      c.id,
      add({
        id: `pull-${c.id}`,
        title: `Pull ${c.name}: loom on, grommets in, a tie each 150 mm, a loop left at both ends`,
        place: placeOf(c.ends[0].at.part),
        under,
        minutes: pullMinutes(c),
        after: [
          ...off,
          ...routes,
          ...ends,
          ...(taken.includes(`out-${c.id}`) ? [`out-${c.id}`] : []),
          ...(lug ? [lug] : []),
        ],
        cautions: under ? [...UNDER] : [],
        piece: c.id,
        ...(lug ? {} : { cut }),
      }),
    );
  }
  return pulled;
}

function connect(
  { placeOf, add }: Work,
  c: Cut,
  kind: 'ground' | 'control' | 'feed',
  pulled: ReadonlyMap<string, string>,
  after: Ids,
): string {
  return add({
    id: `connect-${c.id}`,
    title:
      kind === 'ground'
        ? `Ground ${c.name}: bare metal, ring under the washer on top of the lug that is there`
        : `Connect ${c.name} at ${c.ends[0].part} and ${c.ends[1].part}`,
    place: placeOf(c.ends[1].at.part),
    minutes: MINUTES[kind],
    after: [pulled.get(c.id)!, ...after],
    cautions:
      kind === 'ground' ? ['Not on painted frame or aluminum skin, and never past a monitor’s shunt on the post.'] : [],
    piece: c.id,
    ...(kind === 'control' ? {} : { torque: true }),
  });
}

const onBattery = ({ batteries }: Work, c: Cut): boolean =>
  c.ends.some((e) => batteries.some((b) => b.id === e.at.part));

interface Connected {
  grounds: Ids;
  controls: Ids;
  feeds: Ids;
}

/** What ends on no battery: grounds, then control, then feeds. */
function connectInner(work: Work, pulled: ReadonlyMap<string, string>): Connected {
  const of = (use: Cut['use']) => work.cuts.filter((c) => c.use === use && (use === 'control' || !onBattery(work, c)));
  const grounds = of('return').map((c) => connect(work, c, 'ground', pulled, []));
  const controls = of('control').map((c) => connect(work, c, 'control', pulled, grounds));
  const feeds = of('feed').map((c) => connect(work, c, 'feed', pulled, [...grounds, ...controls]));
  return { grounds, controls, feeds };
}

/** What ends on a battery comes last, its negative after its positive. */
function connectBatteries(
  work: Work,
  pulled: ReadonlyMap<string, string>,
  { grounds, controls, feeds }: Connected,
): { positives: Ids; negatives: Ids } {
  const of = (use: Cut['use']) => work.cuts.filter((c) => c.use === use && onBattery(work, c));
  const positives = of('feed').map((c) => connect(work, c, 'feed', pulled, [...grounds, ...controls, ...feeds]));
  const negatives = of('return').map((c) => connect(work, c, 'ground', pulled, [...positives, ...feeds]));
  return { positives, negatives };
}

/** Chargers and modules set, everything else that changes made so. */
function setAndAlter({ come, changed, add }: Work, off: Ids, mounted: ReadonlyMap<string, string>): Ids {
  const isSet = (p: Part) => isCharger(p) || isModule(p);
  const setups = [...come, ...changed].filter(isSet).map((p) => {
    const mount = mounted.get(p.id);
    return add({
      id: `set-${p.id}`,
      title: `Set ${p.name}${isCharger(p) ? ': profile, limits and enable by its own table, then by the meter' : ' by its label'}`,
      place: p.place,
      minutes: MINUTES.setup,
      after: mount === undefined ? off : [mount],
      cautions: ['“On” may be down: check against the table.'],
      piece: p.id,
    });
  });
  const alters = changed
    .filter((p) => !isSet(p))
    .map((p) =>
      add({
        id: `alter-${p.id}`,
        title: `${p.name}: make it ${p.note ?? 'as proposed'}`,
        place: p.place,
        minutes: [5, 15],
        after: off,
        cautions: [LIVE],
        piece: p.id,
      }),
    );
  return [...setups, ...alters];
}

/** Fuses in, batteries on, labels. @param before everything else. */
function makeLive({ cuts, come, batteries, add }: Work, to: Rig, before: Ids): void {
  const fresh = to.parts
    .filter(isFuseOrBreaker)
    .filter((p) => come.includes(p) || cuts.some((c) => c.ends.some((e) => e.at.part === p.id)));
  const inverter = to.parts.some((p) => p.options?.['build'] === 'inverter-charger');
  const on = batteries.map((b) =>
    add({
      id: `on-${b.id}`,
      title: `${b.name}: negative on, ${fresh.length > 0 ? 'with the fuses still out' : 'last of all'}`,
      place: b.place,
      minutes: MINUTES.negative,
      after: before,
      cautions: [
        'Vent the bay first; torque by the battery’s own figure, and note it.',
        'Nobody in the way of slide-outs, steps or jacks: they may move when the bank comes back.',
      ],
      piece: b.id,
      torque: true,
    }),
  );
  const fuses = fresh.map((p) =>
    add({
      id: `fuse-${p.id}`,
      title: `${p.name}: fuse in, ${p.note ?? ''}`.trim(),
      place: p.place,
      minutes: MINUTES.fuse,
      after: on,
      cautions: [
        'Nobody’s hand on a stud. The spark is made here, away from the battery.',
        ...(inverter ? ['Charge the inverter’s capacitors through a resistor first.'] : []),
      ],
      piece: p.id,
    }),
  );
  add({
    id: 'label',
    title: 'Label breaker and bypass; as-built sheet and owner’s card into the rig; then Prove',
    place: 'Dash',
    minutes: MINUTES.label,
    after: fuses.length > 0 ? fuses : on,
  });
}

/** The steps from one version of a rig to another, in no order but that of their graph. */
export function buildSteps(from: Rig, to: Rig): BuildStep[] {
  const steps: BuildStep[] = [];
  const work = workOf(from, to, steps);
  if ([work.gone, work.come, work.cuts, work.changed, work.wiresGone].every((list) => list.length === 0)) return [];
  // While the rig still lives: it stands dead no longer than it must.
  const routes = measureRoutes(work);
  const off = isolate(work, routes);
  const taken = takeOut(work, off);
  const removed = removeParts(work, off, taken);
  const mounted = mountParts(work, off, removed);
  const pulled = pullCables(work, routes, off, taken, mounted);
  const inner = connectInner(work, pulled);
  const set = setAndAlter(work, off, mounted);
  const { positives, negatives } = connectBatteries(work, pulled, inner);
  const wires = [...inner.grounds, ...inner.controls, ...inner.feeds, ...positives];
  makeLive(work, to, [...wires, ...set, ...mounted.values(), ...removed, ...taken, ...negatives]);
  return steps;
}

function groundPlace(rig: Rig, id: string): string {
  const ground = rig.grounds.find((g) => g.id === id);
  return ground?.points[0]?.place ?? 'Bench';
}
