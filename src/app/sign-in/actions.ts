'use server';
import { headers } from 'next/headers';
import { redirect } from 'next/navigation';
import { Refused } from '@/server/actor';
import { serverConfig } from '@/server/config';
import { appDb } from '@/server/db';
import { currentActor, sealedSession } from '@/server/http';
import { log } from '@/server/log';
import { acceptInvitation } from '@/server/people';
import { signIn, signOut, signOutEverywhere, type SignedIn } from '@/server/signIn';

export interface SignInState {
  message?: string;
  handle?: string;
}

async function keepSession(signedIn: SignedIn): Promise<void> {
  const session = await sealedSession();
  Object.assign(session, signedIn);
  await session.save();
}

/** Signs in and goes to the board; on refusal says why and keeps the name. */
export async function signInAction(_before: SignInState, form: FormData): Promise<SignInState> {
  const handle = String(form.get('handle') ?? '').slice(0, 80);
  const password = String(form.get('password') ?? '').slice(0, 400);
  if (handle.trim() === '' || password === '') return { message: 'Both a name and a password are needed.', handle };
  try {
    const signedIn = await signIn(appDb(), handle, password, {
      allowDemo: !serverConfig().exposed,
      address: (await headers()).get('x-surrik-address') ?? '',
    });
    await keepSession(signedIn);
  } catch (e) {
    if (e instanceof Refused) return { message: e.message, handle };
    log.error({ err: e }, 'sign-in failed');
    return { message: 'The database does not answer just now. Try again in a moment.', handle };
  }
  redirect('/');
}

export async function signOutAction(): Promise<void> {
  const actor = await currentActor();
  if (actor) await signOut(appDb(), actor);
  (await sealedSession()).destroy();
  redirect('/sign-in');
}

/** Ends every session of the person who asks, on every device. */
export async function signOutEverywhereAction(): Promise<void> {
  const actor = await currentActor();
  if (actor) await signOutEverywhere(appDb(), actor);
  (await sealedSession()).destroy();
  redirect('/sign-in');
}

/** Takes an invitation up: sets the password and goes to the board; on refusal says why. */
export async function acceptInvitationAction(
  token: string,
  _before: { message?: string },
  form: FormData,
): Promise<{ message?: string }> {
  const password = String(form.get('password') ?? '');
  if (password !== String(form.get('again') ?? '')) return { message: 'The two are not the same. Type both again.' };
  try {
    await keepSession(await acceptInvitation(appDb(), token, password));
  } catch (e) {
    if (e instanceof Refused) return { message: e.message };
    log.error({ err: e }, 'invitation failed');
    return { message: 'The database does not answer just now. Try again in a moment.' };
  }
  redirect('/');
}
