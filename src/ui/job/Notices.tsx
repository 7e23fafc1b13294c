'use client';
/** What is not yet safe on the server, what it refused, and what failed: always said, never in the way. */
import { CloudOff, TriangleAlert } from 'lucide-react';

const NAMES: Record<string, string> = {
  'state.set': 'The change of what the rig is doing',
  'lead.move': 'The move of the black lead',
  'reading.keep': 'A reading',
  'reading.retract': 'Taking a reading back',
  'reading.restore': 'Restoring a reading',
  'note.add': 'A note',
  'note.retract': 'Taking a note back',
  'verdict.declare': 'Your verdict',
  'verdict.withdraw': 'Taking the verdict back',
  'repair.record': 'The repair',
  'repair.withdraw': 'Taking the repair back',
  'job.set-status': 'The status',
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
            <b>{NAMES[r.type] ?? r.type} was not taken.</b> {r.reason}
          </span>
          <button type="button" className="inline" onClick={() => onDismiss(r.id)}>
            Understood
          </button>
        </p>
      ))}
    </div>
  );
}
