import { redirect } from 'next/navigation';
import { appDb } from '@/server/db';
import { currentActor } from '@/server/http';
import { boardPage } from '@/server/job/board';
import { Board } from './Board';

/** The job board is the home page. */
export default async function HomePage() {
  const actor = await currentActor();
  if (!actor) redirect('/sign-in');
  return <Board initial={(await boardPage(appDb(), actor))!} />;
}
