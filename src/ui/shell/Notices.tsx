'use client';
/**
 * What is not yet safe on the server, what it did not take, and what failed. Always said, where it covers neither keypad
 * nor slip: at the foot of the sheet, on a phone above everything.
 */
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

const ACTIONS = 'flex flex-none items-center gap-3 whitespace-nowrap';

export function Notices({ waiting, trouble, refused, failed, onDismiss, onResend }: NoticesProps) {
  if (!trouble && refused.length === 0 && !failed) return null;
  return (
    <div
      className="notices flex max-h-56 flex-none flex-col gap-1 overflow-y-auto p-1 sm:fixed sm:bottom-2 sm:left-28 sm:z-40 sm:max-w-xl"
      role="status"
      aria-live="polite"
    >
      {trouble && waiting > 0 && (
        <p className="notice flex-wrap">
          <CloudOff size={18} aria-hidden="true" />
          <span>
            {waiting} {waiting === 1 ? 'entry waits' : 'entries wait'} on this device. {trouble}
          </span>
        </p>
      )}
      {failed && (
        <p className="notice bad flex-wrap">
          <TriangleAlert size={18} aria-hidden="true" />
          <span>The calculation failed: {failed}. Readings are still kept. Reload the page to try again.</span>
        </p>
      )}
      {refused.map((r) => (
        <p key={r.id} className="notice bad flex-wrap" role="alert">
          <TriangleAlert size={18} aria-hidden="true" />
          <span className="min-w-0 flex-1 basis-64">
            <b>
              {nameOf(r.type)} {r.aside ? 'is set aside on this device.' : 'was not taken.'}
            </b>{' '}
            {r.reason}
          </span>
          <span className={ACTIONS}>
            {r.aside && (
              <button type="button" className="btn btn-sm" onClick={() => onResend(r.id)}>
                Send again
              </button>
            )}
            {r.aside && (
              <a className="btn btn-sm" href={copyOf(r)} download={`surrik-${r.type}-${r.id.slice(0, 8)}.json`}>
                Save a copy
              </a>
            )}
            <button type="button" className="btn btn-sm" onClick={() => onDismiss(r.id)}>
              {r.aside ? 'Throw away' : 'Understood'}
            </button>
          </span>
        </p>
      ))}
    </div>
  );
}
