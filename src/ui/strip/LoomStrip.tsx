'use client';
/**
 * The loom strip: the harness nose to tail, drawn from the rig document. It is how one chooses where to
 * measure: every flag is a button with its whole name.
 */
import { memo, useMemo } from 'react';
import type { Rig } from '../../core/rig/schema';
import type { GaugeUnit } from '../../core/units/preferences';
import { Glyph, signShape } from './glyphs';
import { STRIP, type Flag, type StripLayout, type Wire } from './geometry';
import { stripLayout } from './layout';
import { coupling, outline } from './vehicles';
import { feetTicks, rulerLabels } from './ruler';

export interface FlagFace {
  /** Reading with its unit left out for volts: "12.42", "18 mV". Absent: to take. */
  value?: string;
  /** Expected band, short, shown while there is no reading. */
  band?: string;
  verdict?: 'ok' | 'low' | 'high';
  /** Read aloud: name, reading, verdict. */
  spoken: string;
}

export interface LoomStripProps {
  rig: Rig;
  faces: Readonly<Record<string, FlagFace>>;
  red?: string;
  black?: string;
  onPick(key: string): void;
  /** Parts to mark: share of suspicion by part id. */
  suspects?: Readonly<Record<string, number>>;
  /** Parts a design rule speaks of, by how grave it is. */
  findings?: Readonly<Record<string, 'danger' | 'warn'>>;
  linkClosed?: boolean;
  unit?: 'ft' | 'm';
  gauge?: GaugeUnit;
}

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
    d += `L${f(x - ((x - px) / before) * k)} ${f(y - ((y - py) / before) * k)}Q${f(x)} ${f(y)} ${f(x + ((nx - x) / after) * k)} ${f(y + ((ny - y) / after) * k)}`;
  }
  return d;
}

function WirePath({ wire }: { wire: Wire }) {
  const d = round(wire.points);
  if (wire.side === 'control')
    return (
      <>
        <path d={d} className="cas" strokeWidth={4.5} />
        <path d={d} className="ctl" />
      </>
    );
  if (wire.side === 'return')
    return (
      <>
        <path d={d} className="cas" strokeWidth={wire.width + 3} />
        <path d={d} className="ln ret" strokeWidth={wire.width} />
        {wire.width >= 4 && <path d={d} className="ln ret-core" strokeWidth={wire.width - 2.8} />}
      </>
    );
  return (
    <>
      <path d={d} className="cas" strokeWidth={wire.width + 3.5} />
      <path d={d} className={`ln ${wire.side}`} strokeWidth={wire.width} />
      {wire.side === 'coach' && <path d={d} className="ln tracer" strokeWidth={wire.width >= 6 ? 2.2 : 1.2} />}
    </>
  );
}

/** Which side of the link a place on the drawing is. */
const sideAt = (layout: StripLayout, x: number): 'coach' | 'engine' => ((x < layout.meet) === layout.engineFirst ? 'engine' : 'coach');

const bolt = (x: number, y: number) =>
  `M${[0, 1, 2, 3, 4, 5].map((i) => `${(x + 4.6 * Math.cos((Math.PI / 3) * i)).toFixed(1)} ${(y + 4.6 * Math.sin((Math.PI / 3) * i)).toFixed(1)}`).join('L')}Z`;

function Backdrop({ layout }: { layout: StripLayout }) {
  const { rail, railHeight, roof, width } = STRIP;
  const floor = rail + railHeight;
  const { shells } = layout;
  const alone = shells.length === 1;
  return (
    <>
      {shells.map((s) => (
        <clipPath id={`shell-${s.id}`} key={s.id}>
          <path d={outline(s.role, s.x0, s.x1)} />
        </clipPath>
      ))}
      {shells.map((s) => (
        <g key={s.id} clipPath={`url(#shell-${s.id})`}>
          <rect x={0} y={roof - 10} width={layout.meet} height={floor - roof + 10} className={`wash-${sideAt(layout, 0)}`} />
          <rect x={layout.meet} y={roof - 10} width={width - layout.meet} height={floor - roof + 10} className={`wash-${sideAt(layout, width)}`} />
        </g>
      ))}
      {shells.map((s, i) => (
        <g key={s.id}>
          <path d={outline(s.role, s.x0, s.x1)} className="body" />
          {i > 0 && <path d={coupling(s.role, shells[i - 1]!.x1, s.x0) ?? ''} className="hitch" />}
        </g>
      ))}
      {alone && shells[0]!.role === 'motorhome' && <path d={`M16 192Q17 172 20 158L28 124M12 202h8M12 236h8`} className="body" />}
      {alone && <path d={`M${layout.meet} ${roof + 2}V${STRIP.main - 8}M${layout.meet} ${STRIP.icon + 56}V${rail}`} className="body" strokeDasharray="8 3 2 3" />}
    </>
  );
}

