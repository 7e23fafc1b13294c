import { redirect } from 'next/navigation';
import { currentActor } from '@/server/http';
import { MePage } from './MePage';

export const metadata = { title: 'Your sign-in · Surrik' };

export default async function Page() {
  if (!(await currentActor())) redirect('/sign-in');
  return <MePage />;
}
