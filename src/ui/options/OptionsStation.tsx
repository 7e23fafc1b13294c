'use client';
/** Ways of linking the batteries, simulated on this customer's own use and compared; one is picked. */
import { is } from '../../core/parts/kinds';
import { partWith } from '../../core/rig/value';
import { useEffect, useMemo, useRef, useState } from 'react';
import { currentRevision, standingChoice } from '../../core/job/job';
import { LETTERS } from '../../core/plan/letters';
import type { Comparison } from '../../core/plan/compare';
import type { Influence, Spread } from '../../core/plan/sensitivity';
import type { Scenario } from '../../core/simulate/scenarioSchema';
import { rigInWords } from '../../core/rig/inWords';
import { celsiusShown } from '../../core/units/preferences';
import { Choose } from '../fields';
import { useJobPage } from '../shell/jobPage';
import { AskPanel } from './AskPanel';
import { OptionChart, type ChartLine } from './OptionChart';
import { OptionSlip } from './OptionSlip';
import { OptionTable } from './OptionTable';
import { PickDialog } from './PickDialog';
import { PointsDialog } from './PointsDialog';
import { UsageEditor } from './UsageEditor';
import { CandidatePicker } from './CandidatePicker';
import { exportCsv, exportJson } from './exports';
import type { OptionList } from './source';
import { clockOf, isLong, valueAt } from './time';

const VIEWS = [
  { id: 'compare', label: 'Compare' },
  { id: 'events', label: 'Events' },
  { id: 'use', label: 'Use' },
  { id: 'ask', label: 'Ask' },
  { id: 'schools', label: 'Schools' },
] as const;
type View = (typeof VIEWS)[number]['id'];

/** The second chart: what can be looked at beside the charge. */
const SECOND = [
  { id: 'alternator', label: 'Alternator' },
  { id: 'heat', label: 'Its heat' },
  { id: 'link', label: 'Link amps' },
  { id: 'volts', label: 'Volts' },
  { id: 'start', label: 'Start battery' },
] as const;
type Second = (typeof SECOND)[number]['id'];

const SAMPLES = 60;

