'use client';
/** Each fuse and breaker: its window, what it must open into, where it sits, and its curve against the wire's. */
import { Chart, LineController, LineElement, LogarithmicScale, PointElement } from 'chart.js';
import { CircleCheck, TriangleAlert } from 'lucide-react';
import { useEffect, useRef, useState } from 'react';
import type { FuseCheck } from '../../core/size/fuseChecks';
import type { Autofix } from '../../core/rules/rule';
import type { Sized } from '../../core/rules/sized';
import { useJobPage } from '../shell/jobPage';
import { useTheme } from '../theme';

Chart.register(LogarithmicScale, LineController, LineElement, PointElement);

const css = (name: string) => getComputedStyle(document.documentElement).getPropertyValue(name).trim();
const seconds = (s: number) => (s >= 60 ? `${s / 60} min` : s >= 1 ? `${s} s` : `${s * 1000} ms`);

/** Seconds against amps on logarithmic scales: the fuse must lie under the wire. */
function CurveChart({ fuse }: { fuse: FuseCheck }) {
  const canvas = useRef<HTMLCanvasElement>(null);
  const [theme] = useTheme();
  useEffect(() => {
    const el = canvas.current;
    if (!el) return;
    const ink = css('--ink');
    const font = { family: css('--font-cond'), size: 15, weight: 600 } as const;
    const line = (label: string, pick: (c: FuseCheck['curves'][number]) => number, more: object) => ({
      label,
      data: fuse.curves.map((c) => ({ x: c.amps, y: pick(c) })).filter((p) => Number.isFinite(p.y)),
      pointRadius: 0,
      borderColor: ink,
      ...more,
    });
    const chart = new Chart(el, {
      type: 'line',
      data: {
        datasets: [
          line('wire stands', (c) => c.wire, { borderWidth: 2, borderDash: [7, 5] }),
          line('fuse, at its slowest', (c) => c.fuse, { borderWidth: 4 }),
        ],
      },
      options: {
        animation: false,
        maintainAspectRatio: false,
        parsing: false,
        layout: { padding: { right: 8 } },
        plugins: { legend: { display: false }, tooltip: { enabled: false } },
        scales: {
          x: {
            type: 'logarithmic',
            title: { display: true, text: 'A', color: ink, font },
            ticks: {
              color: ink,
              font,
              callback: (v) =>
                [1, 2, 5].includes(Number(String(v)[0])) && /^[125]0*$/.test(String(v)) ? String(v) : '',
            },
            grid: { color: css('--rule-2') },
          },
          y: {
            type: 'logarithmic',
            min: 0.005,
            max: 2000,
            ticks: {
              color: ink,
              font,
              callback: (v) => ([0.01, 0.1, 1, 10, 60, 600].includes(Number(v)) ? seconds(Number(v)) : ''),
            },
            grid: { color: css('--rule-2') },
          },
        },
      },
    });
    return () => chart.destroy();
  }, [fuse, theme]);
  const crossing = fuse.curves.find((c) => c.fuse > c.wire);
  return (
    <figure className="szcurve">
      <figcaption>
        <b>Time to open</b> heavy line: the fuse at its slowest; dashed: the weakest wire
      </figcaption>
      <div>
        <canvas
          ref={canvas}
          role="img"
          aria-label={
            crossing
              ? `The fuse may outlast its wire at ${crossing.amps.toFixed(0)} amps`
              : 'The fuse opens before its wire is harmed at every current'
          }
        />
      </div>
    </figure>
  );
}

