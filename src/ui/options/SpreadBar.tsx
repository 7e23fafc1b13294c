'use client';
/**
 * Ranges of the comparison: asked for, under way with a way to stop, or drawn. `ready`: the comparison they belong to
 * stands and nothing newer is being run, which would take them back.
 */
import { SAMPLES, type SpreadOf } from './useComparison';

export function SpreadBar({ spread, ready }: { spread: SpreadOf; ready: boolean }) {
  if (spread.progress !== undefined)
    return (
      <div className="my-1.5 flex items-center gap-2">
        <progress className="progress w-24" value={spread.progress} max={1} aria-label="Drawing samples" />
        <button type="button" className="btn btn-sm" onClick={spread.stop}>
          Stop
        </button>
      </div>
    );
  if (spread.drawn) return <p className="quiet">Ranges: nine tenths of {SAMPLES} draws of everything assumed.</p>;
  return (
    <button type="button" className="btn btn-sm" onClick={spread.draw} disabled={!ready}>
      How sure is this?
    </button>
  );
}