export function OptionsStation() {
  const page = useJobPage();
  const { job, options: source, setPreview, send, settings, words } = page;
  const [list, setList] = useState<OptionList>();
  const [ids, setIds] = useState<readonly string[]>();
  const [comparison, setComparison] = useState<Comparison>();
  const [progress, setProgress] = useState<number>();
  const [failed, setFailed] = useState<string>();
  const [view, setView] = useState<View>('compare');
  const [at, setAt] = useState(0);
  const [second, setSecond] = useState<Second>('alternator');
  const [chosen, setChosen] = useState<string>();
  const [cursor, setCursor] = useState<number>();
  const [zoomed, setZoomed] = useState<readonly [number, number]>();
  const [drawn, setDrawn] = useState<{ spreads: Spread[]; influences: Record<string, Influence[]> }>();
  const [drawing, setDrawing] = useState<number>();
  const abort = useRef<AbortController>(undefined);
  const [picking, setPicking] = useState(false);
  const [working, setWorking] = useState<string>();
  const [adding, setAdding] = useState(false);

  // What the comparison depends on: a note or a reading must not run it again.
  const { doc } = currentRevision(job);
  const verdict = job.verdicts.findLast((v) => !v.withdrawn);
  const asked = useMemo(
    () => ({ doc, usage: job.usage, fault: verdict?.fault, told: job.intake }),
    [doc, job.usage, verdict?.fault, job.intake],
  );
  const newest = useRef(source);
  useEffect(() => {
    newest.current = source;
  });
  useEffect(() => {
    let alive = true;
    newest.current.list().then(
      (l) => alive && setList(l),
      (e: Error) => alive && setFailed(e.message),
    );
    return () => {
      alive = false;
    };
  }, [asked]);

  // What somebody set stands at once; the usual ones come from the core.
  const scenarios = job.usage.scenarios.length > 0 ? job.usage.scenarios : list?.scenarios;
  const compared = useMemo(
    () => (list ? (ids ?? list.usual).filter((id) => list.candidates.some((c) => c.id === id)) : undefined),
    [list, ids],
  );
  const stopped = list?.troubles.some((t) => t.stops) ?? false;
  useEffect(() => {
    if (!scenarios || !compared || stopped) return;
    let alive = true;
    // A change while one types or drags: wait until it rests.
    const timer = setTimeout(() => {
      setProgress(0);
      setFailed(undefined);
      abort.current?.abort();
      setDrawn(undefined);
      newest.current
        .compare(compared, scenarios, (share) => alive && setProgress(share))
        .then(
          (c) => {
            if (!alive) return;
            setComparison(c);
            setProgress(undefined);
          },
          (e: Error) => {
            if (!alive) return;
            setFailed(e.message);
            setProgress(undefined);
          },
        );
    }, 250);
    return () => {
      alive = false;
      clearTimeout(timer);
    };
  }, [scenarios, compared, stopped]);

  const choice = standingChoice(job);
  const rows = useMemo(() => comparison?.rows ?? [], [comparison]);
  const picked = rows.some((r) => r.candidate.id === (chosen ?? choice?.candidate))
    ? (chosen ?? choice!.candidate)
    : (comparison?.recommendation?.pick ?? rows[0]?.candidate.id ?? '');
  const row = rows.find((r) => r.candidate.id === picked);
  const scenario = scenarios?.[Math.min(at, (scenarios?.length ?? 1) - 1)];
  const result = scenario && row?.results[Math.min(at, row.results.length - 1)];
  const total = result ? result.summary.hours : 1;
  const [from, to] = zoomed ?? [0, total];

  // The strip shows the rig the picked candidate would make.
  const { vocabulary } = settings;
  const preview = row?.candidate.rig;
  useEffect(() => {
    setPreview(preview && rigInWords(vocabulary, preview));
    return () => setPreview(undefined);
  }, [preview, vocabulary, setPreview]);

  const house = list?.house;
  const lines = useMemo(() => {
    const of = (
      column: (id: string, i: number) => string | undefined,
      scale: (x: number) => number = (x) => x,
    ): ChartLine[] =>
      rows.flatMap((r, i): ChartLine[] => {
        const run = r.results[Math.min(at, r.results.length - 1)]!;
        const id = column(r.candidate.id, i);
        const s = run.series.find((x) => x.id === id);
        if (!s) return [];
        return [
          {
            letter: LETTERS[i]!,
            index: i,
            picked: r.candidate.id === picked,
            t: run.t,
            values: s.values.some((v) => scale(v) !== v) ? s.values.map(scale) : s.values,
          },
        ];
      });
    const alternator = partWith(doc, 'alternator')?.id;
    const start = rows[0]?.results[0]?.summary.batteries.find((b) => b.part !== house?.id)?.part;
    const linkOf = (id: string) => {
      const links = rows
        .find((r) => r.candidate.id === id)!
        .results[0]!.summary.links.filter(
          (l) =>
            !is(
              rows.find((r) => r.candidate.id === id)!.candidate.rig.parts.find((p) => p.id === l.part),
              'towConnector',
            ),
        );
      return links.toSorted((a, b) => b.ahToCoach + b.ahBack - a.ahToCoach - a.ahBack)[0]?.part;
    };
    return {
      soc: of(() => `${house?.id}.soc`),
      alternator: of(() => `${alternator}.amps`),
      heat: of(
        () => `${alternator}.celsius`,
        (c) => celsiusShown(c, settings.temperature),
      ),
      link: of((id) => `${linkOf(id)}.amps`),
      volts: of(() => `${house?.id}.volts`),
      start: of(() => `${start}.soc`),
    };
  }, [rows, at, picked, house, doc, settings.temperature]);
  const marks = useMemo(() => {
    const run = rows.find((r) => r.candidate.id === picked)?.results;
    return run?.[Math.min(at, run.length - 1)]?.events.filter((e) => e.kind !== 'leg').map((e) => e.t / 3600) ?? [];
  }, [rows, picked, at]);
  const limit = useMemo(() => {
    if (second !== 'alternator') return undefined;
    const value = partWith(doc, 'alternator')?.params['fastLimit']?.value;
    return value === undefined ? undefined : { value, words: `at most ${value.toFixed(0)} A under way` };
  }, [second, doc]);

  const setUsage = (next: Scenario[]) => send('usage.set', { was: job.usage, set: { scenarios: next } });
  const drawSpread = () => {
    if (!compared || !scenarios) return;
    const controller = new AbortController();
    abort.current = controller;
    setDrawing(0);
    source
      .spread(
        compared,
        scenarios,
        SAMPLES,
        (share) => !controller.signal.aborted && setDrawing(share),
        controller.signal,
      )
      .then(setDrawn, (e: Error) => e.name !== 'AbortError' && setFailed(e.message))
      .finally(() => setDrawing(undefined));
  };
  useEffect(() => () => abort.current?.abort(), []);

  if (failed && !comparison)
    return (
      <div className="empty">
        <h2>Not simulated</h2>
        <p>{failed}</p>
        <button type="button" className="bx" onClick={() => page.go('rig')}>
          To the rig
        </button>
      </div>
    );
  if (!list || !scenario)
    return (
      <div className="empty">
        <span className="loading loading-dots" aria-hidden="true" />
        <p>Drawing up ways to link these batteries.</p>
      </div>
    );
  const long = isLong(total);
  const digits = second === 'volts' ? 2 : 0;
  const unit = { alternator: 'A', heat: `°${settings.temperature}`, link: 'A toward coach', volts: 'V', start: '%' }[
    second
  ];
  const title = {
    alternator: 'Alternator',
    heat: 'Alternator heat',
    link: 'Through the link',
    volts: `${house?.name ?? 'Bank'}`,
    start: 'Start battery charge',
  }[second];
  return (
    <div className="options">
      <div className="omain">
        <div className="obar">
          <Choose<View> label="" choices={VIEWS} value={view} onChange={setView} />
          {(view === 'compare' || view === 'events') && scenarios.length > 1 && (
            <Choose
              label=""
              choices={scenarios.map((s, i) => ({ id: i, label: s.name }))}
              value={Math.min(at, scenarios.length - 1)}
              onChange={(i) => (setAt(i), setZoomed(undefined), setCursor(undefined))}
            />
          )}
          <span className="grow" />
          {progress !== undefined && (
            <span className="oprogress" role="status">
              comparing <progress className="progress" value={progress} max={1} aria-label="Comparing" />
            </span>
          )}
          {view === 'compare' && (
            <>
              <button type="button" className="bx small" onClick={() => setAdding(true)}>
                {compared?.length ?? 0} of {list.candidates.length} links
              </button>
              <details className="dropdown dropdown-end">
                <summary className="bx small">Export</summary>
                <div className="omenu">
                  <button
                    type="button"
                    onClick={() => result && exportCsv(`${job.number}-${picked}-${scenario.id}`, result)}
                    disabled={!result}
                  >
                    The picked link’s hours, CSV
                  </button>
                  <button
                    type="button"
                    onClick={() => comparison && exportJson(`${job.number}-options`, comparison)}
                    disabled={!comparison}
                  >
                    The whole comparison, JSON
                  </button>
                </div>
              </details>
            </>
          )}
        </div>
        {list.troubles.length > 0 && (
          <ul className="otroubles" role="alert">
            {list.troubles.map((t) => (
              <li key={t.says}>
                <b>{words(t.says)}</b> {words(t.remedy)}
              </li>
            ))}
          </ul>
        )}
        {failed && comparison && (
          <p className="otroubles" role="alert">
            {failed}
          </p>
        )}
        {view === 'compare' && comparison && (
          <div className="ocompare">
            <div className="ocharts">
              <OptionChart
                title={`${words(house?.name ?? 'Bank')} charge`}
                unit="%"
                lines={lines.soc}
                legs={result?.legs ?? []}
                startHour={scenario.startHour}
                from={from}
                to={to}
                onWindow={setZoomed}
                cursor={cursor}
                onCursor={setCursor}
                marks={marks}
                topAt={100}
              />
              <div className="osecond">
                <OptionChart
                  title={title}
                  unit={unit}
                  lines={lines[second]}
                  legs={result?.legs ?? []}
                  startHour={scenario.startHour}
                  from={from}
                  to={to}
                  onWindow={setZoomed}
                  cursor={cursor}
                  onCursor={setCursor}
                  marks={marks}
                  {...(limit ? { limit } : {})}
                  {...(second === 'alternator' || second === 'link' ? { floorAt: 0 } : {})}
                />
                <select
                  className="oselect"
                  aria-label="Second chart"
                  value={second}
                  onChange={(e) => setSecond(e.target.value as Second)}
                >
                  {SECOND.map((s) => (
                    <option key={s.id} value={s.id}>
                      {s.label}
                    </option>
                  ))}
                </select>
              </div>
            </div>
            <p className="oread" aria-live="off">
              {cursor === undefined ? (
                <>
                  <i className="wash drive" aria-hidden="true" /> engine running{' '}
                  <i className="wash shore" aria-hidden="true" /> on shore · point at a chart to read it, Ctrl and wheel
                  or + − to zoom
                  {zoomed && (
                    <button type="button" className="inline" onClick={() => setZoomed(undefined)}>
                      Show all
                    </button>
                  )}
                </>
              ) : (
                <>
                  <b>{clockOf(cursor, scenario.startHour, long)}</b>
                  {lines.soc.map((l, i) => (
                    <span key={l.letter}>
                      <b>{l.letter}</b> {valueAt(l.t, l.values, cursor * 3600).toFixed(0)} %
                      {lines[second][i] &&
                        `, ${valueAt(lines[second][i].t, lines[second][i].values, cursor * 3600).toFixed(digits)} ${unit}`}
                    </span>
                  ))}
                </>
              )}
            </p>
            <div className="oscroll min-h-32 grow-0" tabIndex={0} role="region" aria-label="Comparison">
              <OptionTable
                comparison={comparison}
                spreads={drawn?.spreads}
                picked={picked}
                onPick={setChosen}
                onWorking={setWorking}
              />
            </div>
          </div>
        )}
        {view === 'events' && row && result && (
          <div className="oscroll" tabIndex={0} role="region" aria-label="Events">
            <h3 className="ohead">
              {LETTERS[rows.indexOf(row)]}, {words(row.candidate.name)}: what happens when, and why
            </h3>
            <ol className="oevents">
              {result.events.map((e, i) => (
                <li key={i} className={e.kind}>
                  <time>{clockOf(e.t / 3600, scenario.startHour, false)}</time>
                  <b>{words(e.what)}</b>
                  <span>{e.kind === 'leg' ? '' : words(e.why)}</span>
                </li>
              ))}
            </ol>
            <div className="osums">
              {result.summary.batteries.map((b) => (
                <p key={b.part}>
                  <b>{words(b.name)}</b> {Math.round(b.startSoc * 100)} to {Math.round(b.endSoc * 100)} %, lowest{' '}
                  {b.lowestVolts.toFixed(1)} V
                  {b.lowestVolts - b.lowestAllOn >= 0.1 ? `, ${b.lowestAllOn.toFixed(1)} V with everything on` : ''};{' '}
                  {b.ahIn.toFixed(0)} Ah in, {b.ahOut.toFixed(0)} Ah out, {b.ahLost.toFixed(0)} Ah lost
                </p>
              ))}
              {result.summary.links.map((l) => (
                <p key={l.part}>
                  <b>{words(l.name)}</b> {l.hoursOn.toFixed(1)} h on, {l.ahToCoach.toFixed(0)} Ah toward coach,{' '}
                  {l.ahBack.toFixed(0)} Ah back, {l.cycles} times
                  {l.hottest
                    ? `; ${l.hottest.body} ${celsiusShown(l.hottest.celsius, settings.temperature).toFixed(0)} ` +
                      `°${settings.temperature}, limit ` +
                      `${celsiusShown(l.hottest.limit, settings.temperature).toFixed(0)}`
                    : ''}
                </p>
              ))}
              <p>
                <b>Lost on the way</b> {result.summary.lossWh.copper.toFixed(0)} Wh in copper and contacts
                {result.summary.lossWh.converters > 0
                  ? `, ${result.summary.lossWh.converters.toFixed(0)} Wh in chargers`
                  : ''}
                . Charge and energy add up to{' '}
                {Math.max(result.summary.balance.charge, result.summary.balance.energy) < 1e-3
                  ? 'a thousandth'
                  : 'less than a thousandth: do not trust this run'}
                .
              </p>
            </div>
          </div>
        )}
        {view === 'use' && (
          <div className="oscroll">
            <UsageEditor scenarios={scenarios} house={house} onChange={setUsage} />
          </div>
        )}
        {view === 'ask' && (
          <div className="oscroll">
            <AskPanel rows={rows} source={source} picked={picked} house={house && words(house.name)} />
          </div>
        )}
        {view === 'schools' && comparison && (
          <div className="oscroll">
            <ul className="oschools">
              {comparison.schools.map((s) => (
                <li key={s.title}>
                  <b>{s.title}</b>
                  <span className="quiet">{s.claim}</span>
                  <span>
                    Here, {LETTERS[rows.findIndex((r) => r.candidate.id === s.candidate)]}: {words(s.here)}
                  </span>
                </li>
              ))}
            </ul>
          </div>
        )}
      </div>
      <OptionSlip
        comparison={comparison}
        picked={picked}
        influences={drawn?.influences[picked] ?? []}
        choose={() => setPicking(true)}
        spreadBar={
          drawing !== undefined ? (
            <div className="ospread">
              <progress className="progress" value={drawing} max={1} aria-label="Drawing samples" />
              <button type="button" className="bx small" onClick={() => abort.current?.abort()}>
                Stop
              </button>
            </div>
          ) : drawn ? (
            <p className="quiet">Ranges: nine tenths of {SAMPLES} draws of everything assumed.</p>
          ) : (
            <button type="button" className="bx small" onClick={drawSpread} disabled={!comparison}>
              How sure is this?
            </button>
          )
        }
      />
      {adding && (
        <CandidatePicker list={list.candidates} ids={compared ?? []} onClose={() => setAdding(false)} onSet={setIds} />
      )}
      {working && comparison && (
        <PointsDialog
          scored={comparison.rows.find((r) => r.candidate.id === working)!.scored}
          name={comparison.rows.find((r) => r.candidate.id === working)!.candidate.name}
          onClose={() => setWorking(undefined)}
        />
      )}
      {picking && row && comparison && (
        <PickDialog
          row={row}
          reasons={comparison.recommendation?.pick === picked ? comparison.recommendation.reasons : []}
          onClose={() => setPicking(false)}
          onPick={(reasons) => {
            const { candidate } = row;
            send('option.choose', {
              id: crypto.randomUUID(),
              candidate: candidate.id,
              name: candidate.name,
              reasons,
              minutes: [...candidate.minutes] as [number, number],
              parts: [...candidate.parts] as [number, number],
              revision: crypto.randomUUID(),
              doc: candidate.rig,
            });
            setPicking(false);
          }}
        />
      )}
    </div>
  );
}
