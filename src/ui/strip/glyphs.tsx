/** Our own drawings of the parts, 52 px high, origin at the column's centre and the icon's top. */
import type { ReactNode } from 'react';
import type { PartKindId } from '../../core/parts/kinds';
import { LINK_GLYPHS } from './glyphsLinks';

const P = ({ d, c = 'detail' }: { d: string; c?: string }) => <path d={d} className={c} />;
const R = ({
  x,
  y,
  w,
  h,
  r = 2,
  c = 'edge',
}: {
  x: number;
  y: number;
  w: number;
  h: number;
  r?: number;
  c?: string;
}) => <rect x={x} y={y} width={w} height={h} rx={r} className={c} />;
const C = ({ x, y, r, c = 'edge' }: { x: number; y: number; r: number; c?: string }) => (
  <circle cx={x} cy={y} r={r} className={c} />
);
const Stud = ({ x, y }: { x: number; y: number }) => (
  <>
    <C x={x} y={y} r={5} c="edge paper-fill" />
    <C x={x} y={y} r={1.6} c="dot" />
  </>
);

function batteries(count: number, fill: string): ReactNode {
  const width = count === 2 ? 30 : 16.8;
  const step = count === 2 ? 34 : 18.4;
  const left = count === 2 ? -32 : -36;
  return (
    <>
      {Array.from({ length: count }, (_, i) => {
        const x = left + i * step;
        return (
          <g key={i}>
            <R x={x} y={16} w={width} h={36} r={1.5} c={`edge ${fill}`} />
            <P d={`M${x} 24h${width}`} />
            <R x={x + 2} y={12} w={4.4} h={4} r={0.8} c="edge paper-fill thin" />
            <R x={x + width - 6.4} y={12} w={4.4} h={4} r={0.8} c="edge paper-fill thin" />
          </g>
        );
      })}
      <P d="M-31 38h6" c="detail bold" />
      <P d="M24 38h7M27.5 34.5v7" c="detail bold" />
    </>
  );
}

const panel = (fill: string) => (
  <>
    <R x={-22} y={8} w={44} h={40} r={3} c={`edge ${fill}`} />
    {[-15, -5, 5, 15].map((x) => (
      <g key={x}>
        <R x={x - 3} y={14} w={6} h={11} r={1} c="edge paper-fill thin" />
        <R x={x - 3} y={31} w={6} h={11} r={1} c="edge paper-fill thin" />
      </g>
    ))}
  </>
);

/** How a drawing depends on the part: the wash of its side, and whether a link's contact is made. */
interface Drawn {
  fill: string;
  side: 'engine' | 'coach' | 'both';
  closed: boolean;
}

/** A module with terminals along its foot, and what it does in its window. */
const moduleBox = (inside: ReactNode) => (
  <>
    <R x={-27} y={9} w={54} h={37} r={3} c="edge paper-fill" />
    <P d="M-27 37H27" />
    <R x={-22} y={13} w={44} h={20} r={2} c="detail coach-fill" />
    {inside}
    {[-20, -9, 4, 18].map((x) => (
      <R key={x} x={x - 3} y={46} w={6} h={5} r={0.5} c="edge paper-fill thin" />
    ))}
  </>
);

