'use client';
/** Over the comparison: what is looked at, of which use, what is under way and how to stop it, and what leaves as a file. */
import type { SimResult } from '../../core/simulate/result';
import { Choose } from '../fields';
import { useJobFile } from '../shell/jobPage';
import { StationBar } from '../StationBar';
import { exportCsv, exportJson } from './exports';
import type { Compares } from './useComparison';

const VIEWS = [
  { id: 'compare', label: 'Compare' },
  { id: 'events', label: 'Events' },
  { id: 'use', label: 'Use' },
  { id: 'ask', label: 'Ask' },
  { id: 'schools', label: 'Schools' },
] as const;
export type OptionsView = (typeof VIEWS)[number]['id'];

interface Props {
  compares: Compares;
  view: OptionsView;
  onView(view: OptionsView): void;
  which: number;
  onWhich(which: number): void;
  /** Of the picked link. */
  result: SimResult | undefined;
  picked: string;
  onLinks(): void;
}

export function OptionsBar({ compares, view, onView, which, onWhich, result, picked, onLinks }: Props) {
  const { job } = useJobFile();
  const { list, scenarios = [], compared, comparison, progress, stop, stopped, again } = compares;
  const scenario = scenarios[which];
  return (
    <StationBar>
      <Choose<OptionsView> label="" choices={VIEWS} value={view} onChange={onView} />
      {(view === 'compare' || view === 'events') && scenarios.length > 1 && (
        <Choose
          label=""
          choices={scenarios.map((s, i) => ({ id: i, label: s.name }))}
          value={which}
          onChange={onWhich}
        />
      )}
      <span className="flex-1" />
      {progress !== undefined && (
        <span className="flex items-center gap-2 font-cond" role="status">
          comparing {compared.length} links
          <progress className="progress w-20" value={progress} max={1} aria-label="Comparing" />
          <button type="button" className="btn btn-sm" onClick={stop}>
            Stop
          </button>
        </span>
      )}
      {stopped && comparison && (
        <button type="button" className="btn" onClick={again}>
          Stopped: compare again
        </button>
      )}
      {view === 'compare' && (
        <>
          <button type="button" className="btn btn-sm" onClick={onLinks}>
            {compared.length} of {list?.candidates.length ?? 0} links
          </button>
          <details className="dropdown dropdown-end">
            <summary className="btn btn-sm">Export</summary>
            <ul className="dropdown-content menu z-10 mt-1 w-72 border-2 border-ink bg-card p-0 font-cond text-lg">
              <li>
                <button
                  type="button"
                  className="min-h-12 rounded-none"
                  onClick={() => result && scenario && exportCsv(`${job.number}-${picked}-${scenario.id}`, result)}
                  disabled={!result}
                >
                  The picked link’s hours, CSV
                </button>
              </li>
              <li>
                <button
                  type="button"
                  className="min-h-12 rounded-none"
                  onClick={() => comparison && exportJson(`${job.number}-options`, comparison)}
                  disabled={!comparison}
                >
                  The whole comparison, JSON
                </button>
              </li>
            </ul>
          </details>
        </>
      )}
    </StationBar>
  );
}
