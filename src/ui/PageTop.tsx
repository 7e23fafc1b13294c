'use client';
/** Head of a page that is not a job's: the way back, what it is, whose, and what one can do here. */
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
    <header className="top">
      <Link href="/" className="bx" aria-label="Back to the jobs">
        <ArrowLeft size={20} aria-hidden="true" />
        Jobs
      </Link>
      <div className="job">
        <span className="no">{title}</span>
        <span className="nm">
          <b>{name}</b>
          {sub}
        </span>
      </div>
      {children}
    </header>
  );
}