/** Every kind of part, drawn: one that is missing here does not compile. */
const GLYPHS: Readonly<Record<PartKindId, (drawn: Drawn) => ReactNode>> = {
  ...LINK_GLYPHS,
  alternator: () => (
    <>
      <R x={23} y={13} w={8} h={26} r={1.5} c="edge paper-fill" />
      <P d="M23 19h8M23 24h8M23 29h8M23 34h8" />
      <P d="M19 12Q19 6 13 6H-14Q-23 6-23 15V37Q-23 46-14 46H13Q19 46 19 40Z" c="edge engine-fill" />
      <P d="M9 6V46M-11 6V46M-7 13H5M-7 19H5M-7 25H5M-7 31H5M-7 37H5" />
      <P d="M-12 46l-3 6h9l-2-6M8 46l-2 6h9l-2-6" c="edge paper-fill" />
    </>
  ),
  'battery-bank': ({ fill, side }) => <>{batteries(side === 'coach' ? 4 : 2, fill)}</>,
  'boost-switch': () => (
    <>
      <R x={-17} y={2} w={34} h={44} r={4} c="edge paper-fill" />
      <R x={-12} y={7} w={24} h={34} r={2.5} c="edge rule-fill" />
      <P d="M-12 24H12" c="detail bold" />
      <P d="M1.5 11L-4 17.5H0L-1.5 21.5L4.5 15H.5Z" c="dot" />
      <P d="M-5 32.5h10M-10 46v6M10 46v6" c="detail bold" />
    </>
  ),
  'chassis-loads': ({ fill }) => panel(fill),
  'house-loads': ({ fill }) => panel(fill),
  'diode-isolator': () => (
    <>
      <P d="M-24 12H0V44H-24Z" c="tint-coach" />
      <P d="M24 12H0V44H24Z" c="tint-engine" />
      <P d="M-24 44V12H24V44Z" c="edge" />
      <P d="M-14 16v24M14 16v24M-19 16v24M19 16v24" />
      <P d="M5 22L-5 28L5 34Z" c="dot" />
      <P d="M-5 22V34" c="detail bold" />
      <R x={-37} y={17} w={13} h={11} r={1} c="edge paper-fill" />
      <R x={24} y={17} w={13} h={11} r={1} c="edge paper-fill" />
      <Stud x={0} y={8} />
    </>
  ),
  disconnect: () => (
    <>
      <R x={-30} y={17} w={60} h={18} c="edge paper-fill" />
      <Stud x={-25} y={26} />
      <Stud x={25} y={26} />
      <C x={0} y={26} r={17} c="edge coach-fill" />
      <P d="M-12.5 22.5H12.5Q15 26 12.5 29.5H-12.5Q-15 26-12.5 22.5Z" c="edge paper-fill" />
      <C x={0} y={26} r={2} c="dot" />
    </>
  ),
  'voltage-link-module': () => moduleBox(<P d="M-16 23H14M9 18l6 5-6 5" c="detail bold" />),
  'bidirectional-module': () => moduleBox(<P d="M-16 20H14M9 16l6 4-6 4M16 27H-14M-9 23l-6 4 6 4" c="detail bold" />),
  'timed-window-module': () => moduleBox(<P d="M-17 29H-9V17H3V29H11V17H17" c="detail bold" />),
  'link-switch': () => (
    <>
      <R x={-17} y={2} w={34} h={44} r={4} c="edge paper-fill" />
      <C x={0} y={24} r={11} c="edge engine-fill" />
      <P d="M0 24L7 8" c="detail blade" />
      <C x={7} y={8} r={4} c="edge paper-fill" />
      <P d="M-8 46v6M8 46v6" c="detail bold" />
    </>
  ),
  'enable-switch': () => (
    <>
      <R x={-15} y={6} w={30} h={40} r={4} c="edge paper-fill" />
      <R x={-8} y={12} w={16} h={24} r={2} c="edge engine-fill" />
      <P d="M0 16v7M-4 30h8" c="detail bold" />
      <P d="M-8 46v6M8 46v6" c="detail bold" />
    </>
  ),
  'marker-lights': () => (
    <>
      <P d="M-16 44V24A16 16 0 0 1 16 24V44Z" c="edge coach-fill" />
      <R x={-20} y={44} w={40} h={5} r={1} c="edge paper-fill" />
      <P d="M0 20v14M-7 27h14M-5 22l10 10M5 22l-10 10" c="detail" />
    </>
  ),
  generator: () => (
    <>
      <R x={-28} y={14} w={56} h={34} r={3} c="edge paper-fill" />
      <C x={-10} y={31} r={11} c="edge coach-fill" />
      <P d="M-15 31q2.5-6 5 0t5 0" c="detail bold" />
      <P d="M7 20h15M7 26h15M7 32h15M20 14V7h6" />
      <R x={7} y={38} w={15} h={6} r={1} c="detail paper-fill" />
    </>
  ),
  'solar-charger': () => (
    <>
      <P d="M-22 30L-14 8H22L26 30Z" c="edge coach-fill" />
      <P d="M-2 8L0 30M10 8L13 30M-14 8L-11 30M-18 19H24" />
      <R x={-12} y={34} w={28} h={14} r={2} c="edge paper-fill" />
      <P d="M-6 41h4M2 41h8M6 37.5v7" c="detail bold" />
    </>
  ),
  'ignition-delay-module': () => (
    <>
      <R x={-27} y={9} w={54} h={37} r={3} c="edge paper-fill" />
      <P d="M-27 37H27" />
      <C x={-10} y={23} r={9.6} c="detail coach-fill" />
      <P d="M-10 17V23L-6 25.5" c="detail bold" />
      <P d="M6 18h14M6 23h14M6 28h9" />
      {[-20, -9, 4, 18].map((x) => (
        <R key={x} x={x - 3} y={46} w={6} h={5} r={0.5} c="edge paper-fill thin" />
      ))}
    </>
  ),
  'ignition-switch': () => (
    <>
      <R x={-21} y={6} w={42} h={40} r={4} c="edge paper-fill" />
      <C x={0} y={26} r={14} c="edge engine-fill" />
      <C x={0} y={26} r={9.5} c="detail paper-fill" />
      <path d="M-2-7h4v14h-4z" transform="translate(0 26) rotate(28)" className="dot" />
      <P d="M6 46v6" c="detail bold" />
    </>
  ),
  'link-fuse': ({ fill }) => (
    <>
      <P d="M-29 20h12v8h-12zM17 20h12v8h-12z" c="edge paper-fill" />
      <R x={-17} y={11} w={34} h={26} r={3} c="edge paper-fill" />
      <R x={-11} y={16} w={22} h={16} r={1.5} c={`detail ${fill}`} />
      <P d="M-11 24h4q3.5-8 7 0t7 0h4" c="detail bold" />
      <Stud x={-25} y={24} />
      <Stud x={25} y={24} />
    </>
  ),
  'link-solenoid': ({ closed }) => (
    <>
      <P d="M-27 44h-6v4h66v-4h-6" c="edge paper-fill" />
      <P d="M-24 15Q-24 10-19 10H0V44H-24Z" c="tint-coach" />
      <P d="M24 15Q24 10 19 10H0V44H24Z" c="tint-engine" />
      <P d="M-24 15Q-24 10-19 10H19Q24 10 24 15V44H-24Z" c="edge" />
      <P d="M-24 39H24" />
      <R x={-37} y={17} w={13} h={11} r={1} c="edge paper-fill" />
      <R x={24} y={17} w={13} h={11} r={1} c="edge paper-fill" />
      <C x={-12} y={27} r={2.8} c="dot" />
      <C x={12} y={27} r={2.8} c="dot" />
      <P d={closed ? 'M-12 27H12' : 'M12 27L-10 16.5'} c="detail blade" />
      <R x={-15} y={48} w={6} h={5} r={0.5} c="edge paper-fill thin" />
      <R x={9} y={48} w={6} h={5} r={0.5} c="edge paper-fill thin" />
    </>
  ),
  'shore-charger': () => (
    <>
      <R x={-25} y={10} w={50} h={38} r={2.5} c="edge paper-fill" />
      <P d="M-19 14v30M-15 14v30M-11 14v30M11 14v30M15 14v30M19 14v30" />
      <R x={-7} y={15} w={14} h={28} c="edge coach-fill" />
      <P d="M-3 21v4M3 21v4M-4.5 25h9v3q0 4.5-4.5 4.5t-4.5-4.5zM0 32.5V37" c="detail bold" />
    </>
  ),
};

