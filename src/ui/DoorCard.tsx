/** A card by the door: where one signs in, takes up an invitation, or hands the tablet on. */
import { clsx } from 'clsx';
import type { ReactNode } from 'react';

export function DoorCard({ title, children }: { title: string; children: ReactNode }) {
  return (
    <main className="grid place-items-center min-h-dvh p-5">
      <section
        className={clsx(
          'signin-card',
          'relative grid gap-3',
          'pr-6.5 pl-10 pt-5.5 pb-5 border-2 border-ink rounded bg-card',
          'text-plain leading-tight',
        )}
        aria-labelledby="door-title"
      >
        <h1 className="font-cond font-bold leading-none" id="door-title">
          {title}
        </h1>
        {children}
      </section>
    </main>
  );
}
