/**
 * The wiring diagram of a rig: heavy parts nose to tail in one row, what decides above them, every conductor
 * between parts on a track of its own in between, every return to metal as a ground symbol. Black on white:
 * feeds solid and as thick as they are, returns hollow, control dashed. A join has a dot; a crossing has none.
 */
import { partKind } from '../../parts/kinds';
import type { Conductor, Endpoint, Part, Rig } from '../../rig/schema';
import { awgNumber, gaugeShown } from '../../units/wire';
import { lengthShown, type GaugeUnit, type LengthUnit } from '../../units/preferences';
import { textWidth, type Drawing, type Shape, type Wiring, type WireRow } from './drawing';

const MARGIN = 8;
const PIN = 7;
const BOX_MIN = 21;
const GAP = 5;
const TRACK = 5.6;
const CLEAR = 7;
const STUB = 31;

interface Pin {
  part: string;
  terminal: string;
  x: number;
  y: number;
  /** The conductors leave upward from the box, or downward. */
  up: boolean;
}

interface Units {
  length: LengthUnit;
  gauge: GaugeUnit;
}

/** mm of ink a conductor is drawn with. */
const ink = (c: Conductor): number =>
  c.use === 'control' ? 0.35 : Math.max(0.4, Math.min(1.5, 1.2 - 0.075 * awgNumber(c.gauge)));

const isGround = (rig: Rig, e: Endpoint): boolean => rig.grounds.some((g) => g.id === e.part);

/** Wires by number, in the order of the document: an id keeps its number while nothing before it is taken out. */
export const wireLabels = (rig: Rig): Map<string, string> => new Map(rig.conductors.map((c, i) => [c.id, `W${i + 1}`]));

