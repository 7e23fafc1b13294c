import { redirect } from 'next/navigation';
import { currentActor } from '@/server/http';
import { WiringPage } from './WiringPage';
import { jobOfPage } from '../jobOfPage';

export default async function Page({ params }: { params: Promise<{ number: string }> }) {
  if (!(await currentActor())) redirect('/sign-in');
  return <WiringPage number={await jobOfPage(params)} />;
}
