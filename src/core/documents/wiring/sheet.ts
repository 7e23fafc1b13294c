/**
 * The wiring diagram of a rig, drawn: every conductor between parts on its track, every return to metal as a ground
 * symbol. Black on white: feeds solid and as thick as they are, returns hollow, control dashed. A join has a dot; a
 * crossing has none.
 */
import { partKind } from '../../parts/kinds';
import type { Conductor, Endpoint, Part, Rig } from '../../rig/schema';
import { awgNumber } from '../../units/wire';
import { textWidth, type Shape, type Wiring, type WireRow } from './drawing';
import { isAbove, isGround, layoutOf, MARGIN_MM, STUB_MM, TOP, wrapped, type Layout, type Pin } from './layout';
import type { WiringUnits } from './names';

/** mm of ink a conductor is drawn with. */
const ink = (c: Conductor): number =>
  c.use === 'control' ? 0.35 : Math.max(0.4, Math.min(1.5, 1.2 - 0.075 * awgNumber(c.gauge)));

const groundKey = (rig: Rig, c: Pick<Conductor, 'from' | 'to'>, last: 'from' | 'to'): string => {
  const e = isGround(rig, c[last]) ? c[last] : c[last === 'to' ? 'from' : 'to'];
  return `${e.part}.${e.terminal}`;
};

type Points = [number, number][];

/** One conductor, white under it so that it passes over what it crosses. */
function wire(c: Conductor, points: Points): Shape[] {
  const w = ink(c);
  const under: Shape = { kind: 'line', points, width: w + 1.1, white: true };
  if (c.use === 'control') return [under, { kind: 'line', points, width: w, dash: [1.6, 1] }];
  if (c.use === 'return')
    return [under, { kind: 'line', points, width: w + 0.7 }, { kind: 'line', points, width: w, white: true }];
  return [under, { kind: 'line', points, width: w }];
}

/** Conductors on their tracks, thin first: where two share a riser, the thick one is seen. */
const spanWires = ({ spans }: Layout): Shape[] =>
  [...spans]
    .sort((x, y) => ink(x.c) - ink(y.c))
    .flatMap((s) =>
      wire(s.c, [
        [s.a.x, s.a.y],
        [s.a.x, s.y],
        [s.b.x, s.y],
        [s.b.x, s.b.y],
      ]),
    );

/** A dot where two conductors leave one pin on different tracks. */
const joins = ({ pins, spans }: Layout): Shape[] =>
  pins.flatMap((q): Shape[] => {
    const ys = spans.filter((s) => s.a === q || s.b === q).map((s) => s.y);
    const far = q.up ? Math.min(...ys) : Math.max(...ys);
    return ys.length > 1
      ? [...new Set(ys)].filter((y) => y !== far).map((y) => ({ kind: 'dot', x: q.x, y, r: 0.9 }))
      : [];
  });

const spanLabels = ({ spans, names, width }: Layout): Shape[] =>
  spans.flatMap((s): Shape[] => {
    const label = names.span(s.c);
    const crossing = spans.flatMap((t) => [t.a.x, t.b.x]).filter((x) => x > s.lo + 0.5 && x < s.hi - 0.5);
    const w = textWidth(label, 2.5) + 0.8;
    const x = labelPlace(s.lo, s.hi, w, crossing, MARGIN_MM, width - MARGIN_MM);
    return [
      { kind: 'box', x: x - w / 2, y: s.y - 3.5, w, h: 2.5, width: 0, white: true },
      { kind: 'text', x, y: s.y - 1.4, text: label, size: 2.5, anchor: 'middle' },
    ];
  });

const groundSymbol = (x: number, y: number): Shape[] =>
  [0, 1, 2].map((k) => ({
    kind: 'line',
    points: [
      [x - 2.2 + k * 0.75, y + k * 1],
      [x + 2.2 - k * 0.75, y + k * 1],
    ],
    width: 0.5,
  }));

