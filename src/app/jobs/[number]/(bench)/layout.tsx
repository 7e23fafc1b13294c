import { redirect } from 'next/navigation';
import type { ReactNode } from 'react';
import { currentActor } from '@/server/http';
import { JobBench } from './JobBench';
import { jobOfPage } from '../jobOfPage';

/** A static shell: everything on it comes from the job's snapshot. */
export default async function BenchLayout({
  children,
  params,
}: {
  children: ReactNode;
  params: Promise<{ number: string }>;
}) {
  if (!(await currentActor())) redirect('/sign-in');
  const number = await jobOfPage(params);
  return (
    <>
      <JobBench number={number} />
      {children}
    </>
  );
}
