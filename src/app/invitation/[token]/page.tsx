import { clsx } from 'clsx';
import type { Metadata } from 'next';
import Link from 'next/link';
import { appDb } from '@/server/db';
import { invitationOf } from '@/server/people';
import { InvitationForm } from './InvitationForm';

export const metadata: Metadata = { title: 'Invitation · Surrik', referrer: 'no-referrer' };

/** Where a one-time link leads: a password is set, and one is in. */
export default async function InvitationPage({ params }: { params: Promise<{ token: string }> }) {
  const { token } = await params;
  const found = await invitationOf(appDb(), token);
  return (
    <main className="grid place-items-center min-h-dvh p-5">
      <section
        className={clsx(
          'signin-card',
          'relative grid gap-3',
          'pr-6.5 pl-10 pt-5.5 pb-5 border-2 border-ink rounded bg-card',
          'text-plain leading-tight',
        )}
        aria-labelledby="invitation-title"
      >
        {found ? (
          <>
            <h1 className="font-cond font-bold leading-none" id="invitation-title">
              Welcome, {found.name}
            </h1>
            <p>
              You work in {found.shop} and sign in as <b>{found.handle}</b>. Choose a password: at least twelve
              characters. A few words in a row are easy to type and hard to guess.
            </p>
            <InvitationForm token={token} handle={found.handle} />
          </>
        ) : (
          <>
            <h1 className="font-cond font-bold leading-none" id="invitation-title">
              This link does not work any more
            </h1>
            <p>It was used, has run out, or a newer one was made. Ask the owner of the shop for another.</p>
            <Link className="btn" href="/sign-in">
              Sign in
            </Link>
          </>
        )}
      </section>
    </main>
  );
}
