import { redirect } from 'next/navigation';
import { currentActor } from '@/server/http';
import { NewJob } from './NewJob';

export default async function NewJobPage() {
  if (!(await currentActor())) redirect('/sign-in');
  return <NewJob />;
}
