'use client';
/** Each measurement of a rig through its jobs, with the band a healthy one has; contacts in milliohms. */
import { clsx } from 'clsx';
import { format } from 'date-fns';
import { useCallback, useMemo, useState } from 'react';
import type { Job } from '../../core/job/job';
import { trendsOf, type Trend } from '../../core/jobAnswers/trends';
import { measurementId } from '../../core/probe/measurement';
import { showText } from '../../core/units/format';
import { ChartFrame } from '../charts/ChartFrame';
import { axis, sheet } from '../charts/sheet';
import { useLineChart } from '../charts/useLineChart';
import { type Measuring, useJobFile, useMeasuring } from '../shell/jobPage';
import { Sign } from '../strip/glyphs';

/** Contact milliohms by common practice: good up to two, replaced above four. */
const CONTACT = { lo: 0, hi: 0.002, worst: 0.004 };

interface Banded {
  lo: number;
  hi: number;
}

const bandOf = (band: Measuring['band'], t: Trend): Banded | undefined =>
  t.unit === 'ohm' ? CONTACT : t.state && t.probe ? band(t.state, measurementId(t.probe, t.ref)) : undefined;
const verdictOf = (value: number, b: Banded): 'ok' | 'low' | 'high' =>
  value < b.lo ? 'low' : value > b.hi ? 'high' : 'ok';
const valueText = (t: Trend, value: number): string =>
  t.unit === 'ohm' ? `${(value * 1000).toFixed(2)} mΩ` : showText(value, t.unit);

export function Trends({ jobs }: { jobs: readonly Job[] }) {
  const file = useJobFile();
  const measuring = useMeasuring();
  const { words } = file;
  const trends = useMemo(() => trendsOf(jobs), [jobs]);
  const [picked, pick] = useState<string>();
  const shown = trends.find((t) => t.id === picked) ?? trends[0];
  if (!shown) return <p className="waiting">No reading yet: the first ones of this rig begin its trends.</p>;
  const band = bandOf(measuring.band, shown);
  return (
    <div className="trends grid min-h-full max-small:block max-narrow:grid-cols-list">
      <nav
        className={clsx(
          'border-r-2 border-ink',
          'max-small:max-h-55 max-small:overflow-y-auto max-small:border-r-0 max-small:border-b-2 max-small:border-ink',
        )}
        aria-label="Measurements"
      >
        {trends.map((t) => {
          const last = t.points.at(-1)!;
          const b = bandOf(measuring.band, t);
          return (
            <button
              key={t.id}
              type="button"
              className={clsx(
                'grid grid-cols-end items-center gap-x-2 gap-y-0',
                'w-full min-h-13.5 px-3 py-1.5 border-b-1 border-rule',
                'text-left',
                'is-on:bg-ink is-on:text-paper',
                t === shown ? 'on' : '',
              )}
              aria-current={t === shown}
              onClick={() => pick(t.id)}
            >
              <b className="font-cond font-semibold text-lead leading-close">
                {t.label} {words(t.name)}
              </b>
              <small className="row-start-2 text-ink-2 text-fine within-on:text-paper">
                {t.state ? file.stateOf(t.state).label : 'from drop and amps together'}, {t.points.length}{' '}
                {t.points.length === 1 ? 'reading' : 'readings'}
              </small>
              <span className="row-span-2 col-start-2 font-cond font-bold text-large whitespace-nowrap">
                {b && <Sign verdict={verdictOf(last.value, b)} size={13} />} {valueText(t, last.value)}
              </span>
            </button>
          );
        })}
      </nav>
      <section className="grid content-start gap-2 px-4 py-2.5" aria-label={`Trend of ${shown.name}`}>
        <h3 className="font-cond font-bold text-head">
          {shown.label} {words(shown.name)}
          {shown.state ? `, ${file.stateOf(shown.state).label.toLowerCase()}` : ''}
        </h3>
        <TrendChart trend={shown} band={band} />
        <table className="w-full text-note">
          <thead>
            <tr>
              <th className="px-1.5 py-0.75 border-b border-ink text-left">When</th>
              <th className="px-1.5 py-0.75 border-b border-ink text-left">Job</th>
              <th className="px-1.5 py-0.75 border-b border-ink font-cond text-right text-lead whitespace-nowrap">
                Reading
              </th>
              <th className="px-1.5 py-0.75 border-b border-ink text-left" />
            </tr>
          </thead>
          <tbody>
            {shown.points.map((p, i) => (
              <tr key={i}>
                <td className="px-1.5 py-1 border-b-1 border-rule leading-tight align-middle">
                  {format(new Date(p.at), 'd MMM yyyy')}
                </td>
                <td className="px-1.5 py-1 border-b-1 border-rule leading-tight align-middle">{p.job}</td>
                <td
                  className={clsx(
                    'px-1.5 py-1 border-b-1 border-rule',
                    'font-cond text-right text-lead leading-tight align-middle whitespace-nowrap',
                  )}
                >
                  {band && <Sign verdict={verdictOf(p.value, band)} size={13} />} {valueText(shown, p.value)}
                </td>
                <td className="px-1.5 py-1 border-b-1 border-rule leading-tight align-middle">
                  {p.changed ? 'after the rig was changed' : ''}
                </td>
              </tr>
            ))}
          </tbody>
        </table>
        <p className="quiet">
          {shown.unit === 'ohm'
            ? 'A contact is good up to 2 mΩ, to be watched to 4 mΩ, then replaced: common practice. Only readings above 30 A count.'
            : 'The band is that of a healthy rig as it stands now, in this operating state.'}
        </p>
      </section>
    </div>
  );
}

