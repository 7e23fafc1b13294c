'use client';
/** Every heavy run, and the one in hand in every gauge: amps it would deliver, what it loses, how warm it gets. */
import { clsx } from 'clsx';
import { CircleCheck, TriangleAlert } from 'lucide-react';
import { useState } from 'react';
import { RULE_SETS } from '../../core/codes';
import type { Autofix } from '../../core/rules/rule';
import type { Sized } from '../../core/rules/sized';
import type { Rig } from '../../core/rig/schema';
import { celsiusShown, lengthShown, lengthStored } from '../../core/units/preferences';
import { BUNDLES, INSULATIONS, UNREAD_INSULATION_CELSIUS } from '../../core/units/ampacity';
import { gaugeShown, type Gauge } from '../../core/units/wire';
import { Choose, NumberField } from '../fields';
import { useJobFile } from '../shell/jobPage';

interface Props {
  sized: Sized;
  doc: Rig;
  setDrop(run: string, share: number): void;
  mend(m: Autofix): void;
}

export function RunPanel({ sized, doc, setDrop, mend }: Props) {
  const { settings, words } = useJobFile();
  const { cable } = RULE_SETS[settings.jurisdiction];
  const [at, setAt] = useState<string>();
  const run = sized.runs.find((r) => r.id === at) ?? sized.runs[0];
  if (!run) return <p className="waiting">No cable of this rig carries anything to speak of on this use.</p>;
  const { table } = run;
  const amps = (x: number) => (x >= 10 ? x.toFixed(0) : x.toFixed(1));
  const metres = (x: number) => `${lengthShown(x, settings.length).toFixed(1)} ${settings.length}`;
  const warm = (c: number) => `${celsiusShown(c, settings.temperature).toFixed(0)} °${settings.temperature}`;
  const ids = run.conductors.map((c) => c.id);
  const bundled = Math.max(1, ...run.conductors.map((c) => c.bundled ?? 1));
  const can = sized.revision !== undefined;
  // Three steps thinner than what is drawn or would do: thinner still is out of the question.
  const from = Math.max(
    0,
    Math.min(...[table.now, table.pick ?? table.now].map((g) => table.rows.findIndex((r) => r.gauge === g))) - 3,
  );
  const first = doc.conductors.find((c) => c.id === run.id)!;
  return (
    <div className="szruns grid flex-1 min-h-0 max-phone:block max-narrow:grid-cols-names">
      <ul
        className={clsx(
          'szlist',
          'overflow-y-auto border-r-2 border-ink bg-card',
          'max-phone:flex max-phone:overflow-x-auto max-phone:border-r-0 max-phone:border-b-2 max-phone:border-ink',
        )}
        aria-label="Cables"
      >
        {sized.runs.map((r) => (
          <li key={r.id}>
            <button
              type="button"
              className={clsx(
                'grid grid-cols-end gap-x-2 gap-y-0.25',
                'w-full min-h-13 px-3 py-1.5 border-b-1 border-rule',
                'text-left text-inherit',
                'is-on:bg-ink is-on:text-paper max-narrow:grid-cols-1',
                'max-phone:w-47.5 max-phone:border-r-1 max-phone:border-rule',
                r.id === run.id ? 'on' : '',
              )}
              aria-pressed={r.id === run.id}
              onClick={() => setAt(r.id)}
            >
              <b className="col-span-full font-cond font-semibold text-large leading-close">{words(r.name)}</b>
              <span className={`omark${r.verdict === 'thin' ? ' bad' : ''}`}>
                {r.verdict === 'thin' ? (
                  <TriangleAlert size={16} aria-hidden="true" />
                ) : (
                  <CircleCheck size={16} aria-hidden="true" />
                )}
                {gaugeShown(r.table.now, settings.gauge)}, {amps(r.load.continuous)} A
              </span>
              <small className="text-fine text-ink-2 within-on:text-inherit">
                {r.verdict === 'thin' ? r.table.rows.find((x) => x.gauge === r.table.now)!.verdict : r.verdict}
              </small>
            </button>
          </li>
        ))}
      </ul>
      <div className="szrun grid content-start gap-2 px-3.5 pt-2 pb-4 overflow-y-auto">
        <h2 className="font-cond font-bold text-figure leading-close">
          {words(run.name)} <small className="ml-1.5 font-medium text-plain text-ink-2">{words(run.between)}</small>
        </h2>
        <p className="flex flex-wrap gap-x-4 gap-y-0.5 text-note">
          <span>
            out <b className="font-cond text-lead">{metres(table.out)}</b>
          </span>
          <span>
            back <b className="font-cond text-lead">{table.back > 0 ? metres(table.back) : 'by the frame'}</b>
          </span>
          <span>
            continuous <b className="font-cond text-lead">{amps(run.load.continuous)} A</b>
          </span>
          {table.flows > run.load.continuous + 1 && (
            <span>
              can carry <b className="font-cond text-lead">{amps(table.flows)} A</b>
            </span>
          )}
          <span>
            peak <b className="font-cond text-lead">{amps(run.load.peak)} A</b>
          </span>
          <span>
            solved at <b className="font-cond text-lead">{words(table.stateLabel)}</b>
          </span>
        </p>
        <div className="gauge-table overflow-x-auto">
          <table className="w-full text-note tabular-nums">
            <thead>
              <tr>
                <th className="first:text-left" scope="col">
                  Gauge
                </th>
                <th scope="col">Delivers</th>
                <th scope="col">Loses</th>
                <th scope="col" className="max-sm:hidden">
                  Heat
                </th>
                <th scope="col" className="max-sm:hidden">
                  Conductor
                </th>
                <th scope="col">Ampacity</th>
                <th className="last:text-left" scope="col">
                  So it is
                </th>
              </tr>
            </thead>
            <tbody>
              {table.rows.slice(from).map((r) => (
                <tr key={r.gauge} className={r.gauge === table.now ? 'on' : ''}>
                  <th
                    className="font-cond font-bold text-large text-left within-on:bg-ink within-on:text-paper"
                    scope="row"
                  >
                    {gaugeShown(r.gauge as Gauge, settings.gauge)}
                  </th>
                  <td className="font-cond font-medium text-lead within-on:bg-ink within-on:text-paper">
                    {amps(r.amps)} A
                  </td>
                  <td className="font-cond font-medium text-lead within-on:bg-ink within-on:text-paper">
                    {r.loopDrop.toFixed(2)} V
                  </td>
                  <td className="max-sm:hidden font-cond font-medium text-lead within-on:bg-ink within-on:text-paper">
                    {r.watts.toFixed(0)} W
                  </td>
                  <td className="max-sm:hidden font-cond font-medium text-lead within-on:bg-ink within-on:text-paper">
                    {r.celsius < 250 ? warm(r.celsius) : 'burns'}
                  </td>
                  <td className="font-cond font-medium text-lead within-on:bg-ink within-on:text-paper">
                    {r.ampacity.toFixed(0)} A
                  </td>
                  <td
                    className={clsx(
                      'font-cond font-medium text-lead',
                      'last:flex last:flex-wrap last:items-center last:gap-x-2.5 last:gap-y-0',
                      'last:h-auto last:min-h-8.5 last:text-left last:whitespace-normal',
                      'within-on:bg-ink within-on:text-paper',
                    )}
                  >
                    <span className={`omark${r.verdict === 'good' ? '' : ' bad'}`}>
                      {r.verdict === 'good' ? (
                        <CircleCheck size={16} aria-hidden="true" />
                      ) : (
                        <TriangleAlert size={16} aria-hidden="true" />
                      )}
                      {r.verdict}
                      {r.gauge === table.now ? ', as drawn' : r.gauge === table.pick ? ', thinnest' : ''}
                    </span>
                    {can && r.gauge !== table.now && r.verdict === 'good' && (
                      <button
                        type="button"
                        className="text-button min-h-8 font-cond font-semibold text-plain underline underline-offset-3"
                        onClick={() => mend({ conductors: ids, set: { gauge: r.gauge } })}
                      >
                        Make it this
                      </button>
                    )}
                    {r.fit && <small className="basis-full text-fine">{words(r.fit)}</small>}
                  </td>
                </tr>
              ))}
            </tbody>
          </table>
        </div>
        <p className="quiet px-3 py-2.5">
          {words(cable.says)} <i>{cable.from}.</i>
          {cable.sold.length > 0 && ` Copper in it: ${cable.sold.map((c) => `${c.label} ${c.square} mm²`).join(', ')}.`}
        </p>
        <div className="szset grid grid-cols-2 items-center gap-x-5.5 gap-y-2 pt-1 max-phone:grid-cols-1">
          {table.allowed === undefined ? (
            <p>
              A direct link: the loop itself sets the current. Thicker copper puts more into the bank, and more onto the
              alternator.
            </p>
          ) : (
            <NumberField
              key={run.id}
              late
              label={`May lose (${table.allowed.toFixed(2)} V now)`}
              unit="%"
              value={table.share * 100}
              min={0.2}
              max={20}
              onChange={(x) => setDrop(run.id, x / 100)}
            />
          )}
          {can && (
            <>
              <label className="numfield grid items-center gap-x-2.5 gap-y-1">
                <span className="first:m-0 first:p-0 first:font-semibold first:text-note">Insulation rating</span>
                <select
                  className="select min-w-0 border-ink font-cond font-semibold"
                  value={String(first.insulation ?? UNREAD_INSULATION_CELSIUS)}
                  onChange={(e) => mend({ conductors: ids, set: { insulation: Number(e.target.value) as 105 } })}
                >
                  {INSULATIONS.map((c) => (
                    <option key={c} value={c}>
                      {c} °C
                    </option>
                  ))}
                </select>
              </label>
              <Choose
                label="Runs"
                choices={
                  [
                    { id: false, label: 'Outside the engine bay' },
                    { id: true, label: 'Engine bay' },
                  ] as const
                }
                value={run.conductors.some((c) => c.inEngineSpace)}
                onChange={(inEngineSpace) => mend({ conductors: ids, set: { inEngineSpace } })}
              />
              <label className="numfield grid items-center gap-x-2.5 gap-y-1">
                <span className="first:m-0 first:p-0 first:font-semibold first:text-note">
                  With it in one jacket or loom
                </span>
                <select
                  className="select min-w-0 border-ink font-cond font-semibold"
                  value={(BUNDLES.find((b) => Number(b.id) >= bundled) ?? BUNDLES[BUNDLES.length - 1]!).id}
                  onChange={(e) => mend({ conductors: ids, set: { bundled: Number(e.target.value) } })}
                >
                  {BUNDLES.map((b) => (
                    <option key={b.id} value={b.id}>
                      {b.label}
                    </option>
                  ))}
                </select>
              </label>
              {run.conductors.map((c) => (
                <div key={`${c.id}${settings.length}`} className="grid gap-1">
                  <NumberField
                    late
                    label={`${words(c.name)}, length`}
                    unit={settings.length}
                    value={Number(lengthShown(c.length, settings.length).toFixed(2))}
                    min={0.1}
                    max={lengthShown(100, settings.length)}
                    onChange={(x) =>
                      mend({ conductors: [c.id], set: { length: Number(lengthStored(x, settings.length).toFixed(3)) } })
                    }
                  />
                  <Detour
                    name={words(c.name)}
                    straight={c.straight}
                    length={c.length}
                    metres={metres}
                    set={(length) => mend({ conductors: [c.id], set: { length } })}
                  />
                </div>
              ))}
            </>
          )}
          <p className="quiet col-span-full">
            Ends: {run.ends.lug}; {run.ends.crimper}; heat-shrink {run.ends.shrink} mm, adhesive. Loom or split hose at
            every edge, a tie each 150 mm, a grommet through metal.
          </p>
        </div>
      </div>
    </div>
  );
}

