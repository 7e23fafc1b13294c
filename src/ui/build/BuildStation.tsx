'use client';
/** The plan of the picked link, carried to the bay: steps in order, parts, cut list, tools; ticked off as it goes. */
import { clsx } from 'clsx';
import { useEffect, useMemo, useState } from 'react';
import { CalendarDays, Printer, Workflow } from 'lucide-react';
import Link from 'next/link';
import { bomCsv, cutListCsv } from '../../core/openFormats/buildCsv';
import { buildOf, builtOf, proposedRevision, standingChoice } from '../../core/job/job';
import type { BuildPlan } from '../../core/plan/build/build';
import { paced, type BuildPace } from '../../core/plan/build/buildPace';
import { respects } from '../../core/plan/build/graph';
import { Choose } from '../fields';
import { useAnswers, useJobFile, usePlace, useEntries } from '../shell/jobPage';
import { useWorked } from '../useWorked';
import { StationBar } from '../StationBar';
import { download } from '../download';
import { BuildSlip } from './BuildSlip';
import { CutTable } from './CutTable';
import { PartTable } from './PartTable';
import { PlanChangePanel } from './PlanChange';
import { Trouble } from '../Trouble';
import { StepList } from './StepList';

const withPace = (plan: BuildPlan, pace: BuildPace): BuildPlan => {
  const steps = paced(plan.steps, pace);
  return {
    ...plan,
    steps,
    minutes: steps.reduce<[number, number]>((sum, s) => [sum[0] + s.minutes[0], sum[1] + s.minutes[1]], [0, 0]),
  };
};

const VIEWS = [
  { id: 'steps', label: 'Steps' },
  { id: 'parts', label: 'Parts' },
  { id: 'cuts', label: 'Cut list' },
  { id: 'tools', label: 'Tools' },
] as const;
type View = (typeof VIEWS)[number]['id'];