/** The drawing of a part kind. `closed` shows a link's contact made. */
export function Glyph({
  kind,
  side,
  closed = false,
}: {
  kind: PartKindId;
  side: 'engine' | 'coach' | 'both';
  closed?: boolean;
}) {
  const fill = side === 'coach' ? 'coach-fill' : side === 'engine' ? 'engine-fill' : 'paper-fill';
  return <>{GLYPHS[kind]({ fill, side, closed })}</>;
}

/** Signs told apart by shape as well as colour: tick in a disc, triangle down, triangle up. */
export function Sign({
  verdict,
  size = 15,
  onInk = false,
}: {
  verdict: 'ok' | 'low' | 'high';
  size?: number;
  onInk?: boolean;
}) {
  const title = verdict === 'ok' ? 'in band' : verdict === 'low' ? 'below band' : 'above band';
  const tone = onInk ? 'sign inherit' : `sign ${verdict === 'ok' ? 'good' : 'bad'}`;
  return (
    <svg className={tone} width={size} height={size} viewBox="-7.5 -7.5 15 15" role="img" aria-label={title}>
      {signShape(verdict)}
    </svg>
  );
}

export function signShape(verdict: 'ok' | 'low' | 'high'): ReactNode {
  if (verdict === 'ok')
    return (
      <>
        <circle
          r={6.5}
          className="sign-face within-good:fill-ok within-on-ink:paper-fill within-inherit:fill-current"
        />
        <path
          d="M-3.1 .2L-.9 2.5L3.3-2.3"
          className="sign-stroke fill-none stroke-card within-on-ink:stroke-ink within-inherit:stroke-ink"
        />
      </>
    );
  return (
    <path
      d={verdict === 'low' ? 'M-6.2-4.6H6.2L0 6Z' : 'M-6.2 4.6H6.2L0-6Z'}
      className="sign-face within-bad:fill-fail within-on-bad:fill-on-fail within-inherit:fill-current"
    />
  );
}
