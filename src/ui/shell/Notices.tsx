'use client';
/** What is not yet safe on the server, what it did not take, and what failed: always said, never in the way. */
import { CloudOff, TriangleAlert } from 'lucide-react';
import { undoWords } from '../../core/job/applyCommand';

/** "The verdict", "Taking the reading back". */
const nameOf = (type: string): string => {
  const words = undoWords(type);
  return words.charAt(0).toUpperCase() + words.slice(1);
};

/** An entry the server did not take. */
export interface NotTaken {
  id: string;
  type: string;
  reason: string;
  /** It may go through later: not refused, only set aside. */
  aside: boolean;
  /** The entry itself, for a copy. */
  command: unknown;
}

export interface NoticesProps {
  waiting: number;
  trouble: string | undefined;
  refused: readonly NotTaken[];
  failed: string | undefined;
  onDismiss(id: string): void;
  onResend(id: string): void;
}

/** A file of its own with what was entered, so that nothing is lost with the device. */
const copyOf = (entry: NotTaken): string =>
  `data:application/json,${encodeURIComponent(JSON.stringify(entry.command, null, 2))}`;

export function Notices({ waiting, trouble, refused, failed, onDismiss, onResend }: NoticesProps) {
  if (!trouble && refused.length === 0 && !failed) return null;
  return (
    <div className="notices" role="status" aria-live="polite">
      {trouble && waiting > 0 && (
        <p className="notice">
          <CloudOff size={18} aria-hidden="true" />
          <span>
            {waiting} {waiting === 1 ? 'entry waits' : 'entries wait'} on this device. {trouble}
          </span>
        </p>
      )}
      {failed && (
        <p className="notice bad">
          <TriangleAlert size={18} aria-hidden="true" />
          <span>The calculation failed: {failed}. Readings are still kept. Reload the page to try again.</span>
        </p>
      )}
      {refused.map((r) => (
        <p key={r.id} className="notice bad" role="alert">
          <TriangleAlert size={18} aria-hidden="true" />
          <span>
            <b>
              {nameOf(r.type)} {r.aside ? 'is set aside on this device.' : 'was not taken.'}
            </b>{' '}
            {r.reason}
          </span>
          {r.aside && (
            <button type="button" className="inline" onClick={() => onResend(r.id)}>
              Send again
            </button>
          )}
          {r.aside && (
            <a className="inline" href={copyOf(r)} download={`surrik-${r.type}-${r.id.slice(0, 8)}.json`}>
              Save a copy
            </a>
          )}
          <button type="button" className="inline" onClick={() => onDismiss(r.id)}>
            {r.aside ? 'Throw away' : 'Understood'}
          </button>
        </p>
      ))}
    </div>
  );
}
