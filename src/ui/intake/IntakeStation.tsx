'use client';
/** Intake: what the owner says, how the rig is used, whose it is, photos; and where that starts the search. */
import { clsx } from 'clsx';
import { format } from 'date-fns';
import { useState } from 'react';
import { COMPLAINTS, type Complaint } from '../../core/parts/complaints';
import { complaintSays, complaintsOf } from '../../core/rig/complaintsOf';
import { INTAKE_FACTS, INTAKE_GROUPS, type IntakeFact, type IntakeFactId } from '../../core/diagnose/intake';
import type { PriorLine } from '../../core/diagnose/priors';
import type { IntakeChange } from '../../core/job/command';
import type { Identity } from '../../core/job/identity';
import { showPercent } from '../../core/units/format';
import { useJobFile, useEntries, useAnswers, usePlace } from '../shell/jobPage';
import { useWorked } from '../useWorked';
import { Notes } from './Notes';
import { Photos } from './Photos';
import { OpenFigure } from '../fields';

/** A text that is sent when one leaves it, so that one visit to the field is one change. */
function Kept({
  label,
  value,
  max,
  rows,
  onKeep,
}: {
  label: string;
  value: string;
  max: number;
  rows?: number;
  onKeep(text: string): void;
}) {
  const [typed, setTyped] = useState<string>();
  const leave = () => {
    if (typed !== undefined && typed.trim() !== value) onKeep(typed.trim());
    setTyped(undefined);
  };
  const props = {
    value: typed ?? value,
    maxLength: max,
    onChange: (e: { target: { value: string } }) => setTyped(e.target.value),
    onBlur: leave,
    autoComplete: 'off',
  };
  return (
    <label className="field">
      <span>{label}</span>
      {rows ? (
        <textarea className="textarea w-full" rows={rows} {...props} />
      ) : (
        <input className="input w-full" {...props} />
      )}
    </label>
  );
}

function Ticks<T extends string>({
  label,
  choices,
  on,
  toggle,
}: {
  label: string;
  choices: readonly { id: T; label: string }[];
  on: readonly T[];
  toggle(id: T): void;
}) {
  return (
    <div className="ticks grid grid-cols-2 gap-1.25" role="group" aria-label={label}>
      {choices.map((c) => (
        <label
          key={c.id}
          className={clsx(
            'relative flex items-center gap-2',
            'min-h-11 px-2 py-0.5 border border-rule rounded',
            'text-note leading-close cursor-pointer',
            'is-on:border-ink is-on:font-semibold',
            on.includes(c.id) ? 'on' : '',
          )}
        >
          <input
            className="absolute w-0.25 h-0.25 opacity-0"
            type="checkbox"
            checked={on.includes(c.id)}
            onChange={() => toggle(c.id)}
          />
          {c.label}
        </label>
      ))}
    </div>
  );
}

const without = <T,>(list: readonly T[], id: T): T[] =>
  list.includes(id) ? list.filter((x) => x !== id) : [...list, id];

export function IntakeStation() {
  const file = useJobFile();
  const { job, words } = file;
  const { send } = useEntries();
  const set = (change: IntakeChange) => {
    const now: Required<IntakeChange> = { codes: job.complaint.codes, words: job.complaint.words, ...job.intake };
    const was = Object.fromEntries(Object.keys(change).map((k) => [k, now[k as keyof IntakeChange]])) as IntakeChange;
    send('intake.set', { was, set: change });
  };
  const facts = Object.entries(INTAKE_FACTS) as [IntakeFactId, IntakeFact][];
  return (
    <div className="intake grid h-full min-h-0 within-phone:block within-phone:h-auto">
      <div
        className={clsx(
          'intake-form',
          'grid content-start grid-cols-2 gap-3',
          'min-h-0 px-3.5 pt-3 pb-5 overflow-y-auto',
          'max-narrow:grid-cols-1 within-phone:grid-cols-1 within-phone:overflow-visible',
        )}
      >
        <section className="grp-box first:col-span-full" aria-label="Complaint">
          <h2 className="font-cond font-bold text-figure leading-none">What the owner says</h2>
          <Ticks
            label="Complaint"
            choices={[...new Set([...complaintsOf(file.described), ...job.complaint.codes])].map((id) => ({
              id,
              label: words(complaintSays(id, file.described)),
            }))}
            on={job.complaint.codes}
            toggle={(id) => set({ codes: without(job.complaint.codes, id) })}
          />
          <Kept
            label="In the owner’s words"
            value={job.complaint.words}
            max={400}
            rows={2}
            onKeep={(text) => set({ words: text })}
          />
        </section>
        {(Object.keys(INTAKE_GROUPS) as IntakeFact['group'][]).map((group) => (
          <section key={group} className="grp-box content-start" aria-label={INTAKE_GROUPS[group]}>
            <h2 className="font-cond font-bold text-figure leading-none">{INTAKE_GROUPS[group]}</h2>
            <Ticks
              label={INTAKE_GROUPS[group]}
              choices={facts.filter(([, f]) => f.group === group).map(([id, f]) => ({ id, label: words(f.says) }))}
              on={job.intake.facts}
              toggle={(id) => set({ facts: without(job.intake.facts, id) })}
            />
            {group === 'use' && <Usage set={set} />}
            {group === 'history' && (
              <Kept
                label="History and what was tried, no names"
                value={job.intake.told}
                max={2000}
                rows={3}
                onKeep={(told) => set({ told })}
              />
            )}
          </section>
        ))}
        <Whose />
        <Notes />
        <Photos />
      </div>
      <Start />
    </div>
  );
}

const USAGE = [
  ['driveHours', 'Driving on a travel day', 'h', 24],
  ['nights', 'Nights off grid in a row', '', 365],
  ['storedMonths', 'Months in storage a year', '', 24],
] as const;