/** Days shown beside the first and the last reading. */
const MARGIN_DAYS = 5;
const DAY_MS = 86_400_000;

function TrendChart({ trend, band }: { trend: Trend; band: Banded | undefined }) {
  const { job, words } = useJobFile();
  const [cursor, setCursor] = useState<number>();
  const unit = trend.unit === 'ohm' ? 'mΩ' : trend.unit;
  const draw = useCallback(() => {
    const scale = trend.unit === 'ohm' ? 1000 : 1;
    const at = trend.points.map((p) => new Date(p.at).getTime());
    const healthy = band && {
      band: {
        type: 'box' as const,
        yMin: band.lo * scale,
        yMax: band.hi * scale,
        backgroundColor: sheet('--ok-tint'),
        borderColor: sheet('--ok'),
        borderWidth: 1,
        drawTime: 'beforeDatasetsDraw' as const,
      },
    };
    return {
      data: {
        datasets: [
          {
            data: trend.points.map((p, i) => ({ x: at[i]!, y: p.value * scale })),
            borderColor: sheet('--ink'),
            backgroundColor: sheet('--ink'),
            borderWidth: 2,
            pointRadius: 6,
            pointStyle: trend.points.map((p) => (p.changed ? 'rectRot' : 'circle')),
          },
        ],
      },
      options: {
        plugins: { annotation: { annotations: { ...healthy } } },
        scales: {
          x: axis(
            'linear',
            {},
            {
              min: at[0]! - DAY_MS * MARGIN_DAYS,
              max: at.at(-1)! + DAY_MS * MARGIN_DAYS,
              ticks: { maxTicksLimit: 6, callback: (v: number | string) => format(new Date(Number(v)), 'MMM yyyy') },
            },
          ),
          y: axis('linear', { unit }, band ? { suggestedMin: band.lo * scale, suggestedMax: band.hi * scale } : {}),
        },
      },
    };
  }, [trend, band, unit]);
  const { canvas } = useLineChart(draw, { onPoint: setCursor, at: cursor });
  const nearest =
    cursor === undefined
      ? undefined
      : trend.points.reduce((best, p) => {
          const off = (x: Trend['points'][number]) => Math.abs(new Date(x.at).getTime() - cursor);
          return off(p) < off(best) ? p : best;
        });
  const day = (at: string) => format(new Date(at), 'd MMM yyyy');
  return (
    <ChartFrame
      title={`${words(trend.name)}, ${unit}`}
      says={`${words(trend.name)} through ${trend.points.length} readings; the table below says the same.`}
      legend={band ? [{ name: 'green: a healthy rig; a diamond: after the rig was changed', colour: '--ok' }] : []}
      reads={nearest ? `${day(nearest.at)}, job ${nearest.job}: ${valueText(trend, nearest.value)}` : ''}
      table={{
        head: ['When', unit],
        rows: trend.points.map((p) => [day(p.at), valueText(trend, p.value)]),
      }}
      file={`${job.number}-trend`}
      canvas={canvas}
      boxClassName="h-60 flex-none"
      onLeave={() => setCursor(undefined)}
    />
  );
}
