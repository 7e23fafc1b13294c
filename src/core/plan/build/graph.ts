/** Steps as a graph, and orders of them: nothing here knows what a step is about. */
import type { PriceRange } from '../../parts/price';
import type { Gauge } from '../../units/wire';

export interface BuildStep {
  id: string;
  title: string;
  /** Where one stands for it. */
  place: string;
  /** Whether one lies under the vehicle for it. */
  under: boolean;
  minutes: PriceRange;
  /** Ids of steps that come before it. */
  after: string[];
  cautions: string[];
  /** Part or conductor it is about. */
  piece?: string;
  /** What is cut for it: m and size, shown in the shop's own units. */
  cut?: { length: number; gauge: Gauge };
  /** Where a torque is to be noted. */
  torque?: boolean;
}

/** Whether an order has every step once and none before what it waits for. */
export function respects(steps: readonly BuildStep[], order: readonly string[]): boolean {
  const at = new Map(order.map((id, i) => [id, i]));
  return (
    order.length === steps.length &&
    at.size === steps.length &&
    steps.every((s) => at.has(s.id) && s.after.every((a) => at.get(a)! < at.get(s.id)!))
  );
}

/** How often one has to go somewhere else, and how often under the vehicle. */
export function trips(steps: readonly BuildStep[], order: readonly string[]): { moves: number; under: number } {
  const by = new Map(steps.map((s) => [s.id, s]));
  let moves = 0;
  let under = 0;
  let last: BuildStep | undefined;
  for (const id of order) {
    const s = by.get(id)!;
    if (last && last.place !== s.place) moves++;
    if (s.under && !last?.under) under++;
    last = s;
  }
  return { moves, under };
}

/**
 * An order that respects the graph with few trips: stay under the vehicle while there is anything to do there,
 * go under only when nothing else is left to do; above it, stay where one stands, and go where most is ready.
 */
export function orderSteps(steps: readonly BuildStep[]): string[] {
  const left = new Map(steps.map((s) => [s.id, s]));
  const done: string[] = [];
  let here: BuildStep | undefined;
  while (left.size > 0) {
    const ready = [...left.values()].filter((s) => s.after.every((a) => !left.has(a)));
    if (ready.length === 0) throw new Error('the steps of a build wait for each other in a circle');
    const count = (s: BuildStep) => ready.filter((x) => x.place === s.place && x.under === s.under).length;
    const pick: BuildStep =
      (here?.under ? ready.find((s) => s.under) : undefined) ??
      ready.filter((s) => !s.under && s.place === here?.place)[0] ??
      ready.filter((s) => !s.under).sort((a, b) => count(b) - count(a))[0] ??
      ready[0]!;
    done.push(pick.id);
    left.delete(pick.id);
    here = pick;
  }
  return done;
}
