'use client';
/** Ways of linking the batteries, simulated on this customer's own use and compared; one is picked. */
import { clsx } from 'clsx';
import { useEffect, useMemo, useState } from 'react';
import { standingChoice } from '../../core/job/job';
import type { Compared } from '../../core/plan/compare';
import { rigInWords } from '../../core/rig/inWords';
import type { Scenario } from '../../core/simulate/scenarioSchema';
import { usePlace, useJobFile, useAnswers, useEntries } from '../shell/jobPage';
import { Trouble } from '../Trouble';
import { AskPanel } from './AskPanel';
import { CandidatePicker } from './CandidatePicker';
import { ComparePanel } from './ComparePanel';
import { EventsPanel } from './EventsPanel';
import { OptionsBar, type OptionsView } from './OptionsBar';
import { OptionSlip } from './OptionSlip';
import { PickDialog } from './PickDialog';
import { PointsDialog } from './PointsDialog';
import { SchoolsPanel } from './SchoolsPanel';
import { SpreadBar } from './SpreadBar';
import { UsageEditor } from './UsageEditor';
import { useComparison } from './useComparison';

const NO_ROWS: readonly Compared[] = [];

export function OptionsStation() {
  const place = usePlace();
  const { job, settings, words } = useJobFile();
  const { options: source } = useAnswers();
  const { setPreview } = place;
  const { send } = useEntries();
  const compares = useComparison();
  const { list, scenarios, comparison, failed, spread } = compares;
  const [view, setView] = useState<OptionsView>('compare');
  const [at, setAt] = useState(0);
  const [chosen, setChosen] = useState<string>();
  const [dialog, setDialog] = useState<{ is: 'pick' | 'links' } | { is: 'points'; candidate: string }>();
  const close = () => setDialog(undefined);

  const rows = comparison?.rows ?? NO_ROWS;
  const picked = usePicked(rows, chosen, comparison?.recommendation?.pick);
  const row = rows.find((r) => r.candidate.id === picked);
  const which = Math.min(at, (scenarios?.length ?? 1) - 1);
  const scenario = scenarios?.[which];
  const result = row?.results[Math.min(which, row.results.length - 1)];

  // The strip shows the rig the picked candidate would make.
  const { vocabulary } = settings;
  const preview = row?.candidate.rig;
  useEffect(() => {
    setPreview(preview && rigInWords(vocabulary, preview));
    return () => setPreview(undefined);
  }, [preview, vocabulary, setPreview]);

  if (failed && !comparison) return <NotSimulated why={failed} toRig={() => place.go('rig')} />;
  if (!list || !scenarios || !scenario) return <DrawingUp />;
  const { house } = list;
  const setUsage = (next: Scenario[]) => send('usage.set', { was: job.usage, set: { scenarios: next } });
  const working = dialog?.is === 'points' ? rows.find((r) => r.candidate.id === dialog.candidate) : undefined;
  return (
    <div
      className={clsx(
        'options',
        'grid grid-cols-slip',
        'h-full min-h-0',
        'max-narrow:grid-cols-1 max-narrow:grid-rows-foot max-phone:block max-phone:h-auto',
      )}
    >
      <div className="flex min-h-0 min-w-0 flex-col max-[480px]:block">
        <OptionsBar
          compares={compares}
          view={view}
          onView={setView}
          which={which}
          onWhich={setAt}
          result={result}
          picked={picked}
          onLinks={() => setDialog({ is: 'links' })}
        />
        <Troubles list={list.troubles} failed={failed} />
        {view === 'compare' && comparison && (
          <ComparePanel
            key={scenario.id}
            comparison={comparison}
            which={which}
            scenario={scenario}
            house={house}
            picked={picked}
            onPick={setChosen}
            spreads={spread.drawn?.spreads}
            onWorking={(candidate) => setDialog({ is: 'points', candidate })}
          />
        )}
        {view === 'compare' && !comparison && compares.stopped && <StoppedByHand again={compares.again} />}
        {view === 'events' && row && result && (
          <EventsPanel rows={rows} row={row} result={result} scenario={scenario} />
        )}
        {view === 'use' && (
          <div className="oscroll flex-auto min-h-0">
            <UsageEditor scenarios={scenarios} house={house} onChange={setUsage} />
          </div>
        )}
        {view === 'ask' && (
          <div className="oscroll flex-auto min-h-0">
            <AskPanel rows={rows} source={source} picked={picked} house={house && words(house.name)} />
          </div>
        )}
        {view === 'schools' && comparison && <SchoolsPanel comparison={comparison} />}
      </div>
      <OptionSlip
        comparison={comparison}
        picked={picked}
        influences={spread.drawn?.influences[picked] ?? []}
        choose={() => setDialog({ is: 'pick' })}
        spreadBar={<SpreadBar spread={spread} ready={comparison !== undefined && compares.progress === undefined} />}
      />
      {dialog?.is === 'links' && (
        <CandidatePicker
          list={list.candidates}
          ids={compares.compared}
          onClose={close}
          onSet={(ids) => compares.setCompared(ids)}
        />
      )}
      {working && <PointsDialog scored={working.scored} name={working.candidate.name} onClose={close} />}
      {dialog?.is === 'pick' && row && comparison && (
        <PickDialog
          row={row}
          reasons={comparison.recommendation?.pick === picked ? comparison.recommendation.reasons : []}
          onClose={close}
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
            close();
          }}
        />
      )}
    </div>
  );
}

/** The row in hand: what was pressed, else what stands picked, else what is recommended, else the first. */
function usePicked(rows: readonly Compared[], chosen: string | undefined, recommended: string | undefined): string {
  const { job } = useJobFile();
  const choice = standingChoice(job)?.candidate;
  return useMemo(() => {
    const wanted = chosen ?? choice;
    if (wanted !== undefined && rows.some((r) => r.candidate.id === wanted)) return wanted;
    return recommended ?? rows[0]?.candidate.id ?? '';
  }, [rows, chosen, choice, recommended]);
}

const NotSimulated = ({ why, toRig }: { why: string; toRig(): void }) => (
  <div>
    <h2>Not simulated</h2>
    <p>{why}</p>
    <button type="button" className="btn" onClick={toRig}>
      To the rig
    </button>
  </div>
);

const DrawingUp = () => (
  <div
    className={clsx(
      'grid place-content-center justify-items-start gap-3',
      'max-w-160 m-auto px-8 py-6',
      'text-lead leading-snug',
    )}
  >
    <span className="loading loading-dots" aria-hidden="true" />
    <p>Drawing up ways to link these batteries.</p>
  </div>
);

const StoppedByHand = ({ again }: { again(): void }) => (
  <div>
    <h2>Stopped</h2>
    <p>Nothing has been compared yet. Change the use or the links, or run it again.</p>
    <button type="button" className="btn" onClick={again}>
      Compare
    </button>
  </div>
);

function Troubles({ list, failed }: { list: readonly { says: string; remedy: string }[]; failed: string | undefined }) {
  const { words } = useJobFile();
  return (
    <>
      {list.map((t) => (
        <Trouble key={t.says}>
          <b>{words(t.says)}</b> {words(t.remedy)}
        </Trouble>
      ))}
      {failed && <Trouble>{failed}</Trouble>}
    </>
  );
}
