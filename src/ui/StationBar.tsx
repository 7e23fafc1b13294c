import { clsx } from 'clsx';
import type { ReactNode } from 'react';

/** Across the top of a station: what of it is looked at, and what can be done with the whole of it. */
export const StationBar = ({ children }: { children: ReactNode }) => (
  <div
    className={clsx(
      'station-bar flex min-h-12 flex-none items-center gap-2.5 border-b-2 border-ink px-2.5 py-1 max-[1100px]:flex-wrap',
      'max-small:within-logbook:flex-wrap within-logbook:flex-nowrap',
    )}
  >
    {children}
  </div>
);
