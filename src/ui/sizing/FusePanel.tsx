'use client';
/** Each fuse and breaker: its window, what it must open into, where it sits, and its curve against the wire's. */
import { clsx } from 'clsx';
import { CircleCheck, TriangleAlert } from 'lucide-react';
import { useCallback, useState } from 'react';
import type { FuseCheck } from '../../core/size/fuseChecks';
import type { Autofix } from '../../core/rules/rule';
import type { Sized } from '../../core/rules/sized';
import { ChartFrame } from '../charts/ChartFrame';
import { axis, decade, sheet } from '../charts/sheet';
import { useLineChart } from '../charts/useLineChart';
import { useJobFile } from '../shell/jobPage';

const digits = (x: number): number => Number(x.toPrecision(2));
const duration = (s: number): string =>
  s >= 90 ? `${digits(s / 60)} min` : s >= 1 ? `${digits(s)} s` : `${digits(s * 1000)} ms`;

/** s that have a label on the axis. */
const TOLD_SECONDS = [0.01, 0.1, 1, 10, 100, 1000];

type Curve = FuseCheck['curves'][number];

/** Seconds against amps on logarithmic scales: the fuse must lie under the wire. */
function CurveChart({ fuse }: { fuse: FuseCheck }) {
  const { job, words } = useJobFile();
  const [cursor, setCursor] = useState<number>();
  const { curves } = fuse;
  const draw = useCallback(() => {
    const line = (label: string, pick: (c: Curve) => number, more: object) => ({
      label,
      data: curves.map((c) => ({ x: c.amps, y: pick(c) })).filter((p) => Number.isFinite(p.y)),
      pointRadius: 0,
      borderColor: sheet('--ink'),
      ...more,
    });
    return {
      data: {
        datasets: [
          line('wire stands', (c) => c.wire, { borderWidth: 2, borderDash: [...WIRE_DASH] }),
          line('fuse, at its slowest', (c) => c.fuse, { borderWidth: 4 }),
        ],
      },
      options: {
        layout: { padding: { right: 8 } },
        scales: {
          x: axis('logarithmic', { unit: 'A' }, { ticks: { callback: decade } }),
          y: axis(
            'logarithmic',
            {},
            {
              min: 0.005,
              max: 2000,
              ticks: {
                callback: (v: number | string) => (TOLD_SECONDS.includes(Number(v)) ? `${v} s` : ''),
              },
            },
          ),
        },
      },
    };
  }, [curves]);
  const { canvas } = useLineChart(draw, { onPoint: setCursor, at: cursor });
  const slower = curves.filter((c) => c.fuse > c.wire);
  const crossing =
    slower.length > 0
      ? `may outlast a wire that sheds no heat, ${slower[0]!.amps.toFixed(0)} to ${slower.at(-1)!.amps.toFixed(0)} A`
      : 'it opens before its wire is harmed at every current';
  const told = (s: number) => (Number.isFinite(s) ? duration(s) : 'for ever');
  const near =
    cursor === undefined
      ? undefined
      : curves.reduce((best, c) =>
          Math.abs(Math.log(c.amps / cursor)) < Math.abs(Math.log(best.amps / cursor)) ? c : best,
        );
  return (
    <ChartFrame
      title="Time to open"
      note={crossing}
      says={`Time the fuse takes to open against amps: ${crossing}.`}
      legend={[
        { name: 'the fuse at its slowest', colour: '--ink', heavy: true },
        { name: 'the weakest wire', colour: '--ink', dash: WIRE_DASH },
      ]}
      reads={near ? `${near.amps.toFixed(0)} A: fuse opens in ${told(near.fuse)}, wire stands ${told(near.wire)}` : ''}
      table={{
        head: ['Amps', 'Fuse opens in', 'Wire stands'],
        rows: curves.map((c) => [`${c.amps.toFixed(0)} A`, told(c.fuse), told(c.wire)]),
      }}
      file={`${job.number}-${words(fuse.name)}`}
      canvas={canvas}
      boxClassName="h-60 flex-none"
      onLeave={() => setCursor(undefined)}
    />
  );
}

const WIRE_DASH = [7, 5] as const;

