'use client';
/**
 * What is not yet safe on the server, what it did not take, and what failed. Always said, and with room of its own
 * (`BenchScreen` has it).
 */
import { Clock, CloudOff, ImageUp, TriangleAlert } from 'lucide-react';
import { counted } from '../../core/units/counted';
import { undoWords } from '../../core/job/applyCommand';

/** “3 Dec, 14:05”. Of the platform: a library for it would be a fiftieth of the page. */
const SINCE = new Intl.DateTimeFormat('en-GB', { day: 'numeric', month: 'short', hour: '2-digit', minute: '2-digit' });

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
  /** Somebody else decided the same meanwhile: one of the two is chosen. */
  conflict?: boolean;
  /** The entry itself, for a copy. */
  command: unknown;
}

/** A photo whose file is not with the server yet, or will not be. */
export interface PhotoOnItsWay {
  id: string;
  caption: string;
  refused?: string;
}

export interface NoticesProps {
  waiting: number;
  /** When what is shown was said, in ms, while the server does not answer. */
  silentSince?: number | undefined;
  /** ms this device's clock is ahead of the server's. */
  clockAhead?: number;
  /** Entries this device has no room for: they are in this page alone. */
  unsafe?: number;
  trouble: string | undefined;
  refused: readonly NotTaken[];
  failed: string | undefined;
  /** What was tried and is not this person’s to do. */
  denied: string | undefined;
  onSeenDenied(): void;
  photos?: readonly PhotoOnItsWay[];
  onDismissPhoto?(id: string): void;
  onDismiss(id: string): void;
  onResend(id: string): void;
}

/** A file of its own with what was entered, so that nothing is lost with the device. */
const copyOf = (entry: NotTaken): string =>
  `data:application/json,${encodeURIComponent(JSON.stringify(entry.command, null, 2))}`;

/** ms a clock may be off without a word: an answer is on its way for some seconds, and a minute harms no record. */
const CLOCK_OFF_MS = 5 * 60_000;
const clockInWords = (ahead: number): string | undefined => {
  if (Math.abs(ahead) < CLOCK_OFF_MS) return undefined;
  const minutes = Math.round(Math.abs(ahead) / 60_000);
  const by =
    minutes < 120
      ? counted(minutes, 'minute')
      : minutes < 2880
        ? counted(Math.round(minutes / 60), 'hour')
        : counted(Math.round(minutes / 1440), 'day');
  return `${by} ${ahead > 0 ? 'fast' : 'slow'}`;
};
const NO_PHOTOS: readonly PhotoOnItsWay[] = [];
const ACTIONS = 'flex flex-none items-center gap-3 whitespace-nowrap';

export function Notices({
  waiting,
  silentSince,
  unsafe = 0,
  clockAhead = 0,
  photos = NO_PHOTOS,
  onDismissPhoto,
  trouble,
  refused,
  failed,
  denied,
  onSeenDenied,
  onDismiss,
  onResend,
}: NoticesProps) {
  const clock = clockInWords(clockAhead);
  if (
    !clock &&
    !trouble &&
    refused.length === 0 &&
    !failed &&
    !denied &&
    silentSince === undefined &&
    unsafe === 0 &&
    photos.length === 0
  )
    return null;
  return (
    <div
      className="notices flex max-h-56 flex-none flex-col gap-1 overflow-y-auto p-1 sm:max-h-36 sm:border-t-2"
      role="status"
      aria-live="polite"
    >
      {silentSince !== undefined && !(trouble && waiting > 0) && (
        <p className="notice flex-wrap sm:py-1">
          <CloudOff size={18} aria-hidden="true" />
          <span className="min-w-0 flex-1">
            No answer from the server since {SINCE.format(silentSince)}. Go on: what you enter is kept here and sent
            later.
          </span>
        </p>
      )}
      {clock && (
        <p className="notice flex-wrap sm:py-1">
          <Clock size={18} aria-hidden="true" />
          <span className="min-w-0 flex-1">
            This device’s clock is {clock}. Set it right: the times in the record come from it.
          </span>
        </p>
      )}
      {unsafe > 0 && (
        <p className="notice bad flex-wrap sm:py-1" role="alert">
          <TriangleAlert size={18} aria-hidden="true" />
          <span className="min-w-0 flex-1">
            <b>This device has no room to keep {unsafe === 1 ? 'an entry' : `${unsafe} entries`}.</b> Leave this page
            open until it is sent, or make room on the device.
          </span>
        </p>
      )}
      {trouble && waiting > 0 && (
        <p className="notice flex-wrap sm:py-1">
          <CloudOff size={18} aria-hidden="true" />
          <span className="min-w-0 flex-1">
            {waiting} {waiting === 1 ? 'entry waits' : 'entries wait'} on this device. {trouble}
          </span>
        </p>
      )}
      {failed && (
        <p className="notice bad flex-wrap sm:py-1">
          <TriangleAlert size={18} aria-hidden="true" />
          <span>The calculation failed: {failed}. Readings are still kept. Reload the page to try again.</span>
        </p>
      )}
      {photos.some((p) => p.refused === undefined) && (
        <p className="notice flex-wrap sm:py-1">
          <ImageUp size={18} aria-hidden="true" />
          <span className="min-w-0 flex-1">
            {counted(photos.filter((p) => p.refused === undefined).length, 'photo')} on this device, sent as soon as the
            server takes {photos.length === 1 ? 'it' : 'them'}.
          </span>
        </p>
      )}
      {photos.map(
        (p) =>
          p.refused !== undefined && (
            <p key={p.id} className="notice bad flex-wrap border-fail" role="alert">
              <TriangleAlert size={18} aria-hidden="true" />
              <span className="min-w-0 flex-1 basis-64">
                <b>The photo {p.caption === '' ? '' : `“${p.caption}” `}was not taken.</b> {p.refused}
              </span>
              <span className={ACTIONS}>
                <button type="button" className="btn btn-sm" onClick={() => onDismissPhoto?.(p.id)}>
                  Throw away
                </button>
              </span>
            </p>
          ),
      )}
      {denied && (
        <p className="notice bad flex-wrap border-fail" role="alert">
          <TriangleAlert size={18} aria-hidden="true" />
          <span className="min-w-0 flex-1 basis-64">
            <b>Nothing was entered.</b> {denied}
          </span>
          <span className={ACTIONS}>
            <button type="button" className="btn btn-sm" onClick={onSeenDenied}>
              Understood
            </button>
          </span>
        </p>
      )}
      {refused.map((r) => (
        <p key={r.id} className="notice bad flex-wrap border-fail" role="alert">
          <TriangleAlert size={18} aria-hidden="true" />
          <span className="min-w-0 flex-1 basis-64">
            <b>
              {nameOf(r.type)} {r.aside ? 'is set aside on this device.' : 'was not taken.'}
            </b>{' '}
            {r.reason}
          </span>
          <span className={ACTIONS}>
            {(r.aside || r.conflict) && (
              <button type="button" className="btn btn-sm" onClick={() => onResend(r.id)}>
                {r.conflict ? 'Put mine in its place' : 'Send again'}
              </button>
            )}
            {r.aside && (
              <a className="btn btn-sm" href={copyOf(r)} download={`surrik-${r.type}-${r.id.slice(0, 8)}.json`}>
                Save a copy
              </a>
            )}
            <button type="button" className="btn btn-sm" onClick={() => onDismiss(r.id)}>
              {r.aside ? 'Throw away' : r.conflict ? 'Leave theirs' : 'Understood'}
            </button>
          </span>
        </p>
      ))}
    </div>
  );
}