export function BuildStation() {
  const answers = useAnswers();
  const { job, words } = useJobFile();
  const { options: source } = answers;
  const { setPreview, go } = usePlace();
  const { send } = useEntries();
  const [view, setView] = useState<View>('steps');
  const [refused, setRefused] = useState<string>();
  const [changing, setChanging] = useState(false);
  const choice = standingChoice(job);
  const proposed = proposedRevision(job);
  const doc = proposed?.doc;
  const build = useMemo(() => buildOf(job, choice?.candidate ?? ''), [job, choice?.candidate]);
  const { data: built, error } = useWorked('build', [doc, build.order], () => source.build());
  const failed = error?.message;
  useEffect(() => {
    if (doc) setPreview(doc);
    return () => setPreview(undefined);
  }, [doc, setPreview]);

  if (!choice || !proposed)
    return (
      <div
        className={clsx(
          'grid place-content-center justify-items-start gap-3',
          'max-w-160 m-auto px-8 py-6',
          'text-lead leading-snug',
        )}
      >
        <h2 className="font-cond font-bold text-display">Build</h2>
        <p>
          Nothing is picked to be built. Pick a link under Options: its parts, its cut list and its steps are then here,
          from what differs between the rig as it is and as it is going to be. A repair like for like needs no plan: it
          is recorded under Fault.
        </p>
        <button type="button" className="btn" onClick={() => go('options')}>
          To the options
        </button>
      </div>
    );
  const ownMinutes = Object.keys(answers.buildPace).length > 0;
  const plan = built && withPace(built.plan, answers.buildPace);
  const candidate = choice.candidate;
  const done = new Map(build.done.map((d) => [d.step, d]));
  const next = plan?.steps.find((s) => !done.has(s.id));
  const finished = builtOf(job, proposed.id);
  const finish = (step: string, minutes?: number) => {
    // What it was planned at, by the catalogue: the next plan learns from the two.
    const range = built?.plan.steps.find((s) => s.id === step)?.minutes;
    send('build.done', {
      candidate,
      step,
      ...(minutes === undefined ? {} : { minutes }),
      ...(range ? { planned: Math.round((range[0] + range[1]) * 5) / 10 } : {}),
    });
  };
  const move = (order: string[]) => {
    if (!plan) return;
    if (!respects(plan.steps, order)) {
      // Which of its conditions it breaks: the step named first that would come too early.
      const at = new Map(order.map((id, i) => [id, i]));
      const early = plan.steps.find((s) => s.after.some((a) => at.get(a)! > at.get(s.id)!))!;
      const waits = plan.steps.find((s) => early.after.includes(s.id) && at.get(s.id)! > at.get(early.id)!)!;
      setRefused(`“${early.title}” waits for “${waits.title}”.`);
      return;
    }
    setRefused(undefined);
    send('build.order', { candidate, ...(build.order ? { was: build.order } : {}), set: order });
  };
  const name = `${job.number}-${choice.candidate}`;
  return (
    <div
      className={clsx(
        'options build',
        'grid grid-cols-slip',
        'h-full min-h-0',
        'max-narrow:grid-cols-1 max-narrow:grid-rows-foot max-phone:block max-phone:h-auto',
      )}
    >
      <div className="omain">
        <StationBar>
          <Choose<View> label="" choices={VIEWS} value={view} onChange={setView} />
          <b className="ofor ml-auto overflow-hidden font-cond text-large text-ellipsis whitespace-nowrap">
            {words(choice.name)}
          </b>
        </StationBar>
        {(failed ?? refused) && <Trouble>{failed ?? words(refused!)}</Trouble>}
        {!plan ? (
          !failed && <p className="waiting py-2 text-note text-ink-2">Working out what has to be done before what …</p>
        ) : plan.steps.length === 0 ? (
          <p className="waiting">The rig stays as it is: there is nothing to build.</p>
        ) : (
          <div className="oscroll flex-auto min-h-0">
            {view === 'steps' && (
              <StepList
                plan={plan}
                done={done}
                next={next?.id}
                locked={finished !== undefined}
                finish={finish}
                undo={(step) => send('build.undone', { candidate, step })}
                move={move}
              />
            )}
            {view === 'parts' && (
              <PartTable
                plan={plan}
                ticks={build.ticks}
                tick={(line, was, set) =>
                  send('build.tick', { candidate, line, ...(was ? { was } : {}), ...(set ? { set } : {}) })
                }
              />
            )}
            {view === 'cuts' && <CutTable plan={plan} />}
            {view === 'tools' && (
              <ul className="bdtools">
                {plan.tools.map((t) => (
                  <li key={t}>{words(t)}</li>
                ))}
              </ul>
            )}
            {(job.planChanges ?? []).map((p) => (
              <p key={p.id} className="planchanged px-3.5 py-1.75 border-t-1 border-rule text-note">
                <b>{words(p.what)}</b>, because: {p.reason} <small className="text-ink-2">{p.by}</small>
              </p>
            ))}
            {ownMinutes && view === 'steps' && (
              <p>Minutes by this shop’s own builds where it had three of a kind, the catalog’s elsewhere.</p>
            )}
            <div className="bdfoot flex flex-wrap gap-2 px-3.5 pt-3 pb-4.5">
              <button
                type="button"
                className="btn btn-sm"
                onClick={() => download(`${name}-parts.csv`, 'text/csv;charset=utf-8', bomCsv(plan, build.ticks))}
              >
                Parts as CSV
              </button>
              <button
                type="button"
                className="btn btn-sm"
                onClick={() => download(`${name}-cut-list.csv`, 'text/csv;charset=utf-8', cutListCsv(plan))}
              >
                Cut list as CSV
              </button>
              {!finished && (
                <button type="button" className="btn btn-sm" onClick={() => setChanging(true)}>
                  Changed the plan because…
                </button>
              )}
              <Link className="btn btn-sm" href={`/calendar?job=${job.number}`}>
                <CalendarDays size={18} aria-hidden="true" /> Book a bay
              </Link>
              <Link className="btn btn-sm" href={`/jobs/${job.number}/wiring`}>
                <Workflow size={18} aria-hidden="true" /> Wiring diagram
              </Link>
              <button type="button" className="btn btn-sm" onClick={() => window.print()}>
                <Printer size={18} aria-hidden="true" /> Print this list
              </button>
            </div>
          </div>
        )}
      </div>
      {changing && plan && <PlanChangePanel proposed={proposed} plan={plan} onClose={() => setChanging(false)} />}
      <BuildSlip
        plan={plan}
        build={build}
        next={next}
        finished={finished !== undefined}
        finish={finish}
        complete={() => send('build.finish', { revision: proposed.id, built: crypto.randomUUID() })}
      />
    </div>
  );
}
