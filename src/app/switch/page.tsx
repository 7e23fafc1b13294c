import type { Metadata } from 'next';
import { appDb } from '@/server/db';
import { currentActor, currentDevice } from '@/server/http';
import { peopleOfDevice } from '@/server/quickSwitch';
import { SwitchPage } from './SwitchPage';

export const metadata: Metadata = { title: 'Who is here? · Surrik' };

/** Where a shared tablet changes hands: who it knows, and a PIN. */
export default async function Page({ searchParams }: { searchParams: Promise<{ to?: string | string[] }> }) {
  const { to } = await searchParams;
  const device = await currentDevice();
  const people = device ? await peopleOfDevice(appDb(), device) : [];
  const actor = await currentActor();
  // A path of ours, never another site’s.
  const back = typeof to === 'string' && /^\/(?!\/)[\w/-]*$/.test(to) ? to : '/';
  return <SwitchPage people={people} now={actor?.name} to={back} />;
}
