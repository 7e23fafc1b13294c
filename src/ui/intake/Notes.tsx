'use client';
/** Notes of a job: written here, or sent over from the calculators; taken out and put back, never lost. */
import { clsx } from 'clsx';
import { format } from 'date-fns';
import { Plus, Undo2, X } from 'lucide-react';
import { useJobFile, useEntries } from '../shell/jobPage';
import { useDraft } from '../draft';

export function Notes() {
  const { job } = useJobFile();
  const { send } = useEntries();
  const [typed, setTyped, forget] = useDraft(`${job.number}/note`, '');
  const notes = job.observations.filter((o) => o.kind === 'note').sort((a, b) => b.at.localeCompare(a.at));
  const add = () => {
    if (typed.trim() === '') return;
    send('note.add', { id: crypto.randomUUID(), text: typed.trim() });
    forget();
  };
  return (
    <section className="grp-box col-span-full" aria-label="Notes">
      <h2 className="font-cond font-bold text-figure leading-none">Notes</h2>
      <div className="grid grid-cols-end items-end gap-2">
        <label className="field relative">
          <span className="sr-only">A new note</span>
          <textarea
            className="textarea w-full"
            rows={2}
            maxLength={2000}
            value={typed}
            placeholder="What you want to find again"
            onChange={(e) => setTyped(e.target.value)}
          />
        </label>
        <button type="button" className="btn" onClick={add} disabled={typed.trim() === ''}>
          <Plus size={18} aria-hidden="true" />
          Add
        </button>
      </div>
      <ul className="notelist grid gap-0">
        {notes.map((n) => (
          <li
            key={n.id}
            className={clsx(
              'grid grid-cols-end gap-x-2.5 gap-y-0',
              'py-1.75 border-t-1 border-rule',
              'text-note leading-tight',
              n.retracted ? 'out' : '',
            )}
          >
            <p>{n.text}</p>
            <small className="text-ink-2 text-fine">
              {n.by}, {format(new Date(n.at), 'd MMM, HH:mm')}
              {n.retracted ? ', taken out' : ''}
            </small>
            <button
              type="button"
              className="btn icon"
              onClick={() => send(n.retracted ? 'note.restore' : 'note.retract', { id: n.id })}
              aria-label={n.retracted ? 'Put the note back' : 'Take the note out'}
            >
              {n.retracted ? <Undo2 size={18} aria-hidden="true" /> : <X size={18} aria-hidden="true" />}
            </button>
          </li>
        ))}
      </ul>
    </section>
  );
}
