'use client';
/** Where on the rig: the strip at a glance, 60 px high. Low or high is a triangle, not a red dot. */
import { useMemo } from 'react';
import type { Measurement } from '../../core/probe/measurement';
import type { Rig } from '../../core/rig/schema';
import { stripLayout } from './layout';

const WIDTH = 358;
const HEIGHT = 60;

export function MiniStrip({
  rig,
  dots,
  here,
}: {
  rig: Rig;
  dots: Readonly<Record<string, 'ok' | 'bad' | 'todo'>>;
  here: Measurement | undefined;
}) {
  const layout = useMemo(() => stripLayout(rig), [rig]);
  const k = (WIDTH - 24) / layout.width;
  const x = (px: number) => 12 + px * k;
  const y = (low: boolean) => (low ? 43 : 30);
  const meet = x(layout.meet);
  const at = here && layout.flags.find((f) => f.key === here.red);
  return (
    <div className="flex justify-center h-15.5 py-0.25 overflow-hidden border-b-2 border-ink">
      <svg
        className="strip mini"
        viewBox={`0 0 ${WIDTH} ${HEIGHT}`}
        width={WIDTH}
        height={HEIGHT}
        role="img"
        aria-label={here ? `${here.label} is at ${here.place.toLowerCase()}` : `${rig.name}, nose to tail`}
      >
        <path d={`M10 50V30Q12 14 24 14H${WIDTH - 16}Q${WIDTH - 10} 14 ${WIDTH - 10} 20V50Z`} className="body" />
        <path d={`M${x(120)} 30H${meet - 10}`} className="wire coach" strokeWidth={6} />
        <path d={`M${x(120)} 30H${meet - 10}`} className="wire tracer" strokeWidth={1.8} />
        <path d={`M${meet + 10} 30H${WIDTH - 22}`} className="wire engine" strokeWidth={6} />
        <path d={`M${x(60)} 43H${meet}`} className="control-wire" />
        <rect x={meet - 10} y={24} width={20} height={12} rx={2} className="edge paper-fill" />
        {layout.flags.map((f) => {
          const fx = x(f.tap[0]);
          const fy = y(f.low);
          return dots[f.key] === 'bad' ? (
            <path key={f.key} d={`M${fx - 6} ${fy - 5}h12l-6 10.5z`} className="mini-bad" />
          ) : (
            <circle key={f.key} cx={fx} cy={fy} r={3.4} className={dots[f.key] === 'ok' ? 'mini-ok' : 'mini-todo'} />
          );
        })}
        {at && (
          <g transform={`translate(${Math.max(20, Math.min(WIDTH - 20, x(at.tap[0])))} ${at.low ? 38 : 30})`}>
            <circle r={17.5} className="mini-ring" />
            <circle r={14} className="mini-here" />
            <text y={5.6} className="flag-name here" textAnchor="middle">
              {at.label}
            </text>
          </g>
        )}
      </svg>
    </div>
  );
}
