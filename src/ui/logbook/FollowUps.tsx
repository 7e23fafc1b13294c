'use client';
/** What is to be looked at again, and when; a file for the calendar. */
import { clsx } from 'clsx';
import { addDays, addMonths, format, isBefore, startOfToday } from 'date-fns';
import { CalendarPlus, Check } from 'lucide-react';
import { useState } from 'react';
import type { FollowUp } from '../../core/job/job';
import { useJobFile, useEntries } from '../shell/jobPage';
import { ServerFile } from '../ServerFile';
import { useDraft } from '../draft';

/** What a shop usually comes back to: common practice. */
const USUAL: readonly { what: string; after: (from: Date) => Date }[] = [
  { what: 'After the first trip: lowest volts seen, did the fridge stay cold', after: (d) => addDays(d, 21) },
  { what: 'Re-torque the heavy studs', after: (d) => addMonths(d, 1) },
  { what: 'Battery tray washed, water level', after: (d) => addMonths(d, 6) },
  { what: 'Yearly drop across the contact, with its amps', after: (d) => addMonths(d, 12) },
];

export function FollowUps() {
  const { job } = useJobFile();
  const { send, actor } = useEntries();
  const [what, setWhat, forget] = useDraft(`${job.number}/follow-up`, '');
  const [due, setDue] = useState('');
  const list = [...(job.followUps ?? [])].sort((a, b) => (a.due < b.due ? -1 : 1));
  const add = (text: string, on: string) =>
    send('followUp.set', { set: { id: crypto.randomUUID(), due: on, what: text.trim(), by: actor } });
  const valid = what.trim() !== '' && /^\d{4}-\d{2}-\d{2}$/.test(due);
  return (
    <div className="grid content-start gap-2.5 max-w-245 px-4 py-3">
      {list.length === 0 && (
        <p className="waiting">Nothing is to be looked at again yet. What most shops come back to is below.</p>
      )}
      {list.map((f) => (
        <Row key={f.id} item={f} />
      ))}
      <form
        className="chk-do"
        onSubmit={(e) => {
          e.preventDefault();
          if (!valid) return;
          add(what, due);
          forget();
        }}
      >
        <label className="field wide flex-1 w-32 min-w-37.5">
          <span>Look at</span>
          <input className="input" maxLength={200} value={what} onChange={(e) => setWhat(e.target.value)} />
        </label>
        <label className="field w-32">
          <span>On</span>
          <input className="input" type="date" value={due} onChange={(e) => setDue(e.target.value)} />
        </label>
        <button type="submit" className="btn btn-neutral" disabled={!valid}>
          Add
        </button>
      </form>
      <div className="grid" role="group" aria-label="Usual follow-ups">
        {USUAL.filter((u) => !list.some((f) => f.what === u.what)).map((u) => {
          const on = u.after(new Date());
          return (
            <button
              key={u.what}
              type="button"
              className={clsx(
                'grid grid-cols-end items-center flex-none gap-x-2.5 gap-y-0',
                'min-h-11 -my-0.75 border-t-1 border-rule',
                'text-left text-note',
              )}
              onClick={() => add(u.what, format(on, 'yyyy-MM-dd'))}
            >
              <span>{u.what}</span>
              <b className="font-cond text-plain whitespace-nowrap">{format(on, 'd MMM yyyy')}</b>
            </button>
          );
        })}
      </div>
      {list.length > 0 && (
        <ServerFile
          href={`/api/jobs/${job.number}/follow-ups.ics`}
          icon={<CalendarPlus size={20} aria-hidden="true" />}
        >
          Calendar file
        </ServerFile>
      )}
    </div>
  );
}

function Row({ item }: { item: FollowUp }) {
  const { send } = useEntries();
  const late = item.done === undefined && isBefore(new Date(`${item.due}T00:00:00`), startOfToday());
  return (
    <div
      className={clsx(
        'flex items-center gap-2',
        'min-h-12 py-1 border-b-1 border-rule',
        'text-plain',
        `fu${item.done ? ' done' : ''}${late ? ' late' : ''}`,
      )}
    >
      <span className="flex-1 within-done:text-ink-2 within-done:line-through">
        <b className="mr-2 font-cond text-large">{format(new Date(`${item.due}T00:00:00`), 'd MMM yyyy')}</b>{' '}
        {item.what}
        <small className="block text-ink-2 text-fine">
          {item.done ? `done ${format(new Date(item.done), 'd MMM yyyy')}` : late ? 'overdue' : ''} {item.by}
        </small>
      </span>
      {item.done === undefined && (
        <button
          type="button"
          className="btn btn-sm"
          onClick={() => send('followUp.set', { was: item, set: { ...item, done: new Date().toISOString() } })}
        >
          <Check size={16} aria-hidden="true" /> Done
        </button>
      )}
      <button
        type="button"
        className="btn btn-sm"
        onClick={() => send('followUp.set', { was: item })}
        aria-label={`Take out: ${item.what}`}
      >
        Take out
      </button>
    </div>
  );
}