function Usage({ set }: { set(change: IntakeChange): void }) {
  const { job } = useJobFile();
  const { usage } = job.intake;
  return (
    <div className="grid gap-1.5 mt-1.5 px-3 pt-2.5 pb-4">
      {USAGE.map(([key, label, unit, max]) => (
        <OpenFigure
          key={key}
          label={label}
          unit={unit}
          max={max}
          placeholder="not asked"
          value={usage[key]}
          onKeep={(value) => {
            const { [key]: _, ...rest } = usage;
            set({ usage: value === undefined ? rest : { ...rest, [key]: value } });
          }}
        />
      ))}
    </div>
  );
}

const IDENTITY: readonly { key: keyof Identity; label: string; max: number }[] = [
  { key: 'customer', label: 'Customer', max: 120 },
  { key: 'contact', label: 'Telephone or message address', max: 160 },
  { key: 'plate', label: 'Registration', max: 20 },
  { key: 'vin', label: 'Vehicle identification number', max: 20 },
  { key: 'make', label: 'Year and make', max: 80 },
  { key: 'odometer', label: 'Odometer', max: 20 },
];

/** Customer and vehicle; and which earlier job it came back from. */
function Whose() {
  const { identity, visits, job } = useJobFile();
  const { send } = useEntries();
  const { cameBack } = job;
  const link = (set: typeof cameBack) =>
    send('visit.link', { ...(cameBack ? { was: cameBack } : {}), ...(set ? { set } : {}) });
  return (
    <section className="grp-box col-span-full" aria-label="Whose rig">
      <h2 className="font-cond font-bold text-figure leading-none">Whose rig, and which</h2>
      <p className="quiet">Kept with the shop’s customers; never in a job file, never in a report’s file name.</p>
      <div className="grid grid-cols-2 gap-x-3 gap-y-2 within-phone:grid-cols-1">
        {IDENTITY.map(({ key, label, max }) => (
          <Kept
            key={key}
            label={label}
            value={identity[key] ?? ''}
            max={max}
            onKeep={(text) => send('identity.set', { was: identity, set: { ...identity, [key]: text } })}
          />
        ))}
      </div>
      {visits.length > 0 && (
        <div className="grid gap-1.5 mt-2" role="group" aria-label="Earlier visits">
          <h3 className="font-cond font-bold text-large">Came back from an earlier visit?</h3>
          {visits.map((v) => {
            const on = cameBack?.job === v.number;
            return (
              <div
                key={v.number}
                className={`grid items-center gap-2.5 text-note leading-tight visit${on ? ' on' : ''}`}
              >
                <button
                  type="button"
                  className={`btn${on ? ' btn-neutral' : ''}`}
                  aria-pressed={on}
                  onClick={() => link(on ? undefined : { job: v.number, warranty: false })}
                >
                  {v.number}
                </button>
                <span>
                  <b>{v.verdict ?? 'no verdict'}</b>, {format(new Date(v.at), 'd MMM yyyy')}. {v.complaint}
                </span>
                {on && (
                  <label className="check flex items-center gap-2 min-h-11 font-semibold">
                    <input
                      type="checkbox"
                      className="checkbox"
                      checked={cameBack.warranty}
                      onChange={() => link({ job: v.number, warranty: !cameBack.warranty })}
                    />
                    Warranty
                  </label>
                )}
              </div>
            );
          })}
        </div>
      )}
    </section>
  );
}

/** Where the intake starts the search, and why. */
function Start() {
  const { job, rig, described, words } = useJobFile();
  const { askPriors } = useAnswers();
  const { go } = usePlace();
  const says = (b: PriorLine['because'][number]) =>
    b.clue in COMPLAINTS ? complaintSays(b.clue as Complaint, described) : b.says;
  const told = JSON.stringify([job.complaint.codes, job.intake.facts, rig.id]);
  const { data, isFetching } = useWorked('priors', [told], askPriors);
  const list = data?.slice(0, 8) ?? [];
  return (
    <aside
      className={clsx(
        'start',
        'flex flex-col gap-2',
        'min-h-0 px-3.5 pt-2 pb-3 overflow-y-auto border-l-2 border-ink bg-card',
        'within-phone:border-l-0 within-phone:border-t-2 within-phone:border-ink',
      )}
      aria-label="Where the search starts"
      aria-busy={isFetching}
    >
      <div className="hdln">
        <b className="text-head leading-close">Where the search starts</b>
      </div>
      <p className="quiet">
        Before any reading: how common each fault is, times what the intake says. All assumed; readings end it.
      </p>
      <ol className="grid gap-0">
        {list.map((l) => (
          <li className="py-1.5 border-t-1 border-rule text-note leading-tight" key={l.fault}>
            <div className="grid grid-cols-end items-baseline gap-2.5">
              <b>{l.name}</b>
              <span className="font-cond font-bold text-large whitespace-nowrap">
                {showPercent(l.after)} %{' '}
                <small className="font-medium text-fine text-ink-2">was {showPercent(l.before)} %</small>
              </span>
            </div>
            {(l.because.length > 0 || l.learnt !== 1) && (
              <p className="flex flex-wrap gap-x-2.5 gap-y-0.5 text-ink-2 text-fine">
                {l.learnt !== 1 && <span>this shop’s own jobs ×{Number(l.learnt.toFixed(2))}</span>}
                {l.because.slice(0, 3).map((b) => (
                  <span key={b.clue}>
                    {words(says(b)).toLowerCase()} ×{Number(b.factor.toFixed(2))}
                  </span>
                ))}
              </p>
            )}
          </li>
        ))}
      </ol>
      <button type="button" className="btn" onClick={() => go('readings')}>
        To the readings
      </button>
    </aside>
  );
}
