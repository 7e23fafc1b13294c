/** The strip's flags: where a lead can go, with what was read there or what is expected. Each is a button. */
import { memo } from 'react';
import { signShape } from './glyphs';
import { STRIP, type Flag } from './geometry';

export interface FlagFace {
  /** Reading with its unit left out for volts: "12.42", "18 mV". Absent: to take. */
  value?: string;
  /** Expected band, short, shown while there is no reading. */
  band?: string;
  verdict?: 'ok' | 'low' | 'high';
  /** Read aloud: name, reading, verdict. */
  spoken: string;
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

/** Characters from which a reading is set smaller on its plate. */
const LONG_VALUE = 7;

export const HighFlag = memo(function HighFlag({ flag, face, lead, width, onPick }: FlagProps & { width: number }) {
  const pick = () => onPick(flag.key);
  const { flag: y, plate, plateHeight } = STRIP;
  const [tx, ty] = flag.tap;
  const from = face.value !== undefined || face.band ? plate + plateHeight : y + 17;
  const pole = tx === flag.x ? `M${tx} ${from}V${ty}` : `M${flag.x} ${from}V${Math.max(from + 2, ty - 20)}L${tx} ${ty}`;
  const bad = face.verdict === 'low' || face.verdict === 'high';
  const text = face.value ?? face.band ?? '';
  // Millivolts with their sign take more room than the mark beside them leaves.
  const size = text.length >= LONG_VALUE ? 'plate-value tight' : 'plate-value';
  return (
    <g
      className="flag"
      role="button"
      tabIndex={0}
      aria-label={face.spoken}
      aria-pressed={lead === 'red'}
      onClick={pick}
      onKeyDown={(e) => (e.key === 'Enter' || e.key === ' ') && (e.preventDefault(), pick())}
    >
      <path d={pole} className="casing" strokeWidth={5} />
      <path d={pole} className="pole" />
      <circle cx={tx} cy={ty} r={4.2} className="tap" />
      {text !== '' && (
        <>
          <rect
            x={flag.x - width / 2}
            y={plate}
            width={width}
            height={plateHeight}
            rx={3}
            className={`plate${face.value === undefined ? ' todo' : ''}${bad ? ' bad' : ''}${lead === 'red' ? ' here' : ''}`}
          />
          {face.verdict && (
            <g
              transform={`translate(${flag.x - width / 2 + 10} ${plate + 12}) scale(.85)`}
              className={`sign ${bad ? 'on-bad' : 'good'}`}
            >
              {signShape(face.verdict)}
            </g>
          )}
          <text
            x={flag.x + (face.verdict ? 8 : 0)}
            y={plate + (face.value === undefined ? 17 : 18.4)}
            className={face.value === undefined ? 'plate-blank' : bad ? `${size} bad` : size}
            textAnchor="middle"
          >
            {text}
          </text>
        </>
      )}
      {lead && <circle cx={flag.x} cy={y} r={21} className={`ring ${lead}`} />}
      <circle
        cx={flag.x}
        cy={y}
        r={17}
        className={`flag-face${lead === 'red' ? ' here' : face.value !== undefined ? ' taken' : ''}`}
      />
      <text x={flag.x} y={y + 6} className={`flag-name${lead === 'red' ? ' here' : ''}`} textAnchor="middle">
        {flag.label}
      </text>
      <rect x={flag.x - 34} y={34} width={68} height={68} className="hit" />
    </g>
  );
}, sameFlag);

/** From the tap on its lane down to the chip; the names are laid over it with a cut. */
export function Leader({ flag }: { flag: Flag }) {
  const [tx, ty] = flag.tap;
  const turn = STRIP.rail - 3;
  const d =
    Math.abs(tx - flag.x) < 1
      ? `M${tx} ${STRIP.chip}V${ty}`
      : `M${flag.x} ${STRIP.chip}V${turn}L${tx} ${Math.max(ty, turn - 12)}V${ty}`;
  return (
    <g aria-hidden="true">
      <path d={d} className="casing" strokeWidth={4.5} />
      <path d={d} className="pole thin" />
      <circle cx={tx} cy={ty} r={3.6} className="tap" />
    </g>
  );
}

export const LowChip = memo(function LowChip({ flag, face, lead, width, onPick }: FlagProps & { width: number }) {
  const pick = () => onPick(flag.key);
  const { chip, chipHeight } = STRIP;
  const bad = face.verdict === 'low' || face.verdict === 'high';
  const here = lead === 'red';
  const x = flag.x - width / 2;
  return (
    <g
      className="flag"
      role="button"
      tabIndex={0}
      aria-label={face.spoken}
      aria-pressed={here}
      onClick={pick}
      onKeyDown={(e) => (e.key === 'Enter' || e.key === ' ') && (e.preventDefault(), pick())}
    >
      {lead && (
        <rect x={x - 3} y={chip - 3} width={width + 6} height={chipHeight + 6} rx={6} className={`ring ${lead}`} />
      )}
      <rect
        x={x}
        y={chip}
        width={width}
        height={chipHeight}
        rx={4}
        className={`plate chip${face.value === undefined ? ' todo' : ''}${bad ? ' bad' : ''}${here ? ' ink' : ''}`}
      />
      <text x={x + 5} y={chip + 15} className={`chip-name${here ? ' here' : bad ? ' bad' : ''}`}>
        {flag.label}
      </text>
      {face.verdict && (
        <g
          transform={`translate(${x + width - 10} ${chip + 10}) scale(.75)`}
          className={`sign ${bad ? 'on-bad' : here ? 'on-ink' : 'good'}`}
        >
          {signShape(face.verdict)}
        </g>
      )}
      <text
        x={flag.x}
        y={chip + 31}
        className={`chip-value${here ? ' here' : bad ? ' bad' : ''}${face.value === undefined ? ' todo' : ''}`}
        textAnchor="middle"
      >
        {face.value ?? 'to take'}
      </text>
      <rect x={x - 1} y={chip - 10} width={width + 2} height={chipHeight + 12} className="hit" />
    </g>
  );
}, sameFlag);
