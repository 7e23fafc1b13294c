import { clsx } from 'clsx';
import type { Metadata } from 'next';
import Link from 'next/link';
import { appDb } from '@/server/db';
import { currentDevice } from '@/server/http';
import { peopleOfDevice } from '@/server/quickSwitch';
import { SignInForm } from './SignInForm';

export const metadata: Metadata = { title: 'Sign in' };

export default async function SignInPage() {
  const device = await currentDevice();
  const known = device ? await peopleOfDevice(appDb(), device) : [];
  return (
    <main className="grid place-items-center min-h-dvh p-5">
      <section
        className={clsx(
          'signin-card',
          'relative grid gap-3',
          'pr-6.5 pl-10 pt-5.5 pb-5 border-2 border-ink rounded bg-card',
          'text-plain leading-tight',
        )}
        aria-labelledby="signin-title"
      >
        <h1 className="font-cond font-bold leading-none" id="signin-title">
          Surrik
        </h1>
        <p>The bench beside the rig: where to put the leads, what they should read, what is wrong.</p>
        <SignInForm />
        {known.length > 0 && (
          <Link href="/switch" className="btn">
            With a PIN
          </Link>
        )}
        <p className="quiet">The demo sign-in is printed where Surrik was started.</p>
      </section>
    </main>
  );
}
