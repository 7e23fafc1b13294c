'use client';
/** Two charts of all compared links under one cursor, and the table of what each comes to. */
import { clsx } from 'clsx';
import { useMemo, useState } from 'react';
import { currentRevision } from '../../core/job/job';
import type { Comparison } from '../../core/plan/compare';
import type { Spread } from '../../core/plan/sensitivity';
import type { Scenario } from '../../core/simulate/scenarioSchema';
import type { Stretch } from '../charts/stretch';
import { valueAt } from '../charts/valueAt';
import { useJobFile } from '../shell/jobPage';
import { OptionChart, type ChartLine } from './OptionChart';
import { OptionTable } from './OptionTable';
import { linesOf, QUANTITIES, quantity, type QuantityId, type Shown } from './quantities';
import type { OptionList } from './source';
import { clockOf, isLong } from './time';

const SECOND = QUANTITIES.filter((q) => q.label !== undefined);

interface Props {
  comparison: Comparison;
  /** Which of the uses. */
  which: number;
  scenario: Scenario;
  house: OptionList['house'];
  picked: string;
  onPick(id: string): void;
  spreads: readonly Spread[] | undefined;
  onWorking(id: string): void;
}

export function ComparePanel(props: Props) {
  const { comparison, which, scenario, house, picked } = props;
  const { job, settings, words } = useJobFile();
  const [second, setSecond] = useState<QuantityId>('alternator');
  const [cursor, setCursor] = useState<number>();
  const [zoomed, setZoomed] = useState<Stretch>();
  const { doc } = currentRevision(job);
  const { rows } = comparison;
  const row = rows.find((r) => r.candidate.id === picked);
  const result = row?.results[Math.min(which, row.results.length - 1)];
  const shown = useMemo(
    (): Shown => ({ doc, house, temperature: settings.temperature }),
    [doc, house, settings.temperature],
  );
  const first = useMemo(() => linesOf(rows, which, 'charge', shown, picked), [rows, which, shown, picked]);
  const beside = useMemo(() => linesOf(rows, which, second, shown, picked), [rows, which, second, shown, picked]);
  const marks = useMemo(() => result?.events.filter((e) => e.kind !== 'leg').map((e) => e.t / 3600) ?? [], [result]);
  const chart = (id: QuantityId, lines: ChartLine[], children?: React.ReactNode) => {
    const q = quantity(id);
    const limit = q.limit?.(shown);
    return (
      <OptionChart
        title={words(q.title(shown))}
        unit={words(q.unit(shown))}
        digits={q.digits}
        lines={lines}
        legs={result?.legs ?? []}
        startHour={scenario.startHour}
        shown={zoomed ?? [0, result?.summary.hours ?? 1]}
        onShown={setZoomed}
        cursor={cursor}
        onCursor={setCursor}
        marks={marks}
        file={`${job.number}-${id}-${scenario.id}`}
        {...(limit ? { limit } : {})}
        {...(q.floorAt === undefined ? {} : { floorAt: q.floorAt })}
        {...(q.topAt === undefined ? {} : { topAt: q.topAt })}
      >
        {children}
      </OptionChart>
    );
  };
  return (
    <div className="flex min-h-0 flex-1 flex-col max-[480px]:block">
      <div className="ocharts grid grid-cols-2 max-h-75 max-phone:grid-cols-1 max-phone:h-auto max-phone:max-h-none">
        {chart('charge', first)}
        {chart(
          second,
          beside,
          <select
            className="select -my-1 h-10 w-32 shrink-0 border-ink bg-card font-cond text-base font-semibold text-ink"
            aria-label="Second chart"
            value={second}
            onChange={(e) => setSecond(e.target.value as QuantityId)}
          >
            {SECOND.map((q) => (
              <option key={q.id} value={q.id}>
                {q.label}
              </option>
            ))}
          </select>,
        )}
      </div>
      <UnderTheCursor
        cursor={cursor}
        scenario={scenario}
        long={isLong(result?.summary.hours ?? 1)}
        first={first}
        second={beside}
        digits={quantity(second).digits}
        unit={words(quantity(second).unit(shown))}
        {...(zoomed ? { all: () => setZoomed(undefined) } : {})}
      />
      <div className="oscroll min-h-32 grow-0 flex-auto" tabIndex={0} role="region" aria-label="Comparison">
        <OptionTable
          comparison={comparison}
          spreads={props.spreads}
          picked={picked}
          onPick={props.onPick}
          onWorking={props.onWorking}
        />
      </div>
    </div>
  );
}

interface ReadOut {
  cursor: number | undefined;
  scenario: Scenario;
  long: boolean;
  first: readonly ChartLine[];
  second: readonly ChartLine[];
  digits: number;
  unit: string;
  /** Shows all again; only while less is shown. */
  all?(): void;
}

/** Every line at the hour under the cursor; without one, what the washes are and how to look closer. */
function UnderTheCursor({ cursor, scenario, long, first, second, digits, unit, all }: ReadOut) {
  const at = (l: ChartLine, places: number) => valueAt(l.t, l.values, cursor! * 3600).toFixed(places);
  return (
    <p
      className={clsx(
        'oread',
        'flex flex-nowrap items-center flex-none gap-x-3.5 gap-y-1',
        'min-h-7.5 px-3 py-0.75 overflow-hidden border-y-1 border-rule bg-card',
        'text-note leading-close tabular-nums whitespace-nowrap',
        'max-phone:flex-wrap max-phone:whitespace-normal',
      )}
      aria-live="off"
    >
      {cursor === undefined ? (
        <>
          <i
            className="inline-block w-4.5 h-3 -mr-2 border-1 border-rule bg-engine-tint align-middle"
            aria-hidden="true"
          />{' '}
          engine running{' '}
          <i
            className="shore inline-block w-4.5 h-3 -mr-2 border-1 border-rule bg-coach-wash align-middle"
            aria-hidden="true"
          />{' '}
          on shore
          <span className="max-[480px]:hidden"> · point at a chart to read it, Ctrl and wheel or + − to zoom</span>
          {all && (
            <button type="button" onClick={all}>
              Show all
            </button>
          )}
        </>
      ) : (
        <>
          <b className="font-cond text-plain">{clockOf(cursor, scenario.startHour, long)}</b>
          {first.map((l) => {
            const other = second.find((o) => o.letter === l.letter);
            return (
              <span key={l.letter}>
                <b className="font-cond text-plain">{l.letter}</b> {at(l, 0)} %
                {other && `, ${at(other, digits)} ${unit}`}
              </span>
            );
          })}
        </>
      )}
    </p>
  );
}