export function FusePanel({ sized, mend }: { sized: Sized; mend(m: Autofix): void }) {
  const { words } = useJobFile();
  const [at, setAt] = useState<string>();
  const fuse = sized.fuses.find((f) => f.part === at) ?? sized.fuses[0];
  if (!fuse) return <p className="waiting">This rig has no fuse in a heavy line. See the rules.</p>;
  const { window: w } = fuse;
  return (
    <div className="szruns grid flex-1 min-h-0 max-phone:block max-narrow:grid-cols-names">
      <ul
        className={clsx(
          'szlist',
          'overflow-y-auto border-r-2 border-ink bg-card',
          'max-phone:flex max-phone:overflow-x-auto max-phone:border-r-0 max-phone:border-b-2 max-phone:border-ink',
        )}
        aria-label="Fuses"
      >
        {sized.fuses.map((f) => {
          const bad = f.checks.some((c) => c.verdict === 'bad');
          return (
            <li key={f.part}>
              <button
                type="button"
                className={clsx(
                  'grid grid-cols-end gap-x-2 gap-y-0.25',
                  'w-full min-h-13 px-3 py-1.5 border-b-1 border-rule',
                  'text-left text-inherit',
                  'is-on:bg-ink is-on:text-paper max-narrow:grid-cols-1',
                  'max-phone:w-47.5 max-phone:border-r-1 max-phone:border-rule',
                  f.part === fuse.part ? 'on' : '',
                )}
                aria-pressed={f.part === fuse.part}
                onClick={() => setAt(f.part)}
              >
                <b className="col-span-full font-cond font-semibold text-large leading-close">{words(f.name)}</b>
                <span className={`omark${bad ? ' bad' : ''}`}>
                  {bad ? <TriangleAlert size={16} aria-hidden="true" /> : <CircleCheck size={16} aria-hidden="true" />}
                  {f.rating > 0 ? `${f.rating} A` : 'rating unknown'}
                </span>
                <small className="text-fine text-ink-2 within-on:text-inherit">{f.kind}</small>
              </button>
            </li>
          );
        })}
      </ul>
      <div className="szrun grid content-start gap-2 px-3.5 pt-2 pb-4 overflow-y-auto">
        <h2 className="font-cond font-bold text-figure leading-close">
          {words(fuse.name)}{' '}
          <small className="ml-1.5 font-medium text-plain text-ink-2">
            {fuse.rating > 0 ? `${fuse.rating} A` : ''} {fuse.kind}
          </small>
        </h2>
        <div
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
          <p className="flex flex-wrap items-center gap-1.5 font-semibold text-note">
            Fit
            {[...new Set([...w.tight, ...w.fits])].slice(0, 8).map((r) => (
              <button
                key={r}
                type="button"
                className="btn btn-sm"
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
      <path d={`M20 36H580`} className="szaxis stroke-ink" />
      <rect
        x={x(Math.min(from, to))}
        y={26}
        width={Math.max(2, Math.abs(x(to) - x(from)))}
        height={20}
        className={clsx('fill-ok-tint stroke-ok', good ? 'szband' : 'szband none')}
      />
      <path d={`M${x(load)} 24V48`} className="szload stroke-ink" />
      <text className="font-cond font-semibold text-note fill-ink" x={x(load)} y={66} textAnchor="middle">
        {load.toFixed(0)} A load
      </text>
      <text
        className="font-cond font-semibold text-note fill-ink"
        x={x(from)}
        y={18}
        textAnchor={good ? 'end' : 'start'}
      >
        {good ? `÷ 0.8: ${from.toFixed(0)}` : ''}
      </text>
      <text
        className="font-cond font-semibold text-note fill-ink"
        x={x(to)}
        y={18}
        textAnchor={x(to) > 500 ? 'end' : 'start'}
      >
        wire {to.toFixed(0)} A
      </text>
      {rating > 0 && (
        <>
          <circle cx={x(rating)} cy={36} r={9} className="szfuse fill-ink stroke-card" />
          <text
            x={x(rating)}
            y={66}
            textAnchor={Math.abs(x(rating) - x(load)) < 90 ? 'start' : 'middle'}
            className="strong font-cond font-bold text-large fill-ink"
          >
            {rating} A
          </text>
        </>
      )}
    </svg>
  );
}
