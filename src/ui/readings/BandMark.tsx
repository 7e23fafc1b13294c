'use client';
/** A band as a bracket with a wedge where the reading stands. */
import type { Band } from '../../core/probe/judge';

export function BandMark({ band, value, width = 64 }: { band: Band; value: number | undefined; width?: number }) {
  const span = Math.max(band.hi - band.lo, 1e-9);
  const x =
    value === undefined
      ? undefined
      : Math.max(4, Math.min(width - 4, width / 2 + ((value - (band.lo + band.hi) / 2) / span) * width * 0.5));
  return (
    <svg width={width} height={13} viewBox={`0 0 ${width} 13`} aria-hidden="true">
      <path className="stroke-current fill-none" d={`M1 9.5H${width - 1}`} strokeWidth={1} opacity={0.5} />
      <path
        className="stroke-current fill-none"
        d={`M${width * 0.25} 5.5V11.5M${width * 0.75} 5.5V11.5`}
        strokeWidth={1.4}
      />
      <path className="stroke-current fill-none" d={`M${width * 0.25} 9.5H${width * 0.75}`} strokeWidth={3} />
      {x !== undefined && <path d={`M${(x - 4.5).toFixed(1)} 0h9l-4.5 7z`} className="stroke-none fill-current" />}
    </svg>
  );
}
