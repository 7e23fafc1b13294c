'use client';
/** Each measurement of a rig through its jobs, with the band a healthy one has; contacts in milliohms. */
import { CategoryScale, Chart, LinearScale, LineController, LineElement, PointElement } from 'chart.js';
import annotation from 'chartjs-plugin-annotation';
import { format } from 'date-fns';
import { useEffect, useMemo, useRef, useState } from 'react';
import type { Job } from '../../core/job/job';
import { trendsOf, type Trend } from '../../core/jobAnswers/trends';
import { operatingState } from '../../core/operate/states';

import { measurementId } from '../../core/probe/measurement';
import { showText } from '../../core/units/format';
import { useJobPage, type JobPage } from '../shell/jobPage';
import { Sign } from '../strip/glyphs';
import { useTheme } from '../theme';

Chart.register(CategoryScale, LinearScale, LineController, LineElement, PointElement, annotation);

/** Contact milliohms by common practice: good up to two, replaced above four. */
const CONTACT = { lo: 0, hi: 0.002, worst: 0.004 };

interface Banded {
  lo: number;
  hi: number;
}

const bandOf = (page: JobPage, t: Trend): Banded | undefined =>
  t.unit === 'ohm' ? CONTACT : t.state && t.probe ? page.band(t.state, measurementId(t.probe, t.ref)) : undefined;
const verdictOf = (value: number, b: Banded): 'ok' | 'low' | 'high' =>
  value < b.lo ? 'low' : value > b.hi ? 'high' : 'ok';
const valueText = (t: Trend, value: number): string =>
  t.unit === 'ohm' ? `${(value * 1000).toFixed(2)} mΩ` : showText(value, t.unit);

export function Trends({ jobs }: { jobs: readonly Job[] }) {
  const page = useJobPage();
  const { words } = page;
  const trends = useMemo(() => trendsOf(jobs), [jobs]);
  const [picked, pick] = useState<string>();
  const shown = trends.find((t) => t.id === picked) ?? trends[0];
  if (!shown) return <p className="waiting pad">No reading yet: the first ones of this rig begin its trends.</p>;
  const band = bandOf(page, shown);
  return (
    <div className="trends">
      <nav aria-label="Measurements">
        {trends.map((t) => {
          const last = t.points.at(-1)!;
          const b = bandOf(page, t);
          return (
            <button
              key={t.id}
              type="button"
              className={t === shown ? 'on' : ''}
              aria-current={t === shown}
              onClick={() => pick(t.id)}
            >
              <b>
                {t.label} {words(t.name)}
              </b>
              <small>
                {t.state ? operatingState(t.state).label : 'from drop and amps together'}, {t.points.length}{' '}
                {t.points.length === 1 ? 'reading' : 'readings'}
              </small>
              <span>
                {b && <Sign verdict={verdictOf(last.value, b)} size={13} />} {valueText(t, last.value)}
              </span>
            </button>
          );
        })}
      </nav>
      <section aria-label={`Trend of ${shown.name}`}>
        <h3>
          {shown.label} {words(shown.name)}
          {shown.state ? `, ${operatingState(shown.state).label.toLowerCase()}` : ''}
        </h3>
        <TrendChart trend={shown} band={band} />
        <table>
          <thead>
            <tr>
              <th>When</th>
              <th>Job</th>
              <th className="num">Reading</th>
              <th />
            </tr>
          </thead>
          <tbody>
            {shown.points.map((p, i) => (
              <tr key={i}>
                <td>{format(new Date(p.at), 'd MMM yyyy')}</td>
                <td>{p.job}</td>
                <td className="num">
                  {band && <Sign verdict={verdictOf(p.value, band)} size={13} />} {valueText(shown, p.value)}
                </td>
                <td>{p.changed ? 'after the rig was changed' : ''}</td>
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

function TrendChart({ trend, band }: { trend: Trend; band: Banded | undefined }) {
  const canvas = useRef<HTMLCanvasElement>(null);
  const [theme] = useTheme();
  useEffect(() => {
    const css = (name: string) => getComputedStyle(document.documentElement).getPropertyValue(name).trim();
    const scale = trend.unit === 'ohm' ? 1000 : 1;
    const font = { family: css('--font-cond') || 'Barlow Condensed', size: 15 };
    const at = trend.points.map((p) => new Date(p.at).getTime());
    const chart = new Chart(canvas.current!, {
      type: 'line',
      data: {
        datasets: [
          {
            data: trend.points.map((p, i) => ({ x: at[i]!, y: p.value * scale })),
            borderColor: css('--ink'),
            backgroundColor: css('--ink'),
            borderWidth: 2,
            pointRadius: 6,
            pointStyle: trend.points.map((p) => (p.changed ? 'rectRot' : 'circle')) as never,
          },
        ],
      },
      options: {
        animation: false,
        maintainAspectRatio: false,
        plugins: {
          legend: { display: false },
          tooltip: { enabled: false },
          annotation: {
            annotations: band
              ? {
                  band: {
                    type: 'box',
                    yMin: band.lo * scale,
                    yMax: band.hi * scale,
                    backgroundColor: css('--ok-tint'),
                    borderColor: css('--ok'),
                    borderWidth: 1,
                    drawTime: 'beforeDatasetsDraw',
                  },
                }
              : {},
          },
        },
        scales: {
          x: {
            type: 'linear',
            min: at[0]! - 86_400_000 * 5,
            max: at.at(-1)! + 86_400_000 * 5,
            ticks: {
              maxTicksLimit: 6,
              color: css('--ink'),
              font,
              callback: (v) => format(new Date(Number(v)), 'MMM yyyy'),
            },
            grid: { color: css('--rule-2') },
          },
          y: {
            title: { display: true, text: trend.unit === 'ohm' ? 'mΩ' : trend.unit, color: css('--ink'), font },
            ticks: { color: css('--ink'), font },
            grid: { color: css('--rule-2') },
            ...(band ? { suggestedMin: band.lo * scale, suggestedMax: band.hi * scale } : {}),
          },
        },
      },
    });
    return () => chart.destroy();
  }, [trend, band, theme]);
  return (
    <div className="trend-chart">
      <canvas
        ref={canvas}
        role="img"
        aria-label={`${trend.name} through ${trend.points.length} readings; the table below says the same.`}
      />
    </div>
  );
}