function Ruler({ layout, unit }: { layout: StripLayout; unit: 'ft' | 'm' }) {
  const other = unit === 'ft' ? 'm' : 'ft';
  return (
    <g aria-hidden="true">
      {feetTicks(layout).map((t) => (
        <rect key={t.x0} x={t.x0} y={STRIP.bar} width={t.x1 - t.x0} height={5} className={t.dark ? 'tick dark' : 'tick'} />
      ))}
      {rulerLabels(layout, unit, 26).map((l) => (
        <text key={l.text} x={Math.min(l.x, STRIP.width - 12)} y={STRIP.feet} className="rt" textAnchor={l.x < 20 ? 'start' : 'middle'}>
          {l.text}
        </text>
      ))}
      {rulerLabels(layout, other, 34).map((l) => (
        <text key={l.text} x={Math.min(l.x, STRIP.width - 12)} y={STRIP.metres} className="rt quiet" textAnchor={l.x < 20 ? 'start' : 'middle'}>
          {l.text}
        </text>
      ))}
    </g>
  );
}

const Harness = memo(function Harness({ rig, layout, linkClosed }: { rig: Rig; layout: StripLayout; linkClosed: boolean }) {
  const { rail, railHeight } = STRIP;
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
          <rect x={x - 13} y={rail - 4} width={26} height={railHeight + 8} rx={2} className="o fp" />
          <circle cx={x - 6} cy={rail + railHeight / 2} r={2} className="dot" />
          <circle cx={x + 6} cy={rail + railHeight / 2} r={2} className="dot" />
        </g>
      ))}
      {layout.wires.filter((w) => w.side === 'return').map((w) => <WirePath key={w.id} wire={w} />)}
      {layout.wires.filter((w) => w.side === 'control').map((w) => <WirePath key={w.id} wire={w} />)}
      {/* Thin feeds on the upper lanes first: the main line's casing lets them hop. */}
      {[...feeds].sort((a, b) => a.width - b.width).map((w) => <WirePath key={w.id} wire={w} />)}
      {feeds.flatMap((w) =>
        w.joints.map(([x, y]) => <circle key={`${w.id}${y}`} cx={x} cy={y} r={w.width > 4 ? 5.5 : 4} className={`joint ${w.side}`} />),
      )}
      {layout.columns.map(({ part, x }) => (
        <g key={part.id} transform={`translate(${x} ${STRIP.icon})`} className="part">
          <Glyph kind={part.kind} side={part.side} closed={linkClosed} />
        </g>
      ))}
      {layout.bolts.map(([x, y], i) => (
        <g key={i}>
          <path d={bolt(x, y)} className="o fp thin" />
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
            <text x={w.label.x} y={w.label.y + 4.8} className={`il ${w.side}`} textAnchor="middle">
              {w.label.text}
            </text>
          </g>
        ) : null,
      )}
      <text x={layout.legend.coach} y={STRIP.chip + 15} className="side coach" textAnchor="middle">
        COACH SIDE
      </text>
      <path d={`M${layout.legend.coach - 34} ${STRIP.chip + 23}h68`} className="ln coach" strokeWidth={6} />
      <path d={`M${layout.legend.coach - 34} ${STRIP.chip + 23}h68`} className="ln tracer" strokeWidth={1.8} />
      <text x={layout.legend.engine} y={STRIP.chip + 15} className="side engine" textAnchor="middle">
        ENGINE SIDE
      </text>
      <path d={`M${layout.legend.engine - 36} ${STRIP.chip + 23}h72`} className="ln engine" strokeWidth={6} />
      <title>{`${rig.name}, loom nose to tail`}</title>
    </g>
  );
});

function Marks({ layout, suspects }: { layout: StripLayout; suspects: Readonly<Record<string, number>> }) {
  const ranked = Object.entries(suspects)
    .filter(([, share]) => share >= 0.01)
    .sort((a, b) => b[1] - a[1]);
  return (
    <g aria-hidden="true">
      {ranked.map(([id], rank) => {
        const column = layout.columns.find((c) => c.part.id === id);
        if (!column) return null;
        return <rect key={id} x={column.x - 41} y={STRIP.icon - 3} width={82} height={59} rx={4} className={rank === 0 ? 'suspect first' : 'suspect'} />;
      })}
    </g>
  );
}

