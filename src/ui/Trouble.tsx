import type { ReactNode } from 'react';

/** A line across a station: something is wrong or worth knowing, and what to do about it. */
export const Trouble = ({ role = 'alert', children }: { role?: 'alert' | 'note'; children: ReactNode }) => (
  <p className="m-0 flex-none border-b-2 border-ink bg-warn-tint px-3 py-2 leading-snug" role={role}>
    {children}
  </p>
);
