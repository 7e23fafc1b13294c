'use client';
/**
 * What stands round every chart: its name and unit, a legend in sight, what the finger points at, keys, the same figures
 * as a table for who cannot see it, and a picture to keep.
 */
import { clsx } from 'clsx';
import { ImageDown } from 'lucide-react';
import type { KeyboardEvent, ReactNode, RefObject } from 'react';
import { download } from '../download';
import { CHART_KEYS } from './stretch';
import { pictureOf } from './picture';

export interface LegendLine {
  name: string;
  /** Colour of the theme, by its name there. */
  colour: string;
  dash?: readonly number[];
  heavy?: boolean;
}

export interface ChartTable {
  head: readonly string[];
  rows: readonly (readonly string[])[];
}

export type ChartKey = (typeof CHART_KEYS)[string];

interface Props {
  title: string;
  /** Beside the title. */
  note?: ReactNode;
  /** In sight under the chart; left out where it stands elsewhere on the screen. */
  legend?: readonly LegendLine[];
  /** On the picture, where it is not the one in sight. */
  pictureLegend?: readonly LegendLine[];
  /** What it reads where the finger or the cursor is. */
  reads?: ReactNode;
  /** In words, for who does not see it; what keys do is added where there are keys. */
  says: string;
  table: ChartTable;
  /** Name of the picture's file, without its ending. */
  file: string;
  canvas: RefObject<HTMLCanvasElement | null>;
  /** Height and place, by utilities. */
  className?: string;
  /** The same of the box that is drawn in. */
  boxClassName?: string;
  /** Under the chart. */
  foot?: ReactNode;
  onKey?(key: ChartKey): void;
  onLeave?(): void;
  children?: ReactNode;
}

export function ChartFrame(props: Props) {
  const { title, note, legend, reads, says, table, file, canvas, className = '', onKey, onLeave, children } = props;
  const { boxClassName = 'flex-1', foot } = props;
  const save = () => {
    const drawn = canvas.current;
    if (!drawn) return;
    pictureOf(drawn, title, props.pictureLegend ?? legend ?? []).then(
      (blob) => download(`${file}.png`, 'image/png', blob),
      () => undefined,
    );
  };
  const keys = (e: KeyboardEvent) => {
    const key = CHART_KEYS[e.key];
    if (!onKey || !key || e.ctrlKey || e.metaKey || e.altKey) return;
    e.preventDefault();
    e.stopPropagation();
    onKey(key);
  };
  return (
    <figure className={`first:border-r-1 first:border-rule m-0 flex min-h-0 min-w-0 flex-col ${className}`}>
      <figcaption className="flex h-8 items-center gap-2 font-cond text-base leading-tight text-ink-2">
        <b className="text-lg whitespace-nowrap text-ink">{title}</b>
        <span className="min-w-0">{note}</span>
        <button
          type="button"
          className="btn btn-ghost btn-square -my-2 ml-auto shrink-0"
          aria-label={`Save “${title}” as a picture`}
          onClick={save}
        >
          <ImageDown size={18} aria-hidden="true" />
        </button>
        {children}
      </figcaption>
      <div
        className={`chart-box relative min-h-0 ${boxClassName}`}
        tabIndex={onKey ? 0 : undefined}
        role={onKey ? 'application' : 'img'}
        aria-label={
          onKey ? `${says} Arrow keys move along it, plus and minus come closer and go back, 0 shows all.` : says
        }
        onKeyDown={keys}
        onMouseLeave={onLeave}
      >
        {/* Chart.js measures this box; nothing in it may stretch it. */}
        <div className="absolute inset-1">
          <canvas ref={canvas} />
        </div>
      </div>
      {legend && legend.length > 0 && (
        <ul className="m-0 flex list-none flex-wrap gap-x-4 gap-y-1 p-0 pt-1 font-cond font-semibold">
          {legend.map((l) => (
            <li key={l.name} className="flex items-center gap-1.5">
              <svg width={34} height={10} aria-hidden="true">
                <path
                  d="M0 5H34"
                  stroke={`var(${l.colour})`}
                  strokeWidth={l.heavy ? 4 : 2.5}
                  strokeDasharray={(l.dash ?? []).join(' ')}
                />
              </svg>
              {l.name}
            </li>
          ))}
        </ul>
      )}
      {reads !== undefined && (
        <p className="m-0 min-h-6 font-cond leading-6 font-semibold tabular-nums" aria-live="polite">
          {reads}
        </p>
      )}
      {foot}
      {/* A table does not shrink to the pixel that hides it: what stands round it does. */}
      <div className="sr-only">
        <table className="within-trends:w-full within-trends:border-collapse within-trends:text-note">
          <caption>{title}</caption>
          <thead>
            <tr>
              {table.head.map((h) => (
                <th
                  className={clsx(
                    'within-trends:px-1.5 within-trends:py-0.75 within-trends:border-b',
                    'within-trends:border-ink within-trends:text-left',
                  )}
                  key={h}
                  scope="col"
                >
                  {h}
                </th>
              ))}
            </tr>
          </thead>
          <tbody>
            {table.rows.map((cells, i) => (
              <tr key={i}>
                {cells.map((c, k) => (
                  <td
                    className={clsx(
                      'within-trends:px-1.5 within-trends:py-1 within-trends:border-b-1',
                      'within-trends:border-rule within-trends:leading-tight within-trends:align-middle',
                    )}
                    key={k}
                  >
                    {c}
                  </td>
                ))}
              </tr>
            ))}
          </tbody>
        </table>
      </div>
    </figure>
  );
}
