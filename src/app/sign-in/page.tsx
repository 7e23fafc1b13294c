import type { Metadata } from 'next';
import Link from 'next/link';
import { appDb } from '@/server/db';
import { currentDevice } from '@/server/http';
import { peopleOfDevice } from '@/server/quickSwitch';
import { DoorCard } from '@/ui/DoorCard';
import { SignInForm } from './SignInForm';

export const metadata: Metadata = { title: 'Sign in' };

export default async function SignInPage() {
  const device = await currentDevice();
  const known = device ? await peopleOfDevice(appDb(), device) : [];
  return (
    <DoorCard title="Surrik">
      <p>The bench beside the rig: where to put the leads, what they should read, what is wrong.</p>
      <SignInForm />
      {known.length > 0 && (
        <Link href="/switch" className="btn">
          With a PIN
        </Link>
      )}
      <p className="quiet">The demo sign-in is printed where Surrik was started.</p>
    </DoorCard>
  );
}