/** The diagram of a revision, and its schedule. */
export function wiringOf(rig: Rig, units: Units): Wiring {
  const labels = wireLabels(rig);
  const probes = new Map(rig.probes.filter((p) => !p.retired).map((p) => [p.key, p.label]));
  const pinWords = (p: Part, t: { id: string; label: string }): string => {
    const flag = probes.get(`${p.id}.${t.id}`);
    return flag ? `${t.label} ${flag}` : t.label;
  };
  const shapes: Shape[] = [];
  const isTop = (p: Part): boolean => partKind(p.kind).role === 'control';
  const used = (p: Part) => {
    const on = (t: string) =>
      rig.conductors.filter(
        (c) => (c.from.part === p.id && c.from.terminal === t) || (c.to.part === p.id && c.to.terminal === t),
      );
    const pins = partKind(p.kind).terminals.filter(
      (t) =>
        on(t.id).length > 0 ||
        rig.bonds.some((b) => [b.from, b.to].some((e) => e.part === p.id && e.terminal === t.id)),
    );
    const other = (c: Conductor, t: string): Endpoint =>
      c.from.part === p.id && c.from.terminal === t ? c.to : c.from;
    // A terminal all of whose conductors go to metal hangs below; the others reach up to the tracks.
    const below = pins.filter((t) => on(t.id).every((c) => isGround(rig, other(c, t.id))));
    return { pins, below, above: pins.filter((t) => !below.includes(t)) };
  };
  const bySide = [...rig.parts].sort((a, b) => a.station - b.station);
  const rows = { top: bySide.filter(isTop), main: bySide.filter((p) => !isTop(p)) };
  const widthOf = (p: Part): number => {
    const u = used(p);
    const most = isTop(p) ? u.pins.length : Math.max(u.above.length, u.below.length);
    return Math.max(BOX_MIN, most * PIN + 4);
  };
  const widthOfRow = (row: readonly Part[]): number =>
    row.reduce((sum, p) => sum + widthOf(p), 0) + GAP * Math.max(0, row.length - 1);
  const inner = Math.max(widthOfRow(rows.main), widthOfRow(rows.top), 150);
  const width = inner + 2 * MARGIN;

  // x of the pins: the main row first; a pin above never stands on a pin below, or two wires would seem joined.
  const pins: Pin[] = [];
  const at = new Map<string, { x: number; w: number }>();
  const place = (row: readonly Part[], spread: number) => {
    let x = MARGIN;
    for (const p of row) {
      at.set(p.id, { x, w: widthOf(p) });
      x += widthOf(p) + spread;
    }
  };
  /** Each part of the upper row over where it is on the rig, pushed apart from left to right, then back from the margin. */
  const placeOver = (row: readonly Part[], under: readonly Part[]) => {
    const middles = under.map((p) => [p.station, at.get(p.id)!.x + at.get(p.id)!.w / 2] as const);
    const wish = (station: number): number => {
      const k = middles.findIndex(([s]) => s > station);
      if (k <= 0) return k === 0 ? middles[0]![1] : (middles.at(-1)?.[1] ?? MARGIN);
      const [s0, x0] = middles[k - 1]!;
      const [s1, x1] = middles[k]!;
      return s1 === s0 ? x0 : x0 + ((x1 - x0) * (station - s0)) / (s1 - s0);
    };
    let x = MARGIN;
    const spots = row.map((p) => {
      const w = widthOf(p);
      const left = Math.max(x, wish(p.station) - w / 2);
      x = left + w + GAP;
      return { p, left, w };
    });
    let right = MARGIN + inner;
    for (const spot of spots.reverse()) {
      spot.left = Math.min(spot.left, right - spot.w);
      right = spot.left - GAP;
      at.set(spot.p.id, { x: spot.left, w: spot.w });
    }
  };
  const spreadOf = (row: readonly Part[]): number =>
    row.length > 1 ? (inner - widthOfRow(row)) / (row.length - 1) + GAP : 0;
  place(rows.main, spreadOf(rows.main));
  placeOver(rows.top, rows.main);

  const tracked = rig.conductors.filter((c) => !isGround(rig, c.from) && !isGround(rig, c.to));
  const trackCount = new Map<string, number>();
  const top = MARGIN + 12;
  // A row is as high as its longest pin names and its part names need.
  const words = (p: Part, list: readonly { id: string; label: string }[]): number =>
    Math.max(0, ...list.map((t) => textWidth(pinWords(p, t), 2.1)));
  const nameHeight = (p: Part): number => wrapped(p.name, widthOf(p) - 2, 2.7).length * 3 + (p.note ? 3 : 0) + 3;
  const namesAt = 6 + Math.max(0, ...rows.main.map((p) => words(p, used(p).above)));
  const heights = {
    top: Math.max(0, ...rows.top.map((p) => nameHeight(p) + words(p, used(p).pins) + 4)),
    main: Math.max(0, ...rows.main.map((p) => namesAt + nameHeight(p) + words(p, used(p).below))),
  };
  const topBottom = rows.top.length > 0 ? top + heights.top : top - CLEAR;

  const addPins = (p: Part, list: readonly { id: string }[], y: number, up: boolean) => {
    const { x, w } = at.get(p.id)!;
    list.forEach((t, i) => {
      let px = x + (w * (i + 0.5)) / list.length;
      while (pins.some((q) => Math.abs(q.x - px) < 1.3)) px += 1.3;
      pins.push({ part: p.id, terminal: t.id, x: px, y, up });
    });
  };
  // Tracks are laid between the rows; how many there are sets how far apart the rows stand.
  for (const p of rows.main) addPins(p, used(p).above, 0, true);
  const mainBelow = rows.main.map((p) => [p, used(p).below] as const);
  for (const p of rows.top) addPins(p, used(p).pins, topBottom, false);
  const pinOf = (e: Endpoint): Pin | undefined => pins.find((q) => q.part === e.part && q.terminal === e.terminal);
  const spans = tracked
    .flatMap((c) => {
      const a = pinOf(c.from);
      const b = pinOf(c.to);
      return a && b ? [{ c, a, b, lo: Math.min(a.x, b.x), hi: Math.max(a.x, b.x) }] : [];
    })
    .sort((s, t) => s.hi - s.lo - (t.hi - t.lo));
  // Short hops nearest the heavy row; each on the first track where it meets no other.
  const tracks: { lo: number; hi: number }[][] = [];
  for (const s of spans) {
    const need = Math.max(s.hi - s.lo, textWidth(spanWords(labels.get(s.c.id)!, s.c, units), 2.5) + 2);
    const middle = (s.lo + s.hi) / 2;
    const lo = Math.min(s.lo, middle - need / 2);
    const hi = Math.max(s.hi, middle + need / 2);
    let k = tracks.findIndex((t) => t.every((x) => hi + 1.5 < x.lo || lo - 1.5 > x.hi));
    if (k < 0) k = tracks.push([]) - 1;
    tracks[k]!.push({ lo, hi });
    trackCount.set(s.c.id, k);
  }
  const mainTop = topBottom + CLEAR + tracks.length * TRACK + CLEAR;
  for (const q of pins) if (q.up) q.y = mainTop;
  const yOf = (c: Conductor): number => mainTop - CLEAR - trackCount.get(c.id)! * TRACK;
  const belowPins: Pin[] = [];
  for (const [p, list] of mainBelow) {
    const { x, w } = at.get(p.id)!;
    list.forEach((t, i) =>
      belowPins.push({
        part: p.id,
        terminal: t.id,
        x: x + (w * (i + 0.5)) / list.length,
        y: mainTop + heights.main,
        up: false,
      }),
    );
  }

  // Wires first, then what stands over them.
  const groundNames = new Map<string, string>();
  for (const g of rig.grounds) for (const p of g.points) groundNames.set(`${g.id}.${p.id}`, `G${groundNames.size + 1}`);
  const wire = (c: Conductor, points: [number, number][]) => {
    const w = ink(c);
    shapes.push({ kind: 'line', points, width: w + 1.1, white: true });
    if (c.use === 'control') shapes.push({ kind: 'line', points, width: w, dash: [1.6, 1] });
    else if (c.use === 'return')
      shapes.push({ kind: 'line', points, width: w + 0.7 }, { kind: 'line', points, width: w, white: true });
    else shapes.push({ kind: 'line', points, width: w });
  };
  // Thin first: where two share a riser, the thick one is seen.
  for (const s of [...spans].sort((x, y) => ink(x.c) - ink(y.c)))
    wire(s.c, [
      [s.a.x, s.a.y],
      [s.a.x, yOf(s.c)],
      [s.b.x, yOf(s.c)],
      [s.b.x, s.b.y],
    ]);
  // A dot where two conductors leave one pin on different tracks.
  for (const q of pins) {
    const ys = spans.filter((s) => s.a === q || s.b === q).map((s) => yOf(s.c));
    const far = q.up ? Math.min(...ys) : Math.max(...ys);
    for (const y of new Set(ys)) if (ys.length > 1 && y !== far) shapes.push({ kind: 'dot', x: q.x, y, r: 0.9 });
  }
  for (const s of spans) {
    const label = spanWords(labels.get(s.c.id)!, s.c, units);
    const crossing = spans
      .flatMap((t) => [t.a, t.b])
      .map((q) => q.x)
      .filter((x) => x > s.lo + 0.5 && x < s.hi - 0.5);
    const w = textWidth(label, 2.5) + 0.8;
    const x = labelPlace(s.lo, s.hi, w, crossing, MARGIN, width - MARGIN);
    shapes.push(
      { kind: 'box', x: x - w / 2, y: yOf(s.c) - 3.5, w, h: 2.5, width: 0, white: true },
      { kind: 'text', x, y: yOf(s.c) - 1.4, text: label, size: 2.5, anchor: 'middle' },
    );
  }

  // Returns to metal: a stub and the ground's symbol.
  for (const q of [...belowPins, ...pins]) {
    const mine = rig.conductors.filter(
      (c) =>
        [c.from, c.to].some((e) => e.part === q.part && e.terminal === q.terminal) &&
        (isGround(rig, c.from) || isGround(rig, c.to)),
    );
    const bonds = rig.bonds.filter((b) => [b.from, b.to].some((e) => e.part === q.part && e.terminal === q.terminal));
    const down = q.y === topBottom || !q.up;
    if (mine.length + bonds.length === 0) continue;
    // Beside what already leaves the pin upward, a return goes off a little to the side.
    const crowded = pins.includes(q);
    const x = crowded ? q.x + 2.2 : q.x;
    const length = q.y === topBottom ? 4 : down ? STUB - 17 : 4;
    const end = down ? q.y + length : q.y - length;
    for (const c of mine) {
      wire(
        c,
        crowded
          ? [
              [q.x, q.y],
              [x, down ? q.y + 1.4 : q.y - 1.4],
              [x, end],
            ]
          : [
              [q.x, q.y],
              [x, end],
            ],
      );
    }
    if (mine.length === 0)
      shapes.push({
        kind: 'line',
        points: [
          [x, q.y],
          [x, end],
        ],
        width: 0.4,
      });
    if (down)
      for (const k of [0, 1, 2])
        shapes.push({
          kind: 'line',
          points: [
            [x - 2.2 + k * 0.75, end + k * 1],
            [x + 2.2 - k * 0.75, end + k * 1],
          ],
          width: 0.5,
        });
    const points = [...mine.map((c) => groundKey(rig, c)), ...bonds.map((b) => bondKey(rig, b))];
    const groundOf = [...new Set(points.map((k) => groundNames.get(k) ?? ''))].join(', ');
    const name = [...mine.map((c) => `${labels.get(c.id)!}, ${gaugeShown(c.gauge, units.gauge)}`), groundOf].join(', ');
    if (crowded)
      shapes.push(
        x + 3 + textWidth(name, 2) > width
          ? { kind: 'text', x: x - 2.8, y: end + 1, text: name, size: 2, anchor: 'end' }
          : { kind: 'text', x: x + 2.8, y: end + 1, text: name, size: 2, anchor: 'start' },
      );
    else
      // One under the other: pins stand close.
      [
        ...mine.map((c) => labels.get(c.id)!),
        ...mine.slice(0, 1).map((c) => gaugeShown(c.gauge, units.gauge)),
        groundOf,
      ].forEach((text, i) =>
        shapes.push({ kind: 'text', x, y: end + 5.2 + i * 2.7, text, size: 2.3, anchor: 'middle' }),
      );
  }

  // Straps from metal to metal, in a row of their own under the grounds.
  const straps = rig.conductors.filter((c) => isGround(rig, c.from) && isGround(rig, c.to));
  const strapY = mainTop + heights.main + STUB - 1;
  straps.forEach((c, i) => {
    const x = MARGIN + 6 + i * 46;
    const name = (e: Endpoint) => groundNames.get(`${e.part}.${e.terminal}`)!;
    wire(c, [
      [x, strapY],
      [x + 26, strapY],
    ]);
    shapes.push(
      { kind: 'text', x: x - 1, y: strapY + 0.9, text: name(c.from), size: 2.5, anchor: 'end' },
      { kind: 'text', x: x + 27, y: strapY + 0.9, text: name(c.to), size: 2.5, anchor: 'start' },
      {
        kind: 'text',
        x: x + 13,
        y: strapY - 1.6,
        text: spanWords(labels.get(c.id)!, c, units),
        size: 2.5,
        anchor: 'middle',
      },
    );
  });

  // Parts over their wires' ends.
  const draw = (p: Part, y: number) => {
    const { x, w } = at.get(p.id)!;
    const height = isTop(p) ? heights.top : heights.main;
    shapes.push({ kind: 'box', x, y, w, h: height, width: 0.5, white: true, round: 1 });
    const kind = partKind(p.kind);
    for (const q of [...pins, ...belowPins].filter((r) => r.part === p.id)) {
      const label = pinWords(
        p,
        kind.terminals.find((t) => t.id === q.terminal)!,
      );
      shapes.push({ kind: 'dot', x: q.x, y: q.y, r: 0.75 });
      // Runs upward: what hangs from the top edge ends there, what stands on the bottom begins there.
      if (q.y === y)
        shapes.push({ kind: 'text', x: q.x + 0.75, y: y + 1.8, text: label, size: 2.1, anchor: 'end', up: true });
      else
        shapes.push({
          kind: 'text',
          x: q.x + 0.75,
          y: y + height - 1.8,
          text: label,
          size: 2.1,
          anchor: 'start',
          up: true,
        });
    }
    const lines = wrapped(p.name, w - 2, 2.7);
    const first = isTop(p) ? y + 5 : y + namesAt;
    lines.forEach((t, i) =>
      shapes.push({ kind: 'text', x: x + w / 2, y: first + i * 3, text: t, size: 2.7, anchor: 'middle', bold: true }),
    );
    if (p.note)
      shapes.push({
        kind: 'text',
        x: x + w / 2,
        y: first + lines.length * 3,
        text: wrapped(p.note, w - 1, 2.4)[0]!,
        size: 2.4,
        anchor: 'middle',
      });
  };
  for (const p of rows.top) draw(p, top);
  for (const p of rows.main) draw(p, mainTop);

  // Where one vehicle ends and the next begins.
  const height = mainTop + heights.main + STUB + (straps.length > 0 ? 4 : 0) + MARGIN;
  rows.main.forEach((p, i) => {
    const before = rows.main[i - 1];
    if (!before || before.vehicle === p.vehicle) return;
    const x = (at.get(before.id)!.x + at.get(before.id)!.w + at.get(p.id)!.x) / 2;
    shapes.unshift({
      kind: 'line',
      points: [
        [x, top - 4],
        [x, height - MARGIN],
      ],
      width: 0.3,
      dash: [4, 1.2, 0.8, 1.2],
    });
    const name = (id: string) => rig.vehicles.find((v) => v.id === id)!.role.replace('-', ' ');
    shapes.push(
      { kind: 'text', x: x - 2, y: top - 4, text: name(before.vehicle), size: 2.8, anchor: 'end' },
      { kind: 'text', x: x + 2, y: top - 4, text: name(p.vehicle), size: 2.8, anchor: 'start' },
    );
  });
  shapes.push({
    kind: 'text',
    x: MARGIN,
    y: MARGIN + 1,
    text: `${rig.name}: wiring`,
    size: 4.2,
    anchor: 'start',
    bold: true,
  });
  shapes.push({
    kind: 'text',
    x: MARGIN,
    y: height - 3,
    text: 'Solid: feed, as thick as its gauge. Hollow: return. Dashed: control. A dot joins; a crossing without one does not. P: probe. G: ground, see the list.',
    size: 2.5,
    anchor: 'start',
  });

  const drawing: Drawing = { width, height, shapes, title: `Wiring of ${rig.name}` };
  const nameOf = (e: Endpoint): string => {
    const p = rig.parts.find((q) => q.id === e.part);
    if (p) return `${p.name}, ${partKind(p.kind).terminals.find((t) => t.id === e.terminal)?.label ?? e.terminal}`;
    const point = rig.grounds.find((g) => g.id === e.part)?.points.find((q) => q.id === e.terminal);
    return `${groundNames.get(`${e.part}.${e.terminal}`) ?? ''} ${point?.label ?? e.part}`.trim();
  };
  const wires = rig.conductors.map((c): WireRow => ({
    wire: labels.get(c.id)!,
    name: `${c.name}${probes.has(`${c.id}.clamp`) ? `, clamp ${probes.get(`${c.id}.clamp`)!}` : ''}`,
    use: c.use,
    from: nameOf(c.from),
    to: nameOf(c.to),
    gauge: gaugeShown(c.gauge, units.gauge),
    length: lengthWords(c.length, units),
  }));
  const grounds = rig.grounds.flatMap((g) =>
    g.points.map((p) => ({
      ground: groundNames.get(`${g.id}.${p.id}`)!,
      name: `${g.name}, ${p.label}`,
      place: p.place,
    })),
  );
  return { drawing, wires, grounds };
}

