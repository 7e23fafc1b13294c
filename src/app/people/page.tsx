import { redirect } from 'next/navigation';
import { currentActor } from '@/server/http';
import { PeoplePage } from './PeoplePage';

export const metadata = { title: 'People · Surrik' };

export default async function Page() {
  if (!(await currentActor())) redirect('/sign-in');
  return <PeoplePage />;
}
