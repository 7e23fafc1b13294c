import { redirect } from 'next/navigation';
import { currentActor } from '@/server/http';
import { WiringPage } from './WiringPage';

export default async function Page({ params }: { params: Promise<{ number: string }> }) {
  if (!(await currentActor())) redirect('/sign-in');
  return <WiringPage number={Number((await params).number)} />;
}
