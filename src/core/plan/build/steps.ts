/**
 * The steps of a build as a graph: what must be done before what. Isolate first; dry mounting before cable;
 * lugs before pulling where an end is tight; grounds before controls before feeds; battery positives after
 * everything else, their fuses after them, negatives last. Minutes are assumed.
 */
import { isFuseOrBreaker } from '../../parts/fuses';
import type { Band as Range } from '../../parts/price';
import { is, partKind } from '../../parts/kinds';
import type { Part, Rig } from '../../rig/schema';
import { awgNumber } from '../../units/wire';
import { cutList, type Cut } from './cutList';
import type { BuildStep } from './graph';

/** From this thick a lug is no matter of a hand crimper, and a tight place none for a lug. */
const HEAVY_AWG = 6;
/** Cable longer than this goes under the floor. */
const UNDER_METRES = 2;
const MINUTES = {
  isolate: [5, 10],
  remove: [8, 20],
  lug: [5, 10],
  ground: [8, 15],
  control: [8, 15],
  feed: [6, 12],
  positive: [5, 10],
  fuse: [2, 4],
  setup: [5, 15],
  negative: [4, 8],
  label: [5, 10],
} as const satisfies Record<string, Range>;
const MOUNT_SHARE = 0.5;
const pullMinutes = (c: Cut): Range => [4 + 3 * c.length, 8 + 6 * c.length];
const LIVE = 'Fuse out or negative off before heavy cable moves; second wrench on the inner nut.';

const isCharger = (p: Part): boolean => is(p, 'charger') || is(p, 'mainsCharger') || is(p, 'waitsForCharge');
const isModule = (p: Part): boolean => partKind(p.kind).role === 'control';

