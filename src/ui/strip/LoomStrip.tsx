'use client';
/**
 * The loom strip: the harness nose to tail, drawn from the rig document. It is how one chooses where to
 * measure: every flag is a button with its whole name.
 */
import { clsx } from 'clsx';
import { memo, useMemo } from 'react';
import type { Rig } from '../../core/rig/schema';
import type { GaugeUnit } from '../../core/units/preferences';
import { HighFlag, Leader, LowChip, type FlagFace } from './FlagFaces';
import { NAME_BEGINS, nameWidth, sideAt, STRIP, type StripLayout } from './geometry';
import { Backdrop, Ruler } from './Backdrop';
import { Harness } from './Harness';
import { stripLayout } from './layout';

export interface LoomStripProps {
  rig: Rig;
  faces: Readonly<Record<string, FlagFace>>;
  red?: string;
  black?: string;
  onPick(key: string): void;
  /** Parts to mark: share of suspicion by part id. */
  suspects?: Readonly<Record<string, number>>;
  /** Parts a design rule speaks of, by how grave it is. */
  findings?: Readonly<Record<string, 'danger' | 'warn'>>;
  linkClosed?: boolean;
  unit?: 'ft' | 'm';
  gauge?: GaugeUnit;
  /** The shop's vocabulary. */
  words?: (text: string) => string;
}

function Marks({ layout, suspects }: { layout: StripLayout; suspects: Readonly<Record<string, number>> }) {
  const ranked = Object.entries(suspects)
    .filter(([, share]) => share >= 0.01)
    .sort((a, b) => b[1] - a[1]);
  return (
    <g aria-hidden="true">
      {ranked.map(([id], rank) => {
        const column = layout.columns.find((c) => c.part.id === id);
        if (!column) return null;
        return (
          <rect
            key={id}
            x={column.x - 41}
            y={STRIP.icon - 3}
            width={82}
            height={59}
            rx={4}
            className={rank === 0 ? 'suspect first' : 'suspect'}
          />
        );
      })}
    </g>
  );
}

/** A triangle at the corner of each part a rule speaks of; danger is solid. */
function Findings({
  layout,
  findings,
}: {
  layout: StripLayout;
  findings: Readonly<Record<string, 'danger' | 'warn'>>;
}) {
  return (
    <g aria-hidden="true">
      {layout.columns.map(({ part, x }) => {
        const grave = findings[part.id];
        return (
          grave && <path key={part.id} d={`M${x + 31} ${STRIP.icon + 36}l10 17h-20z`} className={`ruled ${grave}`} />
        );
      })}
    </g>
  );
}

/** Parts' names and ratings, each on its own cut of the wash. */
function Names({ layout, suspects }: { layout: StripLayout; suspects: Readonly<Record<string, number>> | undefined }) {
  return (
    <g aria-hidden="true">
      {layout.columns.map(({ part, x }) => {
        const share = suspects?.[part.id] ?? 0;
        const first = share >= 0.01 && share === Math.max(...Object.values(suspects ?? {}));
        const note = share >= 0.01 ? undefined : part.note;
        const cut = (y: number, h: number, text: string) => {
          const from = x - NAME_BEGINS;
          const to = from + nameWidth(text);
          const middle = Math.min(to, Math.max(from, layout.meet));
          return (
            <>
              <rect x={from} y={y} width={middle - from} height={h} className={`cut ${sideAt(layout, 0)}`} />
              <rect x={middle} y={y} width={to - middle} height={h} className={`cut ${sideAt(layout, layout.width)}`} />
            </>
          );
        };
        return (
          <g key={part.id}>
            {cut(STRIP.name - 13, 16, part.name)}
            <text x={x - NAME_BEGINS + 2} y={STRIP.name} className="part-name">
              {part.name}
            </text>
            {share >= 0.01 && (
              <>
                <rect
                  x={x - 37}
                  y={STRIP.note - 12.5}
                  width={44}
                  height={16}
                  rx={2.5}
                  className={first ? 'share first' : 'share'}
                />
                <text x={x - 15} y={STRIP.note + 0.4} className={first ? 'rank first' : 'rank'} textAnchor="middle">
                  {Math.min(99, Math.round(share * 100))} %
                </text>
              </>
            )}
            {note && (
              <>
                {cut(STRIP.note - 12, 15, note)}
                <text x={x - NAME_BEGINS + 2} y={STRIP.note} className="part-note">
                  {note}
                </text>
              </>
            )}
          </g>
        );
      })}
    </g>
  );
}

const asItIs = (text: string): string => text;

export const LoomStrip = memo(function LoomStrip({
  rig,
  faces,
  red,
  black,
  onPick,
  suspects,
  findings,
  linkClosed = false,
  unit = 'ft',
  gauge = 'awg',
  words = asItIs,
}: LoomStripProps) {
  const layout = useMemo(() => stripLayout(rig, gauge), [rig, gauge]);
  const lead = (key: string) => (key === red ? ('red' as const) : key === black ? ('black' as const) : undefined);
  return (
    <svg
      className={clsx(
        'strip',
        'flex-none',
        'mx-auto',
        'max-phone:within-newjob:w-auto max-phone:within-newjob:h-49 max-phone:within-newjob:mx-0',
      )}
      viewBox={`0 0 ${layout.width} ${STRIP.height}`}
      width={layout.width}
      height={STRIP.height}
      role="group"
      aria-label={`Loom strip of ${rig.name}, nose to tail`}
    >
      <Ruler layout={layout} unit={unit} />
      <Backdrop layout={layout} />
      {suspects && <Marks layout={layout} suspects={suspects} />}
      <Harness rig={rig} layout={layout} linkClosed={linkClosed} words={words} />
      {layout.flags
        .filter((f) => f.low)
        .map((f) => (
          <Leader key={f.key} flag={f} />
        ))}
      <Names layout={layout} suspects={suspects} />
      {findings && <Findings layout={layout} findings={findings} />}
      {layout.flags.map((flag) => {
        const face = faces[flag.key] ?? { spoken: `${flag.label}, ${flag.name}` };
        const l = lead(flag.key);
        const props = { flag, face, onPick, ...(l ? { lead: l } : {}) };
        return flag.low ? (
          <LowChip key={flag.key} {...props} width={layout.chipWidth} />
        ) : (
          <HighFlag key={flag.key} {...props} width={layout.plateWidth} />
        );
      })}
    </svg>
  );
});
