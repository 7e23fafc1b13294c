/** What the Options station asks of the core; answered by workers. */
import type { Rig } from '../../core/rig/schema';
import type { Comparison } from '../../core/plan/compare';
import type { Influence, Spread } from '../../core/plan/sensitivity';
import type { HoursAnswer } from '../../core/plan/questions';
import type { Scenario } from '../../core/simulate/scenarioSchema';
import type { JobBuild } from '../../core/plan/build/build';
import type { Sized } from '../../core/rules/sized';
import type { SizingAsks } from '../../core/size/sizing';
import type { Jurisdiction } from '../../core/units/preferences';
import type { TowReport } from '../../core/rules/tow/report';
import type { Asked, OptionList } from '../../core/plan/asked';

export type { Asked, OptionList, Question } from '../../core/plan/asked';

export interface OptionsSource {
  list(): Promise<OptionList>;
  /** Rejects with an AbortError where the signal stopped it. */
  compare(
    ids: readonly string[],
    scenarios: readonly Scenario[],
    told: (share: number) => void,
    signal?: AbortSignal,
  ): Promise<Comparison>;
  spread(
    ids: readonly string[],
    scenarios: readonly Scenario[],
    samples: number,
    told: (share: number) => void,
    signal: AbortSignal,
  ): Promise<{ spreads: Spread[]; influences: Record<string, Influence[]> }>;
  /** Rejects with an AbortError where the signal stopped it. */
  ask(asked: Asked, signal?: AbortSignal): Promise<HoursAnswer>;
  /** Of the rig that is sized; of another document in its place, to see what a change would do. */
  size(asks: SizingAsks, doc?: Rig): Promise<Sized>;
  /** The plan of the pick; undefined where none stands. */
  build(): Promise<JobBuild | undefined>;
  /** The tow interface and its audit; undefined where the rig has none. */
  tow(jurisdiction: Jurisdiction): Promise<TowReport | undefined>;
}
