'use client';
/** What one sees, hears and feels: questions with yes or no, each evidence like a reading. */
import { useState } from 'react';
import { observationsOf } from '../../core/diagnose/observations';
import { standingAnswers } from '../../core/formats/job';
import { useBench } from './bench';
import { Sheet } from './Sheet';

export function SeenAndHeard() {
  const { job, rig, epoch, send } = useBench();
  const [open, setOpen] = useState(false);
  const answers = standingAnswers(job, epoch);
  const answer = (what: string, ask: string, value: boolean) => {
    const old = answers.find((a) => a.what === what);
    if (old) send('note.retract', { id: old.id });
    // The same answer pressed again takes it back.
    if (old?.answer !== value) send('observation.keep', { id: crypto.randomUUID(), what, answer: value, text: ask });
  };
  return (
    <>
      <button type="button" className="bx seen-btn" onClick={() => setOpen(true)}>
        Seen and heard
        <small>{answers.length === 0 ? 'click, wedge, blown fuse' : `${answers.length} answered`}</small>
      </button>
      {open && (
        <Sheet title="What do you see and hear?" onClose={() => setOpen(false)}>
          <p className="lead-in">Answer what you looked at; leave the rest. Each answer counts as evidence, less than a measurement. Press it again to take it back.</p>
          <div className="asks">
            {observationsOf(rig).map((o) => {
              const now = answers.find((a) => a.what === o.id)?.answer;
              return (
                <div key={o.id} className="ask" role="group" aria-label={o.ask}>
                  <span>
                    <b>{o.ask}</b>
                    <span>{o.how}</span>
                  </span>
                  {[true, false].map((value) => (
                    <button key={String(value)} type="button" className={`bx${now === value ? ' ink' : ''}`} aria-pressed={now === value} onClick={() => answer(o.id, o.ask, value)}>
                      {value ? 'Yes' : 'No'}
                    </button>
                  ))}
                </div>
              );
            })}
          </div>
        </Sheet>
      )}
    </>
  );
}
