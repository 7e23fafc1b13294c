'use client';
/**
 * A station's own slip: the one next press, why, and what to mind. Beside the work where there is room; on a narrow screen
 * a bar under it, the rest behind a button. Cautions are never the part that is cut.
 */
import { clsx } from 'clsx';
import { ChevronDown, ChevronUp, TriangleAlert } from 'lucide-react';
import { useState, type ReactNode } from 'react';
import { NARROW, useMedia } from '../useMedia';

interface SlipProps {
  /** The next press, or a line in its place. */
  action: ReactNode;
  children?: ReactNode;
  cautions: readonly string[];
}

export function Cautions({ list }: { list: readonly string[] }) {
  return (
    <ul className="grid gap-1.25">
      {list.map((c) => (
        <li className="grid grid-cols-icon items-start gap-1.5 text-fine leading-tight" key={c}>
          <TriangleAlert size={17} aria-hidden="true" />
          <span>{c}</span>
        </li>
      ))}
    </ul>
  );
}

export function Slip({ action, children, cautions }: SlipProps) {
  const narrow = useMedia(NARROW);
  const [open, setOpen] = useState(false);
  if (!narrow)
    return (
      <aside
        className={clsx(
          'slip',
          'relative flex flex-col gap-1.75',
          'min-h-0 pr-3 pl-5.25 pt-2.25 pb-2 overflow-hidden border-l-2 border-ink bg-card',
        )}
        aria-label="Bench slip"
      >
        <h2 className="flex justify-between items-baseline font-cond font-bold text-head leading-none">Bench slip</h2>
        {action}
        {children}
        {cautions.length > 0 && (
          <>
            <h3>Cautions</h3>
            <Cautions list={cautions} />
          </>
        )}
      </aside>
    );
  const Chevron = open ? ChevronDown : ChevronUp;
  return (
    <aside
      className="sticky bottom-0 z-10 flex max-h-full flex-col gap-2 border-t-2 border-base-content bg-base-100 p-2"
      aria-label="Bench slip"
    >
      {open ? (
        <div className="flex min-h-0 flex-col gap-2 overflow-y-auto">
          {children}
          <Cautions list={cautions} />
        </div>
      ) : (
        <Cautions list={cautions.slice(0, 1)} />
      )}
      <div className="flex items-stretch gap-2">
        <div className="min-w-0 flex-1">{action}</div>
        <button
          type="button"
          className="btn h-auto min-h-14 w-20 flex-col gap-0 border-2 border-base-content font-cond text-lg"
          aria-expanded={open}
          onClick={() => setOpen(!open)}
        >
          <Chevron size={20} aria-hidden="true" />
          {open ? 'Less' : 'Why'}
        </button>
      </div>
    </aside>
  );
}