/** m a slider reaches beyond the straight way. */
const LONGEST_DETOUR = 6;

/** How much a cable goes round: dragged, or by arrow keys; kept when it is let go. */
function Detour({
  name,
  straight,
  length,
  metres,
  set,
}: {
  name: string;
  straight: number;
  length: number;
  metres(m: number): string;
  set(length: number): void;
}) {
  const [dragged, setDragged] = useState<number>();
  const detour = dragged ?? Math.max(0, length - straight);
  const keep = () => {
    if (dragged !== undefined && Math.abs(straight + dragged - length) > 0.005)
      set(Number(Math.max(0.1, straight + dragged).toFixed(3)));
    setDragged(undefined);
  };
  return (
    <label className="szdetour grid gap-0.5 text-fine text-ink-2">
      <span>
        {metres(straight)} straight, {metres(detour)} round about
      </span>
      <input
        type="range"
        className="range text-ink"
        min={0}
        max={Math.max(LONGEST_DETOUR, Math.ceil(length - straight))}
        step={0.1}
        value={detour}
        aria-label={`${name}, detour`}
        aria-valuetext={metres(detour)}
        onChange={(e) => setDragged(Number(e.target.value))}
        onPointerUp={keep}
        onKeyUp={keep}
        onBlur={keep}
      />
    </label>
  );
}
