/** What the charts of a comparison show of a run: a row a quantity, read out of every candidate's series. */
import type { Compared } from '../../core/plan/compare';
import { LETTERS } from '../../core/plan/letters';
import { is } from '../../core/parts/kinds';
import type { Part, Rig } from '../../core/rig/schema';
import { partWith } from '../../core/rig/value';
import type { SimResult } from '../../core/simulate/result';
import { celsiusShown, type TemperatureUnit } from '../../core/units/preferences';
import type { ChartLine } from './OptionChart';

export type QuantityId = 'charge' | 'alternator' | 'heat' | 'link' | 'volts' | 'start';

/** What the rig as found gives the charts. */
export interface Shown {
  doc: Rig;
  house: Pick<Part, 'id' | 'name'> | undefined;
  temperature: TemperatureUnit;
}

interface Quantity {
  id: QuantityId;
  /** In the choice of the second chart; the first chart's has none. */
  label?: string;
  title(shown: Shown): string;
  unit(shown: Shown): string;
  digits: number;
  floorAt?: number;
  topAt?: number;
  /** Id of its series in a run. */
  series(run: SimResult, candidate: Rig, shown: Shown): string;
  /** From the series' unit to the one shown. */
  scale?(value: number, shown: Shown): number;
  limit?(shown: Shown): { value: number; words: string } | undefined;
}

/** The link that carried most, tow plugs aside: a charge line goes through one and is told by what drives it. */
function busiestLink(run: SimResult, candidate: Rig): string | undefined {
  const moved = (l: (typeof run.summary.links)[number]) => l.ahToCoach + l.ahBack;
  return run.summary.links
    .filter(
      (l) =>
        !is(
          candidate.parts.find((p) => p.id === l.part),
          'towConnector',
        ),
    )
    .toSorted((a, b) => moved(b) - moved(a))[0]?.part;
}

const alternatorOf = ({ doc }: Shown) => partWith(doc, 'alternator')?.id;

export const QUANTITIES: readonly Quantity[] = [
  {
    id: 'charge',
    title: ({ house }) => `${house?.name ?? 'Bank'} charge`,
    unit: () => '%',
    digits: 0,
    topAt: 100,
    series: (_, __, { house }) => `${house?.id}.soc`,
  },
  {
    id: 'alternator',
    label: 'Alternator',
    title: () => 'Alternator',
    unit: () => 'A',
    digits: 0,
    floorAt: 0,
    series: (_, __, shown) => `${alternatorOf(shown)}.amps`,
    limit: ({ doc }) => {
      const value = partWith(doc, 'alternator')?.params['fastLimit']?.value;
      return value === undefined ? undefined : { value, words: `at most ${value.toFixed(0)} A under way` };
    },
  },
  {
    id: 'heat',
    label: 'Its heat',
    title: () => 'Alternator heat',
    unit: ({ temperature }) => `°${temperature}`,
    digits: 0,
    series: (_, __, shown) => `${alternatorOf(shown)}.celsius`,
    scale: (c, { temperature }) => celsiusShown(c, temperature),
  },
  {
    id: 'link',
    label: 'Link amps',
    title: () => 'Through the link',
    unit: () => 'A toward coach',
    digits: 0,
    floorAt: 0,
    series: (run, candidate) => `${busiestLink(run, candidate)}.amps`,
  },
  {
    id: 'volts',
    label: 'Volts',
    title: ({ house }) => house?.name ?? 'Bank',
    unit: () => 'V',
    digits: 2,
    series: (_, __, { house }) => `${house?.id}.volts`,
  },
  {
    id: 'start',
    label: 'Start battery',
    title: () => 'Start battery charge',
    unit: () => '%',
    digits: 0,
    series: (run, _, { house }) => `${run.summary.batteries.find((b) => b.part !== house?.id)?.part}.soc`,
  },
];

export const quantity = (id: QuantityId): Quantity => QUANTITIES.find((q) => q.id === id)!;

/** A line a candidate that has such a series. @param at which of the scenarios */
export function linesOf(
  rows: readonly Compared[],
  at: number,
  id: QuantityId,
  shown: Shown,
  picked: string,
): ChartLine[] {
  const { series, scale } = quantity(id);
  return rows.flatMap((row, index): ChartLine[] => {
    const run = row.results[Math.min(at, row.results.length - 1)]!;
    const of = run.series.find((x) => x.id === series(run, row.candidate.rig, shown));
    if (!of) return [];
    return [
      {
        letter: LETTERS[index]!,
        name: row.candidate.name,
        index,
        picked: row.candidate.id === picked,
        t: run.t,
        values: scale ? of.values.map((v) => scale(v, shown)) : of.values,
      },
    ];
  });
}
