/**
 * What would change the verdict: the one test, and what it would have to come out as, after which another repair leads.
 * A verdict that can say so can be held to it.
 */
import type { Belief } from './belief';
import { heavyTailed } from './likelihood';
import { EVERY_TEST_MINUTES, type RankedTest } from './nextTest';

export interface ChangeOfMind {
  /** Measurement or question, by id, and the state it is made in. */
  test: string;
  state: string;
  name: string;
  /** Of the probes; absent on a question. */
  label?: string;
  unit?: 'V' | 'A';
  /** From what on, up to what, and read twice; one side open where either is absent. Both absent on a question. */
  lo?: number;
  hi?: number;
  /** Of a reading: the likeliest that would do it. */
  about?: number;
  /** The answer in words. */
  answer?: string;
  /** What would lead then. */
  leader: string;
  /** How likely it comes out so, as things stand. */
  chance: number;
  minutes: number;
}

/** Share from which there is a mind to change. */
const A_MIND = 0.7;
/** Tests looked at, the most telling first: one that tells little changes nothing. */
const LOOKED_AT = 40;
/** Components below this share move no choice. */
const WEIGHT = 5e-4;
/** Points a reading is tried at, and how far beyond the suspects' own predictions, in standard deviations. */
const POINTS = 121;
const BEYOND = 4;
/** Readings that hardly ever happen are no way to be proved wrong. */
const LEAST_CHANCE = 1e-4;
/**
 * Times as likely as the leader another has to be to be named: what a reading does is foreseen from one prediction a
 * suspect here, and worked out from many when it comes.
 */
const CLEARLY = 3;
/** Density of a slip, anywhere on the meter's usual range, V and A. */
const SLIP = { V: 1 / 17, A: 1 / 400 } as const;

/**
 * The test likeliest, for its minutes, to unseat the leading repair; none where nothing does, or nothing leads yet.
 * @param ranked all tests left
 */
export function changeOfMind(belief: Belief, ranked: readonly RankedTest[]): ChangeOfMind | undefined {
  const live = belief.live(WEIGHT, 48);
  if (live.length === 0) return undefined;
  const classOf = live.map((c) => belief.faults[belief.components[c]!.faultIndex]!.class);
  const names = new Map(live.map((c) => faultAt(belief, c)).map((f) => [f.class, f.name]));
  const [top, share] = [...belief.classes()].sort((a, b) => b[1] - a[1])[0]!;
  if (share < A_MIND) return undefined;
  const leader = (chances: readonly number[]) => {
    const sum = new Map<string, number>();
    chances.forEach((p, i) => sum.set(classOf[i]!, (sum.get(classOf[i]!) ?? 0) + p));
    const [best, odds] = [...sum].sort((a, b) => b[1] - a[1])[0]!;
    return odds > CLEARLY * (sum.get(top) ?? 0) ? best : top;
  };
  const found = [...ranked]
    .sort((a, b) => b.bits - a.bits)
    .slice(0, LOOKED_AT)
    .flatMap((t): ChangeOfMind[] => {
      const unseats = t.question ? byAnswer(t) : byReading(t);
      if (!unseats || unseats.chance < LEAST_CHANCE) return [];
      const { to, ...rest } = unseats;
      const { id, name } = t.question ? { id: t.question.id, name: t.question.ask } : t.measurement;
      const head = { test: id, state: t.state, name, minutes: t.minutes, leader: names.get(to)! };
      return [t.measurement ? { ...head, label: t.measurement.label, ...rest } : { ...head, ...rest }];
    });
  const worth = (c: ChangeOfMind) => c.chance / (c.minutes + EVERY_TEST_MINUTES);
  return found.sort((a, b) => worth(b) - worth(a))[0];

  function byAnswer({ question }: RankedTest) {
    return question!.answers
      .flatMap(({ id, label }) => {
        const chances = live.map((c) => belief.weight[c]! * belief.answerChance(question!, id, c));
        const to = leader(chances);
        return to === top ? [] : [{ answer: label, to, chance: chances.reduce((s, p) => s + p, 0) }];
      })
      .sort((a, b) => b.chance - a.chance)[0];
  }

  function byReading({ measurement, state }: RankedTest) {
    const m = measurement!;
    const unit = m.kind === 'clamp' ? ('A' as const) : ('V' as const);
    const red = belief.rowOf(state, m.red)!;
    const black = m.black === undefined ? -1 : belief.rowOf(state, m.black)!;
    const expected = live.map((c) => belief.predictive(c, red, black));
    const from = Math.min(...expected.map((e) => e.mean - BEYOND * e.sd));
    const to = Math.max(...expected.map((e) => e.mean + BEYOND * e.sd));
    const step = (to - from) / (POINTS - 1);
    // Read twice, and the same both times: a slip is as good as ruled out.
    const slips = belief.assumptions.blunderShare * belief.assumptions.slipsTwice;
    const regions: { first: number; last: number; to: string; chance: number; about: number; peak: number }[] = [];
    for (let k = 0; k < POINTS; k++) {
      const x = from + k * step;
      const chances = expected.map(
        (e, i) =>
          belief.weight[live[i]!]! * ((1 - slips) * heavyTailed(x - e.mean, e.sd * e.sd).density + slips * SLIP[unit]),
      );
      const leads = leader(chances);
      if (leads === top) continue;
      const chance = step * chances.reduce((s, p) => s + p, 0);
      const last = regions.at(-1);
      if (last && last.last === k - 1 && last.to === leads) {
        last.last = k;
        last.chance += chance;
        if (chance > last.peak) Object.assign(last, { about: x, peak: chance });
      } else regions.push({ first: k, last: k, to: leads, chance, about: x, peak: chance });
    }
    const best = regions.sort((a, b) => b.chance - a.chance)[0];
    return (
      best && {
        unit,
        ...(best.first > 0 ? { lo: from + best.first * step } : {}),
        ...(best.last < POINTS - 1 ? { hi: from + best.last * step } : {}),
        about: best.about,
        to: best.to,
        chance: Math.min(1, best.chance),
      }
    );
  }
}

const faultAt = (belief: Belief, component: number) => belief.faults[belief.components[component]!.faultIndex]!;
