import { redirect } from 'next/navigation';
import { currentActor } from '@/server/http';
import { Report } from './Report';
import { jobOfPage } from '../jobOfPage';

export default async function ReportPage({ params }: { params: Promise<{ number: string }> }) {
  if (!(await currentActor())) redirect('/sign-in');
  return <Report number={await jobOfPage(params)} />;
}