/** The steps from one version of a rig to another, in no order but that of their graph. */
export function buildSteps(from: Rig, to: Rig): BuildStep[] {
  const cuts = cutList(from, to);
  const gone = from.parts.filter((p) => !to.parts.some((q) => q.id === p.id && q.kind === p.kind));
  const come = to.parts.filter((p) => !from.parts.some((q) => q.id === p.id && q.kind === p.kind));
  const changed = to.parts.filter((p) =>
    from.parts.some(
      (q) =>
        q.id === p.id &&
        q.kind === p.kind &&
        JSON.stringify([q.params, q.options, q.note]) !== JSON.stringify([p.params, p.options, p.note]),
    ),
  );
  const wiresGone = from.conductors.filter(
    (c) => !to.conductors.some((d) => d.id === c.id) || cuts.some((x) => x.id === c.id),
  );
  if (gone.length + come.length + cuts.length + changed.length + wiresGone.length === 0) return [];
  const steps: BuildStep[] = [];
  const add = (s: BuildStep): string => (steps.push(s), s.id);
  const placeOf = (id: string): string =>
    to.parts.find((p) => p.id === id)?.place ?? from.parts.find((p) => p.id === id)?.place ?? groundPlace(to, id);
  const batteries = [
    ...new Map([...from.parts, ...to.parts].filter((p) => is(p, 'battery')).map((p) => [p.id, p])).values(),
  ];

  const key = add({
    id: 'isolate',
    title: 'Engine off, key out; shore cord out, panels covered, generator off',
    place: 'Dash',
    under: false,
    minutes: MINUTES.isolate,
    after: [],
    cautions: ['Rings and watch off, eyes covered: a bank can give thousands of amps.', 'Brake on, wheels chocked.'],
  });
  const off = batteries.map((b) =>
    add({
      id: `off-${b.id}`,
      title: `${b.name}: negative off, and wrapped`,
      place: b.place,
      under: false,
      minutes: MINUTES.negative,
      after: [key],
      cautions: ['Negative first; no spark near a vented battery.'],
      piece: b.id,
    }),
  );
  const taken: string[] = [];
  for (const c of wiresGone.filter((w) => w.use !== 'control' || cuts.every((x) => x.id !== w.id)))
    taken.push(
      add({
        id: `out-${c.id}`,
        title: `Take out ${c.name}`,
        place: placeOf(c.from.part),
        under: c.length > UNDER_METRES,
        minutes: [3 + c.length, 5 + 2 * c.length],
        after: off,
        cautions: [LIVE],
        piece: c.id,
      }),
    );
  const removed = new Map(
    gone.map((p) => [
      p.id,
      add({
        id: `remove-${p.id}`,
        title: isModule(p)
          ? `Take out ${p.name}, cap its socket and tag it: a dead module left in is fixed back in some day`
          : `Take out ${p.name}`,
        place: p.place,
        under: false,
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
    ]),
  );
  const mounted = new Map(
    come.map((p): [string, string] => {
      const price = partKind(p.kind).price.minutes;
      return [
        p.id,
        add({
          id: `mount-${p.id}`,
          title: `Mount ${p.name} dry: look where the part behind is, drill, deburr, seal the holes${isCharger(p) ? '; air all round its fins' : ''}`,
          place: p.place,
          under: false,
          minutes: [price[0] * MOUNT_SHARE, price[1] * MOUNT_SHARE],
          after: [...off, ...removed.values()],
          cautions: isCharger(p) ? ['Boxed in it derates and dies: stand-off and air.'] : [],
          piece: p.id,
        }),
      ];
    }),
  );
  const pulled = new Map<string, string>();
  for (const c of cuts) {
    const ends = c.ends.flatMap((e) => mounted.get(e.at.part) ?? []);
    const tight = c.use !== 'control' && awgNumber(c.gauge) <= HEAVY_AWG;
    const before = [...off, ...ends, ...(taken.includes(`out-${c.id}`) ? [`out-${c.id}`] : [])];
    const lug = tight
      ? add({
          id: `lug-${c.id}`,
          title: `Cut ${c.name}: lug, shrink and label on the end for ${c.ends[1].part} before it is pulled`,
          place: 'Bench',
          under: false,
          minutes: MINUTES.lug,
          after: [],
          cautions: ['Tug test every crimp.'],
          piece: c.id,
          cut: { length: c.length, gauge: c.gauge },
        })
      : undefined;
    pulled.set(
      c.id,
      add({
        id: `pull-${c.id}`,
        title: `Pull ${c.name}: loom on, grommets in, a tie each 150 mm, a loop left at both ends`,
        place: placeOf(c.ends[0].at.part),
        under: c.length > UNDER_METRES,
        minutes: pullMinutes(c),
        after: [...before, ...(lug ? [lug] : [])],
        cautions:
          c.length > UNDER_METRES
            ? ['Clear of exhaust, fuel and moving parts.', 'Under a vehicle only on stands.']
            : [],
        piece: c.id,
        ...(lug ? {} : { cut: { length: c.length, gauge: c.gauge } }),
      }),
    );
  }
  const connect = (c: Cut, kind: 'ground' | 'control' | 'feed', after: readonly string[]): string =>
    add({
      id: `connect-${c.id}`,
      title:
        kind === 'ground'
          ? `Ground ${c.name}: bare metal, ring under the washer on top of the lug that is there`
          : `Connect ${c.name} at ${c.ends[0].part} and ${c.ends[1].part}`,
      place: placeOf(c.ends[1].at.part),
      under: false,
      minutes: MINUTES[kind],
      after: [pulled.get(c.id)!, ...after],
      cautions: kind === 'ground' ? ['Not on painted frame, not on aluminium skin.'] : [],
      piece: c.id,
      ...(kind === 'control' ? {} : { torque: true }),
    });
  const positive = (c: Cut): boolean =>
    c.use === 'feed' && c.ends.some((e) => batteries.some((b) => b.id === e.at.part));
  const negative = (c: Cut): boolean =>
    c.use === 'return' && c.ends.some((e) => batteries.some((b) => b.id === e.at.part));
  const grounds = cuts.filter((c) => c.use === 'return' && !negative(c)).map((c) => connect(c, 'ground', []));
  const controls = cuts.filter((c) => c.use === 'control').map((c) => connect(c, 'control', grounds));
  const feeds = cuts
    .filter((c) => c.use === 'feed' && !positive(c))
    .map((c) => connect(c, 'feed', [...grounds, ...controls]));
  const setups = [...come, ...changed]
    .filter((p) => isCharger(p) || isModule(p))
    .map((p) =>
      add({
        id: `set-${p.id}`,
        title: `Set ${p.name}${isCharger(p) ? ': profile, limits and enable by its own table, then by the meter' : ' by its label'}`,
        place: p.place,
        under: false,
        minutes: MINUTES.setup,
        after: [...(mounted.has(p.id) ? [mounted.get(p.id)!] : off)],
        cautions: ['“On” may be down: check against the table.'],
        piece: p.id,
      }),
    );
  const alters = changed
    .filter((p) => !isCharger(p) && !isModule(p))
    .map((p) =>
      add({
        id: `alter-${p.id}`,
        title: `${p.name}: make it ${p.note ?? 'as proposed'}`,
        place: p.place,
        under: false,
        minutes: [5, 15],
        after: off,
        cautions: [LIVE],
        piece: p.id,
      }),
    );
  const positives = cuts.filter(positive).map((c) => connect(c, 'feed', [...grounds, ...controls, ...feeds]));
  const minuses = cuts.filter(negative).map((c) => connect(c, 'ground', [...positives, ...feeds]));
  const all = [
    ...grounds,
    ...controls,
    ...feeds,
    ...positives,
    ...setups,
    ...alters,
    ...mounted.values(),
    ...removed.values(),
    ...taken,
  ];
  const fuses = to.parts
    .filter(isFuseOrBreaker)
    .filter((p) => come.includes(p) || cuts.some((c) => c.ends.some((e) => e.at.part === p.id)))
    .map((p) =>
      add({
        id: `fuse-${p.id}`,
        title: `${p.name}: fuse in, ${p.note ?? ''}`.trim(),
        place: p.place,
        under: false,
        minutes: MINUTES.fuse,
        after: [...all, ...minuses],
        cautions: ['Nobody’s hand on a stud.'],
        piece: p.id,
      }),
    );
  const on = batteries.map((b) =>
    add({
      id: `on-${b.id}`,
      title: `${b.name}: negative on, last of all`,
      place: b.place,
      under: false,
      minutes: MINUTES.negative,
      after: [...all, ...minuses, ...fuses],
      cautions: ['Torque by the battery’s own figure; note it.'],
      piece: b.id,
      torque: true,
    }),
  );
  add({
    id: 'label',
    title: 'Label breaker and bypass; as-built sheet and owner’s card into the rig; then Prove',
    place: 'Dash',
    under: false,
    minutes: MINUTES.label,
    after: on,
    cautions: [],
  });
  return steps;
}

function groundPlace(rig: Rig, id: string): string {
  const ground = rig.grounds.find((g) => g.id === id);
  return ground?.points[0]?.place ?? 'Bench';
}
