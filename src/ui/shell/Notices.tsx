'use client';
/** What is not yet safe on the server, what it refused, and what failed: always said, never in the way. */
import type { CommandType } from '../../core/job/command';
import { UNDO_WORDS } from './undoWords';
import { CloudOff, TriangleAlert } from 'lucide-react';

/** "The verdict", "Taking the reading back". */
const nameOf = (type: string): string => {
  const words = UNDO_WORDS[type as CommandType] ?? type;
  return words.charAt(0).toUpperCase() + words.slice(1);
};

export interface NoticesProps {
  waiting: number;
  trouble: string | undefined;
  refused: readonly { id: string; type: string; reason: string }[];
  failed: string | undefined;
  onDismiss(id: string): void;
}

export function Notices({ waiting, trouble, refused, failed, onDismiss }: NoticesProps) {
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
            <b>{nameOf(r.type)} was not taken.</b> {r.reason}
          </span>
          <button type="button" className="inline" onClick={() => onDismiss(r.id)}>
            Understood
          </button>
        </p>
      ))}
    </div>
  );
}
