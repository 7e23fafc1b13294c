/**
 * What a reading may come out as: stretches of what the meter may show, in each of which another suspect is the likeliest,
 * with the suspects it would leave there. Overlapping suspects are told apart as far as the reading tells them apart, which
 * is what the ranking of tests counts.
 */

/** One suspect, or one degree of it: its share of everything now, and a normal of what would be read. V or A. */
export interface Expected {
  name: string;
  weight: number;
  mean: number;
  sd: number;
}

export interface ReadingOutcome {
  /** Suspects with a fair share of it, likeliest first. */
  names: string[];
  /** Those not named have more than a little of it together. */
  others?: true;
  probability: number;
  lo: number;
  hi: number;
}

/**
 * Share of an outcome from which a suspect is named in it, and from which those not named are spoken of; share of all from
 * which an outcome is worth a line.
 */
const NAMED = 0.15;
const OTHERS = 0.2;
const WORTH_A_LINE = 0.02;
/** Standard deviations a suspect is followed to, and cells to one. */
const REACH = 3.5;
const FINE = 4;
/** Share of an outcome left out at either end of its stretch. */
const TAIL = 0.02;

interface Stretch {
  leader: string;
  cells: { lo: number; hi: number; total: number }[];
  by: Map<string, number>;
  total: number;
}

const put = (by: Map<string, number>, name: string, more: number) => by.set(name, (by.get(name) ?? 0) + more);

/** Cells as fine as each suspect's own spread, with what each suspect has in them. */
function cells(expected: readonly Expected[]): Stretch[] {
  const edges = expected.flatMap(({ mean, sd }) =>
    Array.from({ length: 2 * REACH * FINE + 1 }, (_, k) => mean + (k / FINE - REACH) * sd),
  );
  const sorted = Float64Array.from(edges).sort();
  const found: Stretch[] = [];
  for (let k = 1; k < sorted.length; k++) {
    const [lo, hi] = [sorted[k - 1]!, sorted[k]!];
    if (!(hi > lo)) continue;
    const middle = (lo + hi) / 2;
    const by = new Map<string, number>();
    let total = 0;
    for (const { name, weight, mean, sd } of expected) {
      const off = (middle - mean) / sd;
      if (Math.abs(off) > REACH) continue;
      const mass = ((weight * Math.exp(-0.5 * off * off)) / (sd * Math.sqrt(2 * Math.PI))) * (hi - lo);
      put(by, name, mass);
      total += mass;
    }
    if (total === 0) continue;
    const [leader] = [...by].reduce((a, b) => (b[1] > a[1] ? b : a));
    found.push({ leader, cells: [{ lo, hi, total }], by, total });
  }
  return found;
}

/** Neighbours with one leader as one. */
function joined(list: readonly Stretch[]): Stretch[] {
  const out: Stretch[] = [];
  for (const next of list) {
    const last = out.at(-1);
    if (last?.leader !== next.leader) {
      out.push({ ...next, cells: [...next.cells], by: new Map(next.by) });
      continue;
    }
    last.cells.push(...next.cells);
    last.total += next.total;
    for (const [name, mass] of next.by) put(last.by, name, mass);
  }
  return out;
}

/** The least one goes to its bigger neighbour, until all are worth a line. */
function worthALine(list: Stretch[], least: number): Stretch[] {
  let left = list;
  while (left.length > 1) {
    const at = left.reduce((m, s, i) => (s.total < left[m]!.total ? i : m), 0);
    if (left[at]!.total >= least) return left;
    const [before, after] = [left[at - 1], left[at + 1]];
    const into = (after?.total ?? 0) > (before?.total ?? 0) ? after! : before!;
    left = joined(left.map((s, i) => (i === at ? { ...s, leader: into.leader } : s)));
  }
  return left;
}

/** Where a stretch has all but its tails. */
function bounds({ cells, total }: Stretch): { lo: number; hi: number } {
  let below = 0;
  let [lo, hi] = [cells[0]!.lo, cells.at(-1)!.hi];
  for (const c of cells) {
    if (below < TAIL * total) lo = c.lo;
    below += c.total;
    if (below >= (1 - TAIL) * total) {
      hi = c.hi;
      break;
    }
  }
  return { lo, hi };
}

/** Who is named of an outcome, by each suspect's share of it, likeliest first; and whether the others are worth a word. */
export function leading(by: ReadonlyMap<string, number>, total: number): Pick<ReadingOutcome, 'names' | 'others'> {
  const named = [...by].filter(([, mass]) => mass >= NAMED * total).sort((a, b) => b[1] - a[1]);
  const rest = total - named.reduce((sum, [, mass]) => sum + mass, 0);
  return { names: named.map(([name]) => name), ...(rest > OTHERS * total ? { others: true } : {}) };
}

/**
 * Outcomes of a reading, likeliest first; none overlaps another. Of suspects that are not told of nothing is said: what is
 * theirs is missing from the sum.
 */
export function readingOutcomes(expected: readonly Expected[]): ReadingOutcome[] {
  return worthALine(joined(cells(expected)), WORTH_A_LINE)
    .map((s) => ({ ...leading(s.by, s.total), probability: s.total, ...bounds(s) }))
    .sort((a, b) => b.probability - a.probability);
}
