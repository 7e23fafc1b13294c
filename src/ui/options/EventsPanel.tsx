'use client';
/** What happens when under the picked link, and why; then the sums of its trip. */
import type { Compared } from '../../core/plan/compare';
import { LETTERS } from '../../core/plan/letters';
import type { SimResult } from '../../core/simulate/result';
import type { Scenario } from '../../core/simulate/scenarioSchema';
import { celsiusShown } from '../../core/units/preferences';
import { useJobFile } from '../shell/jobPage';
import { clockOf } from './time';

/** Events that are told in the colour of a fault. */
const GRAVE = new Set(['start', 'hunting', 'collapse']);

interface Props {
  rows: readonly Compared[];
  row: Compared;
  result: SimResult;
  scenario: Scenario;
}

export function EventsPanel({ rows, row, result, scenario }: Props) {
  const { words } = useJobFile();
  return (
    <div className="oscroll flex-auto min-h-0" tabIndex={0} role="region" aria-label="Events">
      <h3 className="px-3.5 pt-2 pb-1.5 font-cond text-xl font-bold">
        {LETTERS[rows.indexOf(row)]}, {words(row.candidate.name)}: what happens when, and why
      </h3>
      <ol className="oevents m-0 list-none px-3.5">
        {result.events.map((e, i) => (
          <li
            key={i}
            className={
              'grid grid-cols-[7rem_minmax(12rem,1fr)_minmax(0,1.5fr)] items-baseline gap-x-3 border-b border-rule ' +
              `py-1.5 max-[480px]:grid-cols-1 ${e.kind === 'leg' ? '-mx-3.5 bg-rule-2 px-3.5' : ''}`
            }
          >
            <time className="font-cond text-base font-semibold tabular-nums">
              {clockOf(e.t / 3600, scenario.startHour, false)}
            </time>
            <b className={GRAVE.has(e.kind) ? 'text-fail' : ''}>{words(e.what)}</b>
            <span>{e.kind === 'leg' ? '' : words(e.why)}</span>
          </li>
        ))}
      </ol>
      <Sums result={result} />
    </div>
  );
}

function Sums({ result: { summary } }: { result: SimResult }) {
  const { settings, words } = useJobFile();
  const degrees = (celsius: number) => celsiusShown(celsius, settings.temperature).toFixed(0);
  return (
    <div className="grid gap-1 px-3.5 pt-2 pb-3.5 leading-snug">
      {summary.batteries.map((b) => (
        <p key={b.part}>
          <b>{words(b.name)}</b> {Math.round(b.startSoc * 100)} to {Math.round(b.endSoc * 100)} %, lowest{' '}
          {b.lowestVolts.toFixed(1)} V
          {b.lowestVolts - b.lowestAllOn >= 0.1 ? `, ${b.lowestAllOn.toFixed(1)} V with everything on` : ''};{' '}
          {b.ahIn.toFixed(0)} Ah in, {b.ahOut.toFixed(0)} Ah out, {b.ahLost.toFixed(0)} Ah lost
        </p>
      ))}
      {summary.links.map((l) => (
        <p key={l.part}>
          <b>{words(l.name)}</b> {l.hoursOn.toFixed(1)} h on, {words(`${l.ahToCoach.toFixed(0)} Ah toward coach`)},{' '}
          {l.ahBack.toFixed(0)} Ah back, {l.cycles} times
          {l.hottest
            ? `; ${words(l.hottest.body)} ${degrees(l.hottest.celsius)} °${settings.temperature}, limit ` +
              degrees(l.hottest.limit)
            : ''}
        </p>
      ))}
      <p>
        <b>Lost on the way</b> {summary.lossWh.copper.toFixed(0)} Wh in copper and contacts
        {summary.lossWh.converters > 0 ? `, ${summary.lossWh.converters.toFixed(0)} Wh in chargers` : ''}. Charge and
        energy add up to{' '}
        {Math.max(summary.balance.charge, summary.balance.energy) < 1e-3
          ? 'a thousandth'
          : 'less than a thousandth: do not trust this run'}
        .
      </p>
    </div>
  );
}
