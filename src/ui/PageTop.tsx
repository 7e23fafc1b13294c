'use client';
/** Head of a page that is not a job's: the way back, what it is, whose, and what one can do here. */
import { clsx } from 'clsx';
import { ArrowLeft } from 'lucide-react';
import Link from 'next/link';
import type { ReactNode } from 'react';

export function PageTop({
  title,
  name,
  sub,
  children,
}: {
  title: string;
  name: string;
  sub: string;
  children?: ReactNode;
}) {
  return (
    <header
      className={clsx(
        'top',
        'flex items-stretch gap-3',
        'min-w-0 pr-2.5 pl-3 py-1.25 border-b border-ink',
        'max-narrow:flex-wrap within-calcs:col-span-full',
      )}
    >
      <Link href="/" className="btn" aria-label="Back to the jobs">
        <ArrowLeft size={20} aria-hidden="true" />
        Jobs
      </Link>
      <div
        className={clsx(
          'job',
          'flex items-center flex-none gap-2.25',
          'pr-3 border-r border-dashed border-rule',
          'max-narrow:min-h-11.5',
        )}
      >
        <span className="no font-cond font-bold text-display leading-none">{title}</span>
        <span
          className={clsx(
            'max-w-47.5 overflow-hidden',
            'font-cond text-note text-ink-2 text-ellipsis leading-close whitespace-nowrap',
            'max-small:within-calcs:hidden',
          )}
        >
          <b className="block text-large text-ink">{name}</b>
          {sub}
        </span>
      </div>
      {children}
    </header>
  );
}
