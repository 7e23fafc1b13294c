import type { Metadata } from 'next';
import Link from 'next/link';
import { appDb } from '@/server/db';
import { invitationOf } from '@/server/people';
import { DoorCard } from '@/ui/DoorCard';
import { InvitationForm } from './InvitationForm';

export const metadata: Metadata = { title: 'Invitation · Surrik', referrer: 'no-referrer' };

/** Where a one-time link leads: a password is set, and one is in. */
export default async function InvitationPage({ params }: { params: Promise<{ token: string }> }) {
  const { token } = await params;
  const found = await invitationOf(appDb(), token);
  if (!found)
    return (
      <DoorCard title="This link does not work any more">
        <p>It was used, has run out, or a newer one was made. Ask the owner of the shop for another.</p>
        <Link className="btn" href="/sign-in">
          Sign in
        </Link>
      </DoorCard>
    );
  return (
    <DoorCard title={`Welcome, ${found.name}`}>
      <p>
        You work in {found.shop} and sign in as <b>{found.handle}</b>. Choose a password: at least twelve characters. A
        few words in a row are easy to type and hard to guess.
      </p>
      <InvitationForm token={token} handle={found.handle} />
    </DoorCard>
  );
}
