'use client';
/** Thresholds against what they will feel: rested below, under load above, and whether the two fit between. */
import { CircleCheck, TriangleAlert } from 'lucide-react';
import type { Autofix } from '../../core/rules/rule';
import type { Sized } from '../../core/rules/sized';
import type { Threshold } from '../../core/size/thresholds';
import { useJobFile } from '../shell/jobPage';

export function ThresholdPanel({ sized, mend }: { sized: Sized; mend(m: Autofix): void }) {
  const { words } = useJobFile();
  const set = (t: Threshold, to: { closeAt: number; openAt: number }) => {
    const param = (value: number) => ({ value, spread: 0.05, provenance: 'nameplate' as const });
    mend({
      part: t.part,
      set: { params: { [t.params.closes]: param(to.closeAt), [t.params.opens]: param(to.openAt) } },
    });
  };
  return (
    <div className="szthresholds">
      {sized.thresholds.map((t) => (
        <section key={t.part} aria-label={words(t.name)}>
          <h2>{words(t.name)}</h2>
          <Bands t={t} />
          <p className={`omark${t.verdict === 'holds' ? '' : ' bad'}`}>
            {t.verdict === 'holds' ? (
              <CircleCheck size={18} aria-hidden="true" />
            ) : (
              <TriangleAlert size={18} aria-hidden="true" />
            )}
            <b>{t.verdict}</b>
          </p>
          <p>{words(t.says)}</p>
          {t.wants && sized.revision && (
            <button type="button" className="btn justify-self-start" onClick={() => set(t, t.wants!)}>
              Close at {t.wants.closeAt.toFixed(2)} V, open at {t.wants.openAt.toFixed(2)} V
            </button>
          )}
          <ul className="szextremes">
            {t.extremes.map((e) => (
              <li key={e.label} className={`omark${e.verdict === 'holds' ? '' : ' bad'}`}>
                {e.verdict === 'holds' ? (
                  <CircleCheck size={17} aria-hidden="true" />
                ) : (
                  <TriangleAlert size={17} aria-hidden="true" />
                )}
                <span>
                  {e.label}: rests up to {e.off.hi.toFixed(2)} V, under load down to {e.loaded.lo.toFixed(2)} V,{' '}
                  <b>{e.verdict}</b>
                </span>
              </li>
            ))}
          </ul>
          <p>
            Middle 95 % of what the assumptions allow. The regulator’s volts fall 3.5 mV a kelvin, a lead battery’s rest
            rises 1.4 mV (from memory, per 12 V): check again on the first trip.
          </p>
        </section>
      ))}
    </div>
  );
}

const WIDTH = 680;
/** Words stand left of this, bars right of it: no threshold runs through a word. */
const WORDS = 300;

/** Volts from left to right: where it rests, where it works, the two thresholds as flags between. */
function Bands({ t }: { t: Threshold }) {
  const all = [t.off.lo, t.off.hi, t.loaded.lo, t.loaded.hi, t.before.hi, t.openAt, t.closeAt];
  const from = Math.min(...all) - 0.15;
  const to = Math.max(...all) + 0.15;
  const x = (v: number) => WORDS + ((v - from) / (to - from)) * (WIDTH - WORDS - 10);
  const bar = (lo: number, hi: number, y: number, cls: string, text: string) => (
    <>
      <rect x={x(lo)} y={y} width={Math.max(2, x(hi) - x(lo))} height={22} className={cls} />
      <text x={0} y={y + 16}>
        {text} {lo.toFixed(2)} to {hi.toFixed(2)} V
      </text>
    </>
  );
  return (
    <svg
      className="szbands"
      viewBox={`0 0 ${WIDTH} 142`}
      width="100%"
      height={142}
      role="img"
      aria-label={
        `Rested ${t.off.lo.toFixed(2)} to ${t.off.hi.toFixed(2)} volts, under load ${t.loaded.lo.toFixed(2)} to ` +
        `${t.loaded.hi.toFixed(2)} volts; opens at ${t.openAt.toFixed(2)}, closes at ${t.closeAt.toFixed(2)}`
      }
    >
      {bar(t.off.lo, t.off.hi, 14, 'off', 'engine off, rested')}
      {bar(t.before.lo, t.before.hi, 50, 'before', 'engine on, before it closes')}
      {bar(t.loaded.lo, t.loaded.hi, 86, 'loaded', 'closed, under load')}
      <path d={`M${x(t.openAt)} 6V118`} className="szopen" />
      <path d={`M${x(t.closeAt)} 6V118`} className="szclose" />
      <text x={x(t.openAt) - 4} y={136} textAnchor="end" className="strong">
        opens {t.openAt.toFixed(2)}
      </text>
      <text x={x(t.closeAt) + 4} y={136} className="strong">
        closes {t.closeAt.toFixed(2)}
      </text>
    </svg>
  );
}
