'use client';
/** The comparison a job asks for: candidates and uses listed, run after every change that rests, ranges when asked. */
import { useCallback, useEffect, useMemo, useRef, useState } from 'react';
import { currentRevision, standingVerdict } from '../../core/job/job';
import type { Comparison } from '../../core/plan/compare';
import type { Influence, Spread } from '../../core/plan/sensitivity';
import type { Scenario } from '../../core/simulate/scenarioSchema';
import { useJobFile, useAnswers } from '../shell/jobPage';
import { useWorked } from '../useWorked';
import type { OptionList } from './source';

/** Draws of everything assumed, of which the ranges are told. */
export const SAMPLES = 60;
/** ms a change rests before it is run: one types or drags. */
const RESTS = 250;

const stoppedByHand = (e: Error) => e.name === 'AbortError';

export interface Compares {
  list: OptionList | undefined;
  /** What somebody set stands at once; the usual ones come from the core. */
  scenarios: readonly Scenario[] | undefined;
  compared: readonly string[];
  setCompared(ids: readonly string[]): void;
  comparison: Comparison | undefined;
  /** Share done of what is under way. */
  progress: number | undefined;
  failed: string | undefined;
  /** Stopped by hand: what stands is older than what is asked, or nothing. */
  stopped: boolean;
  stop(): void;
  again(): void;
  spread: SpreadOf;
}

export interface SpreadOf {
  drawn: { spreads: Spread[]; influences: Record<string, Influence[]> } | undefined;
  progress: number | undefined;
  draw(): void;
  stop(): void;
}

export function useComparison(): Compares {
  const { job } = useJobFile();
  const { options } = useAnswers();
  const [ids, setIds] = useState<readonly string[]>();
  const [comparison, setComparison] = useState<Comparison>();
  const [progress, setProgress] = useState<number>();
  const [failed, setFailed] = useState<string>();
  const [stopped, setStopped] = useState(false);
  const [round, setRound] = useState(0);
  const running = useRef<AbortController>(undefined);
  const newest = useRef(options);
  useEffect(() => {
    newest.current = options;
  });

  // What the comparison depends on: a note or a reading must not run it again.
  const { doc } = currentRevision(job);
  const fault = standingVerdict(job)?.fault;
  const asked = useMemo(
    () => ({ doc, usage: job.usage, fault, told: job.intake }),
    [doc, job.usage, fault, job.intake],
  );
  const { data: list, error: unlisted } = useWorked('candidates', [asked], () => options.list());
  const scenarios = job.usage.scenarios.length > 0 ? job.usage.scenarios : list?.scenarios;
  const compared = useMemo(
    () => (list ? (ids ?? list.usual).filter((id) => list.candidates.some((c) => c.id === id)) : undefined),
    [list, ids],
  );
  const impossible = list?.troubles.some((t) => t.stops) ?? false;
  const spread = useSpread(compared, scenarios, setFailed);
  const { forget } = spread;
  useEffect(() => {
    if (!scenarios || !compared || impossible) return;
    const controller = new AbortController();
    const timer = setTimeout(() => {
      running.current = controller;
      setProgress(0);
      setFailed(undefined);
      setStopped(false);
      forget();
      const alive = () => !controller.signal.aborted;
      // How far it is comes by a way of its own: its last word may come after the answer, and is none any more.
      let over = false;
      newest.current
        .compare(compared, scenarios, (share) => alive() && !over && setProgress(share), controller.signal)
        .then(
          (c) => {
            over = true;
            if (alive()) {
              setComparison(c);
              setProgress(undefined);
            }
          },
          (e: Error) => {
            over = true;
            if (stoppedByHand(e) || !alive()) return;
            setFailed(e.message);
            setProgress(undefined);
          },
        );
    }, RESTS);
    return () => {
      clearTimeout(timer);
      controller.abort();
    };
  }, [scenarios, compared, impossible, round, forget]);

  return {
    list,
    scenarios,
    compared: compared ?? [],
    setCompared: setIds,
    comparison,
    progress,
    failed: failed ?? unlisted?.message,
    stopped,
    stop: () => {
      running.current?.abort();
      setProgress(undefined);
      setStopped(true);
    },
    again: () => setRound((n) => n + 1),
    spread,
  };
}

function useSpread(
  compared: readonly string[] | undefined,
  scenarios: readonly Scenario[] | undefined,
  fail: (why: string) => void,
): SpreadOf & { forget(): void } {
  const { options } = useAnswers();
  const [drawn, setDrawn] = useState<SpreadOf['drawn']>();
  const [progress, setProgress] = useState<number>();
  const running = useRef<AbortController>(undefined);
  const stop = useCallback(() => running.current?.abort(), []);
  useEffect(() => stop, [stop]);
  const forget = useCallback(() => {
    stop();
    setDrawn(undefined);
  }, [stop]);
  return {
    drawn,
    progress,
    stop,
    forget,
    draw: () => {
      if (!compared || !scenarios) return;
      const controller = new AbortController();
      running.current = controller;
      setProgress(0);
      options
        .spread(
          compared,
          scenarios,
          SAMPLES,
          (share) => !controller.signal.aborted && setProgress(share),
          controller.signal,
        )
        .then(setDrawn, (e: Error) => !stoppedByHand(e) && fail(e.message))
        .finally(() => setProgress(undefined));
    },
  };
}
