import { redirect } from 'next/navigation';
import { currentActor } from '@/server/http';
import { CalendarPage } from './CalendarPage';

export const metadata = { title: 'Bays · Surrik' };

export default async function Page({ searchParams }: { searchParams: Promise<{ job?: string }> }) {
  if (!(await currentActor())) redirect('/sign-in');
  const job = Number((await searchParams).job);
  return <CalendarPage {...(Number.isInteger(job) ? { job } : {})} />;
}
