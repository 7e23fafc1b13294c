'use client';
/** The signature under a proven rig; or, once signed, who signed and how the record is opened again. */
import { CircleCheck, PenLine } from 'lucide-react';
import Link from 'next/link';
import { useState } from 'react';
import { standingSignOff } from '../../core/job/job';
import { format } from 'date-fns';
import { useJobFile, useEntries } from '../shell/jobPage';

const REASON_MIN = 8;

export function SignBox({ proven }: { proven: boolean }) {
  const { job } = useJobFile();
  const { send, whyNot } = useEntries();
  const [reason, setReason] = useState<string>();
  const signed = standingSignOff(job);
  const earlier = (job.signOffs ?? []).filter((s) => s.reopened);
  return (
    <>
      {proven && (
        <div className="stampbox">
          <span className="stamp">
            <CircleCheck size={20} aria-hidden="true" /> Right now, every proof in band
          </span>
          <Link className="btn" href={`/jobs/${job.number}/report`}>
            Open the one-page report
          </Link>
          <Link className="btn" href={`/jobs/${job.number}/card`}>
            Owner’s card
          </Link>
        </div>
      )}
      {signed && (
        <div className="signed grid gap-2.5 p-3 border-t-2 border-ink text-plain">
          <p>
            <PenLine size={18} aria-hidden="true" /> Signed by <b>{signed.by}</b>,{' '}
            {format(new Date(signed.at), 'd MMM yyyy, HH:mm')}: “{signed.words}” The record is locked.
          </p>
          {signed.elsewhere && <p>It came with a file from elsewhere: who signed there was not checked here.</p>}
          {whyNot('record.reopen', { id: signed.id }) ? (
            <p>To open it again: {whyNot('record.reopen', { id: signed.id })}</p>
          ) : reason === undefined ? (
            <button type="button" className="btn" onClick={() => setReason('')}>
              Open the record again
            </button>
          ) : (
            <form
              className="reopen flex flex-wrap items-end gap-2"
              onSubmit={(e) => {
                e.preventDefault();
                send('record.reopen', { id: signed.id, reason: reason.trim(), revision: crypto.randomUUID() });
                setReason(undefined);
              }}
            >
              <label className="field flex-1 min-w-60">
                <span>Why it is opened again (it makes a revision of its own)</span>
                <input className="input" maxLength={400} value={reason} onChange={(e) => setReason(e.target.value)} />
              </label>
              <button type="submit" className="btn btn-neutral" disabled={reason.trim().length < REASON_MIN}>
                Open it
              </button>
              <button type="button" className="btn" onClick={() => setReason(undefined)}>
                Leave it locked
              </button>
            </form>
          )}
        </div>
      )}
      {earlier.map((s) => (
        <p key={s.id} className="quiet px-3 py-2.5">
          Signed {format(new Date(s.at), 'd MMM yyyy, HH:mm')} by {s.by}, opened again by {s.reopened!.by}:{' '}
          {s.reopened!.reason}
        </p>
      ))}
    </>
  );
}