/** A triangle at the corner of each part a rule speaks of; danger is solid. */
function Findings({ layout, findings }: { layout: StripLayout; findings: Readonly<Record<string, 'danger' | 'warn'>> }) {
  return (
    <g aria-hidden="true">
      {layout.columns.map(({ part, x }) => {
        const grave = findings[part.id];
        return grave && <path key={part.id} d={`M${x + 31} ${STRIP.icon + 36}l10 17h-20z`} className={`ruled ${grave}`} />;
      })}
    </g>
  );
}

interface FlagProps {
  flag: Flag;
  face: FlagFace;
  lead?: 'red' | 'black';
  onPick(key: string): void;
}

/** A flag is drawn anew only when what it shows changed. */
const sameFlag = (a: FlagProps, b: FlagProps): boolean =>
  a.flag === b.flag &&
  a.lead === b.lead &&
  a.onPick === b.onPick &&
  a.face.spoken === b.face.spoken &&
  a.face.value === b.face.value &&
  a.face.band === b.face.band &&
  a.face.verdict === b.face.verdict;

const HighFlag = memo(function HighFlag({ flag, face, lead, onPick }: FlagProps) {
  const pick = () => onPick(flag.key);
  const { flag: y, plate, plateHeight } = STRIP;
  const [tx, ty] = flag.tap;
  const from = face.value !== undefined || face.band ? plate + plateHeight : y + 17;
  const pole = tx === flag.x ? `M${tx} ${from}V${ty}` : `M${flag.x} ${from}V${Math.max(from + 2, ty - 20)}L${tx} ${ty}`;
  const bad = face.verdict === 'low' || face.verdict === 'high';
  const text = face.value ?? face.band ?? '';
  return (
    <g className="flag" role="button" tabIndex={0} aria-label={face.spoken} aria-pressed={lead === 'red'} onClick={pick} onKeyDown={(e) => (e.key === 'Enter' || e.key === ' ') && (e.preventDefault(), pick())}>
      <path d={pole} className="cas" strokeWidth={5} />
      <path d={pole} className="pole" />
      <circle cx={tx} cy={ty} r={4.2} className="tap" />
      {text !== '' && (
        <>
          <rect x={flag.x - 36} y={plate} width={72} height={plateHeight} rx={3} className={`pl${face.value === undefined ? ' todo' : ''}${bad ? ' bad' : ''}${lead === 'red' ? ' here' : ''}`} />
          {face.verdict && (
            <g transform={`translate(${flag.x - 26} ${plate + 12}) scale(.85)`} className={`sign ${bad ? 'on-bad' : 'good'}`}>
              {signShape(face.verdict)}
            </g>
          )}
          <text x={flag.x + (face.verdict ? 8 : 0)} y={plate + (face.value === undefined ? 17 : 18.4)} className={face.value === undefined ? 'pb' : bad ? 'pv bad' : 'pv'} textAnchor="middle">
            {text}
          </text>
        </>
      )}
      {lead && <circle cx={flag.x} cy={y} r={21} className={`ring ${lead}`} />}
      <circle cx={flag.x} cy={y} r={17} className={`fl${lead === 'red' ? ' here' : face.value !== undefined ? ' taken' : ''}`} />
      <text x={flag.x} y={y + 6} className={`fid${lead === 'red' ? ' here' : ''}`} textAnchor="middle">
        {flag.label}
      </text>
      <rect x={flag.x - 34} y={34} width={68} height={68} className="hit" />
    </g>
  );
}, sameFlag);

/** From the tap on its lane down to the chip; the names are laid over it with a cut. */
function Leader({ flag }: { flag: Flag }) {
  const [tx, ty] = flag.tap;
  const turn = STRIP.rail - 3;
  const d = Math.abs(tx - flag.x) < 1 ? `M${tx} ${STRIP.chip}V${ty}` : `M${flag.x} ${STRIP.chip}V${turn}L${tx} ${Math.max(ty, turn - 12)}V${ty}`;
  return (
    <g aria-hidden="true">
      <path d={d} className="cas" strokeWidth={4.5} />
      <path d={d} className="pole thin" />
      <circle cx={tx} cy={ty} r={3.6} className="tap" />
    </g>
  );
}