export function FusePanel({ sized, mend }: { sized: Sized; mend(m: Autofix): void }) {
  const { words } = useJobPage();
  const [at, setAt] = useState<string>();
  const fuse = sized.fuses.find((f) => f.part === at) ?? sized.fuses[0];
  if (!fuse) return <p className="waiting pad">This rig has no fuse in a heavy line. See the rules.</p>;
  const { window: w } = fuse;
  return (
    <div className="szruns">
      <ul className="szlist" aria-label="Fuses">
        {sized.fuses.map((f) => {
          const bad = f.checks.some((c) => c.verdict === 'bad');
          return (
            <li key={f.part}>
              <button
                type="button"
                className={f.part === fuse.part ? 'on' : ''}
                aria-pressed={f.part === fuse.part}
                onClick={() => setAt(f.part)}
              >
                <b>{words(f.name)}</b>
                <span className={`omark${bad ? ' bad' : ''}`}>
                  {bad ? <TriangleAlert size={16} aria-hidden="true" /> : <CircleCheck size={16} aria-hidden="true" />}
                  {f.rating > 0 ? `${f.rating} A` : 'rating unknown'}
                </span>
                <small>{f.kind}</small>
              </button>
            </li>
          );
        })}
      </ul>
      <div className="szrun">
        <h2>
          {words(fuse.name)}{' '}
          <small>
            {fuse.rating > 0 ? `${fuse.rating} A` : ''} {fuse.kind}
          </small>
        </h2>
        <div
          className="szwindow"
          role="img"
          aria-label={`Window from ${w.from.toFixed(0)} to ${w.to.toFixed(0)} amps, the fuse is ${fuse.rating} amps`}
        >
          <Window from={w.from} to={w.to} rating={fuse.rating} load={fuse.continuous} />
        </div>
        <ul className="szchecks">
          {fuse.checks.map((c) => (
            <li key={c.id} className={c.verdict}>
              {c.verdict === 'good' ? (
                <CircleCheck size={18} aria-label="good" />
              ) : (
                <TriangleAlert size={18} aria-label={c.verdict === 'bad' ? 'wrong' : 'watch it'} />
              )}
              <span>{words(c.says)}</span>
            </li>
          ))}
        </ul>
        {sized.revision && w.fits.length + w.tight.length > 0 && (
          <p className="szratings">
            Fit
            {[...new Set([...w.tight, ...w.fits])].slice(0, 8).map((r) => (
              <button
                key={r}
                type="button"
                className="bx small"
                aria-pressed={r === fuse.rating}
                onClick={() =>
                  mend({
                    part: fuse.part,
                    set: { note: `${r} A`, params: { rating: { value: r, spread: 0, provenance: 'nameplate' } } },
                  })
                }
              >
                {r} A
              </button>
            ))}
          </p>
        )}
        {fuse.curves.length > 0 && <CurveChart fuse={fuse} />}
      </div>
    </div>
  );
}

/** The window as a band on a line of amps, the fuse as a mark on it. */
function Window({ from, to, rating, load }: { from: number; to: number; rating: number; load: number }) {
  const most = Math.max(to, from, rating) * 1.15;
  const x = (a: number) => 20 + (a / most) * 560;
  const good = from <= to;
  return (
    <svg viewBox="0 0 600 74" width="100%" height={74}>
      <path d={`M20 36H580`} className="szaxis" />
      <rect
        x={x(Math.min(from, to))}
        y={26}
        width={Math.max(2, Math.abs(x(to) - x(from)))}
        height={20}
        className={good ? 'szband' : 'szband none'}
      />
      <path d={`M${x(load)} 24V48`} className="szload" />
      <text x={x(load)} y={66} textAnchor="middle">
        {load.toFixed(0)} A load
      </text>
      <text x={x(from)} y={18} textAnchor={good ? 'end' : 'start'}>
        {good ? `÷ 0.8: ${from.toFixed(0)}` : ''}
      </text>
      <text x={x(to)} y={18} textAnchor={x(to) > 500 ? 'end' : 'start'}>
        wire {to.toFixed(0)} A
      </text>
      {rating > 0 && (
        <>
          <circle cx={x(rating)} cy={36} r={9} className="szfuse" />
          <text
            x={x(rating)}
            y={66}
            textAnchor={Math.abs(x(rating) - x(load)) < 90 ? 'start' : 'middle'}
            className="strong"
          >
            {rating} A
          </text>
        </>
      )}
    </svg>
  );
}