/** What goes from one pin to metal: a stub, the ground's symbol, what they are called. */
function returnsAt(l: Layout, q: Pin): Shape[] {
  const { rig, names, topBottom, width } = l;
  const here = ({ from, to }: { from: Endpoint; to: Endpoint }) =>
    [from, to].some((e) => e.part === q.part && e.terminal === q.terminal);
  const mine = rig.conductors.filter((c) => here(c) && (isGround(rig, c.from) || isGround(rig, c.to)));
  const bonds = rig.bonds.filter(here);
  if (mine.length + bonds.length === 0) return [];
  const down = q.y === topBottom || !q.up;
  // Beside what already leaves the pin upward, a return goes off a little to the side.
  const crowded = l.pins.includes(q);
  const x = crowded ? q.x + 2.2 : q.x;
  const length = q.y === topBottom ? 4 : down ? STUB_MM - 17 : 4;
  const end = down ? q.y + length : q.y - length;
  const knee: Points = crowded ? [[x, down ? q.y + 1.4 : q.y - 1.4]] : [];
  const stubs = mine.flatMap((c) => wire(c, [[q.x, q.y], ...knee, [x, end]]));
  const bare: Shape[] =
    mine.length > 0
      ? []
      : [
          {
            kind: 'line',
            points: [
              [x, q.y],
              [x, end],
            ],
            width: 0.4,
          },
        ];
  const keys = [...mine.map((c) => groundKey(rig, c, 'to')), ...bonds.map((b) => groundKey(rig, b, 'from'))];
  const ground = [...new Set(keys.map((k) => names.ground(k)))].join(', ');
  return [
    ...stubs,
    ...bare,
    ...(down ? groundSymbol(x, end) : []),
    ...(crowded
      ? [besideStub([...mine.map((c) => `${names.wire(c)}, ${names.gauge(c)}`), ground].join(', '), x, end, width)]
      : // One under the other: pins stand close.
        [...mine.map((c) => names.wire(c)), ...mine.slice(0, 1).map((c) => names.gauge(c)), ground].map(
          (text, i): Shape => ({ kind: 'text', x, y: end + 5.2 + i * 2.7, text, size: 2.3, anchor: 'middle' }),
        )),
  ];
}

const besideStub = (text: string, x: number, end: number, width: number): Shape =>
  x + 3 + textWidth(text, 2) > width
    ? { kind: 'text', x: x - 2.8, y: end + 1, text, size: 2, anchor: 'end' }
    : { kind: 'text', x: x + 2.8, y: end + 1, text, size: 2, anchor: 'start' };

const strapsOf = (rig: Rig): Conductor[] => rig.conductors.filter((c) => isGround(rig, c.from) && isGround(rig, c.to));

/** Straps from metal to metal, in a row of their own under the grounds. */
const straps = ({ rig, names, mainTop, heights }: Layout): Shape[] =>
  strapsOf(rig).flatMap((c, i): Shape[] => {
    const y = mainTop + heights.main + STUB_MM - 1;
    const x = MARGIN_MM + 6 + i * 46;
    const name = (e: Endpoint) => names.ground(`${e.part}.${e.terminal}`);
    return [
      ...wire(c, [
        [x, y],
        [x + 26, y],
      ]),
      { kind: 'text', x: x - 1, y: y + 0.9, text: name(c.from), size: 2.5, anchor: 'end' },
      { kind: 'text', x: x + 27, y: y + 0.9, text: name(c.to), size: 2.5, anchor: 'start' },
      { kind: 'text', x: x + 13, y: y - 1.6, text: names.span(c), size: 2.5, anchor: 'middle' },
    ];
  });

/** A part's pins with their names. Those run upward: what hangs from the top edge ends there, what stands on the bottom begins there. */
const pinShapes = ({ names, pins, belowPins }: Layout, p: Part, y: number, height: number): Shape[] =>
  [...pins, ...belowPins]
    .filter((q) => q.part === p.id)
    .flatMap((q): Shape[] => {
      const text = names.pin(
        p,
        partKind(p.kind).terminals.find((t) => t.id === q.terminal)!,
      );
      const x = q.x + 0.75;
      return [
        { kind: 'dot', x: q.x, y: q.y, r: 0.75 },
        q.y === y
          ? { kind: 'text', x, y: y + 1.8, text, size: 2.1, anchor: 'end', up: true }
          : { kind: 'text', x, y: y + height - 1.8, text, size: 2.1, anchor: 'start', up: true },
      ];
    });

/** A part, over its wires' ends. */
function partShapes(l: Layout, p: Part): Shape[] {
  const { x, w } = l.at.get(p.id)!;
  const [y, h] = isAbove(p) ? [TOP, l.heights.top] : [l.mainTop, l.heights.main];
  const lines = wrapped(p.name, w - 2, 2.7);
  const first = isAbove(p) ? y + 5 : y + l.namesAt;
  const middle = x + w / 2;
  return [
    { kind: 'box', x, y, w, h, width: 0.5, white: true, round: 1 },
    ...pinShapes(l, p, y, h),
    ...lines.map((text, i): Shape => ({
      kind: 'text',
      x: middle,
      y: first + i * 3,
      text,
      size: 2.7,
      anchor: 'middle',
      bold: true,
    })),
    ...(p.note
      ? [
          {
            kind: 'text',
            x: middle,
            y: first + lines.length * 3,
            text: wrapped(p.note, w - 1, 2.4)[0]!,
            size: 2.4,
            anchor: 'middle',
          } as const,
        ]
      : []),
  ];
}

