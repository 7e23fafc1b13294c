/** Our own drawings of what joins vehicles and banks: chargers, connectors, relays, helpers. Same measures as glyphs.tsx. */
import type { ReactNode } from 'react';

const stud = (x: number, y: number) => (
  <>
    <circle cx={x} cy={y} r={5} className="edge paper-fill" />
    <circle cx={x} cy={y} r={1.6} className="dot" />
  </>
);

/** Fins of a converter, its two ends, what it does written between. */
const finned = (inside: ReactNode) => (
  <>
    <path d="M-29 18h8v12h-8zM21 18h8v12h-8z" className="edge paper-fill" />
    <rect x={-23} y={8} width={46} height={40} rx={2.5} className="edge paper-fill" />
    <path d="M-17 12v32M-13 12v32M13 12v32M17 12v32" className="detail" />
    <rect x={-9} y={13} width={18} height={30} rx={1.5} className="edge coach-fill" />
    {inside}
  </>
);

const relay = (inside: ReactNode) => (
  <>
    <rect x={-22} y={10} width={44} height={36} rx={3} />
    <path d="M-22 38H22" />
    {inside}
    {stud(-28, 24)}
    {stud(28, 24)}
    <rect x={-3} y={46} width={6} height={5} rx={0.5} />
  </>
);

export const LINK_GLYPHS = {
  'dcdc-charger': () => finned(<path d="M-5 34V22H5M1 17.5L6 22L1 26.5" className="detail bold" />),
  // A charger that has the sun for its second input.
  'dual-charger': () =>
    finned(
      <>
        <path d="M-5 38V30H5M1 25.5L6 30L1 34.5" className="bold" />
        <circle cx={0} cy={19} r={3} />
        <path d="M0 13.5V15M0 23V24.5M-5.5 19H-4M4 19H5.5" />
      </>,
    ),
  // A bridge one lays by hand: knife switch, its blade up.
  'bypass-switch': () => (
    <>
      <path d="M-30 40H30V46H-30Z" />
      <path d="M-25 26V40M25 26V40" className="bold" />
      <path d="M-25 26L14 9" className="bold" />
      <circle cx={17} cy={8} r={4} />
      {stud(-25, 26)}
      {stud(25, 26)}
    </>
  ),
  // The can of a breaker: bent strip under a lid, two studs.
  'line-breaker': () => (
    <>
      <path d="M-29 20h12v8h-12zM17 20h12v8h-12z" className="edge paper-fill" />
      <rect x={-17} y={9} width={34} height={29} rx={6} className="edge paper-fill" />
      <path d="M-11 29Q0 13 11 25" className="detail bold" />
      <circle cx={-11} cy={30} r={2} className="dot" />
      <circle cx={11} cy={30} r={2} className="dot" />
      {stud(-25, 24)}
      {stud(25, 24)}
    </>
  ),
  'triggered-maintainer': () => finned(<path d="M-5 22h4v8h6M-5 36h10" className="bold" />),
  'tow-connector': () => (
    <>
      <path d="M-30 18h10v12h-10zM20 18h10v12H20z" className="edge paper-fill" />
      <path d="M-20 12H-3V38H-20Q-24 38-24 32V18Q-24 12-20 12Z" className="edge engine-fill" />
      <path d="M20 12H3V38H20Q24 38 24 32V18Q24 12 20 12Z" className="edge coach-fill" />
      <path d="M-3 18H3M-3 25H3M-3 32H3" className="detail bold" />
      <path d="M-10 38v14M10 38v14" className="detail" />
    </>
  ),
  'voltage-relay': () => relay(<path d="M-12 30L-4 18L4 30L12 18" className="bold" />),
  'differential-maintainer': () => relay(<path d="M-12 19H8M3 15l5 4-5 4M-12 31h20" className="bold" />),
  'diode-lamp': () => (
    <>
      <path d="M-34 24H-22M22 24H34" className="detail bold" />
      <rect x={-23} y={8} width={46} height={34} rx={3} className="edge paper-fill" />
      <path d="M-18 18V30L-7 24ZM-7 18V30" className="detail bold" />
      <circle cx={9} cy={24} r={9} className="edge coach-fill" />
      <path d="M3 18L15 30M15 18L3 30" className="detail bold" />
    </>
  ),
  'fridge-element': () => (
    <>
      <rect x={-19} y={6} width={38} height={44} rx={3} className="edge coach-fill" />
      <path d="M-19 20H19M-13 11v5M-13 24v8" className="detail" />
      <path d="M-6 40h4q2-8 4 0t4 0h4" className="detail bold" />
    </>
  ),
  'automatic-fridge': () => (
    <>
      <rect x={-19} y={6} width={38} height={44} rx={3} />
      <path d="M-19 20H19M-13 11v5M-13 24v8" />
      <circle cx={4} cy={35} r={10} />
      <path d="M0 40l4-11 4 11M1 37h6" className="bold" />
    </>
  ),
  shunt: () => (
    <>
      <path d="M-25 24H-16M16 24H25" className="bold" />
      <rect x={-16} y={14} width={9} height={20} rx={1} />
      <rect x={7} y={14} width={9} height={20} rx={1} />
      <path d="M-7 19H7M-7 24H7M-7 29H7" className="bold" />
    </>
  ),
  'towed-car-loads': () => (
    <>
      <path d="M-27 40V28Q-27 24-22 23L-12 21L-6 12H12L21 22Q27 23 27 29V40Z" className="edge coach-fill" />
      <path d="M-11 21H20M4 12V21" className="detail" />
      <circle cx={-15} cy={41} r={6} className="edge paper-fill" />
      <circle cx={15} cy={41} r={6} className="edge paper-fill" />
    </>
  ),
};