/** Parts' names and ratings, each on its own cut of the wash. */
function Names({ layout, suspects }: { layout: StripLayout; suspects: Readonly<Record<string, number>> | undefined }) {
  return (
    <g aria-hidden="true">
      {layout.columns.map(({ part, x }) => {
        const share = suspects?.[part.id] ?? 0;
        const first = share >= 0.01 && share === Math.max(...Object.values(suspects ?? {}));
        const note = share >= 0.01 ? undefined : part.note;
        const width = (text: string) => text.length * 6.1 + 5;
        const cut = (y: number, h: number, text: string) => {
          const from = x - 38;
          const to = from + width(text);
          const middle = Math.min(to, Math.max(from, layout.meet));
          return (
            <>
              <rect x={from} y={y} width={middle - from} height={h} className={`cut ${sideAt(layout, 0)}`} />
              <rect x={middle} y={y} width={to - middle} height={h} className={`cut ${sideAt(layout, STRIP.width)}`} />
            </>
          );
        };
        return (
          <g key={part.id}>
            {cut(STRIP.name - 13, 16, part.name)}
            <text x={x - 36} y={STRIP.name} className="nm">
              {part.name}
            </text>
            {share >= 0.01 && (
              <>
                <rect x={x - 37} y={STRIP.note - 12.5} width={44} height={16} rx={2.5} className={first ? 'share first' : 'share'} />
                <text x={x - 15} y={STRIP.note + 0.4} className={first ? 'rk first' : 'rk'} textAnchor="middle">
                  {Math.min(99, Math.round(share * 100))} %
                </text>
              </>
            )}
            {note && (
              <>
                {cut(STRIP.note - 12, 15, note)}
                <text x={x - 36} y={STRIP.note} className="sp">
                  {note}
                </text>
              </>
            )}
          </g>
        );
      })}
    </g>
  );
}

const LowChip = memo(function LowChip({ flag, face, lead, width, onPick }: FlagProps & { width: number }) {
  const pick = () => onPick(flag.key);
  const { chip, chipHeight } = STRIP;
  const bad = face.verdict === 'low' || face.verdict === 'high';
  const here = lead === 'red';
  const x = flag.x - width / 2;
  return (
    <g className="flag" role="button" tabIndex={0} aria-label={face.spoken} aria-pressed={here} onClick={pick} onKeyDown={(e) => (e.key === 'Enter' || e.key === ' ') && (e.preventDefault(), pick())}>
      {lead && <rect x={x - 3} y={chip - 3} width={width + 6} height={chipHeight + 6} rx={6} className={`ring ${lead}`} />}
      <rect x={x} y={chip} width={width} height={chipHeight} rx={4} className={`pl chip${face.value === undefined ? ' todo' : ''}${bad ? ' bad' : ''}${here ? ' ink' : ''}`} />
      <text x={x + 5} y={chip + 15} className={`cid${here ? ' here' : bad ? ' bad' : ''}`}>
        {flag.label}
      </text>
      {face.verdict && (
        <g transform={`translate(${x + width - 10} ${chip + 10}) scale(.75)`} className={`sign ${bad ? 'on-bad' : here ? 'on-ink' : 'good'}`}>
          {signShape(face.verdict)}
        </g>
      )}
      <text x={flag.x} y={chip + 31} className={`cv${here ? ' here' : bad ? ' bad' : ''}${face.value === undefined ? ' todo' : ''}`} textAnchor="middle">
        {face.value ?? 'to take'}
      </text>
      <rect x={x - 1} y={chip - 10} width={width + 2} height={chipHeight + 12} className="hit" />
    </g>
  );
}, sameFlag);

export const LoomStrip = memo(function LoomStrip({ rig, faces, red, black, onPick, suspects, findings, linkClosed = false, unit = 'ft', gauge = 'awg' }: LoomStripProps) {
  const layout = useMemo(() => stripLayout(rig, gauge), [rig, gauge]);
  const lead = (key: string) => (key === red ? ('red' as const) : key === black ? ('black' as const) : undefined);
  return (
    <svg className="strip" viewBox={`0 0 ${STRIP.width} ${STRIP.height}`} width={STRIP.width} height={STRIP.height} role="group" aria-label={`Loom strip of ${rig.name}, nose to tail`}>
      <Ruler layout={layout} unit={unit} />
      <Backdrop layout={layout} />
      {suspects && <Marks layout={layout} suspects={suspects} />}
      <Harness rig={rig} layout={layout} linkClosed={linkClosed} />
      {layout.flags.filter((f) => f.low).map((f) => <Leader key={f.key} flag={f} />)}
      <Names layout={layout} suspects={suspects} />
      {findings && <Findings layout={layout} findings={findings} />}
      {layout.flags.map((flag) => {
        const face = faces[flag.key] ?? { spoken: `${flag.label}, ${flag.name}` };
        const l = lead(flag.key);
        const props = { flag, face, onPick, ...(l ? { lead: l } : {}) };
        return flag.low ? <LowChip key={flag.key} {...props} width={layout.chipWidth} /> : <HighFlag key={flag.key} {...props} />;
      })}
    </svg>
  );
});