/** Where one vehicle ends and the next begins: the lines, to stand under all else, and their names. */
function borders({ rig, rows, at }: Layout, height: number): { lines: Shape[]; names: Shape[] } {
  const lines: Shape[] = [];
  const names: Shape[] = [];
  rows.main.forEach((p, i) => {
    const before = rows.main[i - 1];
    if (!before || before.vehicle === p.vehicle) return;
    const x = (at.get(before.id)!.x + at.get(before.id)!.w + at.get(p.id)!.x) / 2;
    lines.unshift({
      kind: 'line',
      points: [
        [x, TOP - 4],
        [x, height - MARGIN_MM],
      ],
      width: 0.3,
      dash: [4, 1.2, 0.8, 1.2],
    });
    const name = (id: string) => rig.vehicles.find((v) => v.id === id)!.role.replace('-', ' ');
    names.push(
      { kind: 'text', x: x - 2, y: TOP - 4, text: name(before.vehicle), size: 2.8, anchor: 'end' },
      { kind: 'text', x: x + 2, y: TOP - 4, text: name(p.vehicle), size: 2.8, anchor: 'start' },
    );
  });
  return { lines, names };
}

const captions = (rig: Rig, height: number): Shape[] => [
  { kind: 'text', x: MARGIN_MM, y: MARGIN_MM + 1, text: `${rig.name}: wiring`, size: 4.2, anchor: 'start', bold: true },
  {
    kind: 'text',
    x: MARGIN_MM,
    y: height - 3,
    text:
      'Solid: feed, as thick as its gauge. Hollow: return. Dashed: control. A dot ' +
      'joins; a crossing without one does not. P: probe. G: ground, see the list.',
    size: 2.5,
    anchor: 'start',
  },
];

const wireRows = ({ rig, names }: Layout): WireRow[] =>
  rig.conductors.map((c) => {
    const clamp = names.probe(`${c.id}.clamp`);
    return {
      wire: names.wire(c),
      name: `${c.name}${clamp ? `, clamp ${clamp}` : ''}`,
      use: c.use,
      from: names.end(c.from),
      to: names.end(c.to),
      gauge: names.gauge(c),
      length: names.length(c),
    };
  });

/** The diagram of a revision, and its schedule. */
export function wiringOf(rig: Rig, units: WiringUnits): Wiring {
  const layout = layoutOf(rig, units);
  const height = layout.mainTop + layout.heights.main + STUB_MM + (strapsOf(rig).length > 0 ? 4 : 0) + MARGIN_MM;
  const border = borders(layout, height);
  return {
    drawing: {
      width: layout.width,
      height,
      // Wires first, then what stands over them.
      shapes: [
        ...border.lines,
        ...spanWires(layout),
        ...joins(layout),
        ...spanLabels(layout),
        ...[...layout.belowPins, ...layout.pins].flatMap((q) => returnsAt(layout, q)),
        ...straps(layout),
        ...[...layout.rows.top, ...layout.rows.main].flatMap((p) => partShapes(layout, p)),
        ...border.names,
        ...captions(rig, height),
      ],
      title: `Wiring of ${rig.name}`,
    },
    wires: wireRows(layout),
    grounds: rig.grounds.flatMap((g) =>
      g.points.map((p) => ({
        ground: layout.names.ground(`${g.id}.${p.id}`),
        name: `${g.name}, ${p.label}`,
        place: p.place,
      })),
    ),
  };
}

/** Where on a track a label of width `w` is crossed by the fewest verticals, nearest its middle. */
function labelPlace(
  lo: number,
  hi: number,
  w: number,
  crossing: readonly number[],
  left: number,
  right: number,
): number {
  const middle = Math.max(left + w / 2, Math.min(right - w / 2, (lo + hi) / 2));
  let best = middle;
  let cost = Infinity;
  for (let x = lo + w / 2; x <= hi - w / 2; x += 1) {
    const c = crossing.filter((v) => Math.abs(v - x) < w / 2 + 0.6).length * 100 + Math.abs(x - middle);
    if (c < cost) {
      cost = c;
      best = x;
    }
  }
  return best;
}