const groundKey = (rig: Rig, c: Conductor): string =>
  isGround(rig, c.to) ? `${c.to.part}.${c.to.terminal}` : `${c.from.part}.${c.from.terminal}`;
const bondKey = (rig: Rig, b: Rig['bonds'][number]): string => {
  const e = isGround(rig, b.from) ? b.from : b.to;
  return `${e.part}.${e.terminal}`;
};
const lengthWords = (metres: number, u: Units): string =>
  `${lengthShown(metres, u.length).toFixed(u.length === 'ft' ? 0 : 1)} ${u.length}`.replace(/^0 ft$/, '< 1 ft');
const spanWords = (label: string, c: Conductor, u: Units): string =>
  `${label}  ${gaugeShown(c.gauge, u.gauge)}, ${lengthWords(c.length, u)}`;

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

/** A name in lines that fit; at most two, the rest is cut with a sign that it is. */
function wrapped(text: string, width: number, size: number): string[] {
  const lines: string[] = [];
  for (const word of text.split(' ')) {
    const last = lines.at(-1);
    if (last !== undefined && textWidth(`${last} ${word}`, size) <= width) lines[lines.length - 1] = `${last} ${word}`;
    else lines.push(word);
  }
  if (lines.length <= 2) return lines;
  return [lines[0]!, `${lines[1]!}…`];
}
