'use client';
/** A file the server makes of the job. What waits on this device goes there first, so that the newest is in it. */
import type { ReactNode } from 'react';
import { MadeFile } from './MadeFile';
import { useEntries } from './shell/jobPage';

export function ServerFile({ href, icon, children }: { href: string; icon?: ReactNode; children: ReactNode }) {
  const { waiting } = useEntries();
  return (
    <MadeFile
      href={href}
      {...(icon === undefined ? {} : { icon })}
      first={{ is: waiting === 0, says: 'Sending what you entered first …' }}
    >
      {children}
    </MadeFile>
  );
}
