/** The strip's copper and parts: frame rails, conductors by gauge and side, joints, bolts, icons, the side legends. */
import { memo } from 'react';
import type { Rig } from '../../core/rig/schema';
import { Glyph } from './glyphs';
import { sideAt, STRIP, type StripLayout, type Wire } from './geometry';
import { sideNames } from './sideNames';

function round(points: readonly [number, number][], radius = 6): string {
  const f = (n: number) => +n.toFixed(1);
  const clean = points.filter((p, i) => i === 0 || p[0] !== points[i - 1]![0] || p[1] !== points[i - 1]![1]);
  let d = `M${f(clean[0]![0])} ${f(clean[0]![1])}`;
  for (let i = 1; i < clean.length; i++) {
    const [x, y] = clean[i]!;
    if (i === clean.length - 1) {
      d += `L${f(x)} ${f(y)}`;
      break;
    }
    const [px, py] = clean[i - 1]!;
    const [nx, ny] = clean[i + 1]!;
    const before = Math.hypot(x - px, y - py);
    const after = Math.hypot(nx - x, ny - y);
    const k = Math.min(radius, before / 2, after / 2);
    d +=
      `L${f(x - ((x - px) / before) * k)} ${f(y - ((y - py) / before) * k)}Q${f(x)} ` +
      `${f(y)} ${f(x + ((nx - x) / after) * k)} ${f(y + ((ny - y) / after) * k)}`;
  }
  return d;
}

function WirePath({ wire }: { wire: Wire }) {
  const d = round(wire.points);
  if (wire.side === 'control')
    return (
      <>
        <path d={d} className="casing" strokeWidth={4.5} />
        <path d={d} className="control-wire" />
      </>
    );
  if (wire.side === 'return')
    return (
      <>
        <path d={d} className="casing" strokeWidth={wire.width + 3} />
        <path d={d} className="wire return-wire" strokeWidth={wire.width} />
        {wire.width >= 4 && <path d={d} className="wire return-core" strokeWidth={wire.width - 2.8} />}
      </>
    );
  return (
    <>
      <path d={d} className="casing" strokeWidth={wire.width + 3.5} />
      <path d={d} className={`wire ${wire.side}`} strokeWidth={wire.width} />
      {wire.side === 'coach' && <path d={d} className="wire tracer" strokeWidth={wire.width >= 6 ? 2.2 : 1.2} />}
    </>
  );
}

const bolt = (x: number, y: number) => {
  const corner = (i: number) =>
    [x + 4.6 * Math.cos((Math.PI / 3) * i), y + 4.6 * Math.sin((Math.PI / 3) * i)].map((v) => v.toFixed(1)).join(' ');
  return `M${[0, 1, 2, 3, 4, 5].map(corner).join('L')}Z`;
};

export const Harness = memo(function Harness({
  rig,
  layout,
  linkClosed,
  words,
}: {
  rig: Rig;
  layout: StripLayout;
  linkClosed: boolean;
  words(text: string): string;
}) {
  const { rail, railHeight } = STRIP;
  const named = sideNames(rig);
  const sides = { engine: words(named.engine).toUpperCase(), coach: words(named.coach).toUpperCase() };
  const rails = layout.shells.map((v) => {
    const [from, to] = [v.x0 + 8, v.x1 - 8];
    let hatch = '';
    for (let x = from + 4; x < to - 6; x += 9) hatch += `M${x} ${rail + railHeight}l6-${railHeight}`;
    return { id: v.id, from, to, hatch };
  });
  const feeds = layout.wires.filter((w) => w.side !== 'return' && w.side !== 'control');
  return (
    <g aria-hidden="true">
      {rails.map((r) => (
        <g key={r.id}>
          <rect x={r.from} y={rail} width={Math.max(0, r.to - r.from)} height={railHeight} className="rail" />
          <path d={r.hatch} className="hatch" />
        </g>
      ))}
      {layout.splices.map((x) => (
        <g key={x}>
          <rect x={x - 13} y={rail - 4} width={26} height={railHeight + 8} rx={2} className="edge paper-fill" />
          <circle cx={x - 6} cy={rail + railHeight / 2} r={2} className="dot" />
          <circle cx={x + 6} cy={rail + railHeight / 2} r={2} className="dot" />
        </g>
      ))}
      {layout.wires
        .filter((w) => w.side === 'return')
        .map((w) => (
          <WirePath key={w.id} wire={w} />
        ))}
      {layout.wires
        .filter((w) => w.side === 'control')
        .map((w) => (
          <WirePath key={w.id} wire={w} />
        ))}
      {/* Thin feeds on the upper lanes first: the main line's casing lets them hop. */}
      {[...feeds]
        .sort((a, b) => a.width - b.width)
        .map((w) => (
          <WirePath key={w.id} wire={w} />
        ))}
      {feeds.flatMap((w) =>
        w.joints.map(([x, y]) => (
          <circle key={`${w.id}${y}`} cx={x} cy={y} r={w.width > 4 ? 5.5 : 4} className={`joint ${w.side}`} />
        )),
      )}
      {layout.columns.map(({ part, x }) => (
        <g key={part.id} transform={`translate(${x} ${STRIP.icon})`} className="part">
          <Glyph kind={part.kind} side={part.side} closed={linkClosed} />
        </g>
      ))}
      {layout.bolts.map(([x, y], i) => (
        <g key={i}>
          <path d={bolt(x, y)} className="edge paper-fill thin" />
          <circle cx={x} cy={y} r={1.3} className="dot" />
        </g>
      ))}
      {layout.wires.map((w) =>
        w.label ? (
          <g key={w.id}>
            <rect
              x={w.label.x - w.label.text.length * 3.1 - 4}
              y={w.label.y - 6}
              width={w.label.text.length * 6.2 + 8}
              height={12}
              className={`cut ${sideAt(layout, w.label.x)}`}
            />
            <text x={w.label.x} y={w.label.y + 4.8} className={`wire-name ${w.side}`} textAnchor="middle">
              {w.label.text}
            </text>
          </g>
        ) : null,
      )}
      <text x={layout.legend.coach} y={STRIP.chip + 15} className="side coach" textAnchor="middle">
        {sides.coach}
      </text>
      <path d={`M${layout.legend.coach - 34} ${STRIP.chip + 23}h68`} className="wire coach" strokeWidth={6} />
      <path d={`M${layout.legend.coach - 34} ${STRIP.chip + 23}h68`} className="wire tracer" strokeWidth={1.8} />
      <text x={layout.legend.engine} y={STRIP.chip + 15} className="side engine" textAnchor="middle">
        {sides.engine}
      </text>
      <path d={`M${layout.legend.engine - 36} ${STRIP.chip + 23}h72`} className="wire engine" strokeWidth={6} />
      <title>{`${rig.name}, loom nose to tail`}</title>
    </g>
  );
});
