'use server';
import { redirect } from 'next/navigation';
import { Refused } from '@/server/actor';
import { serverConfig } from '@/server/config';
import { appDb } from '@/server/db';
import { currentActor, sealedSession } from '@/server/http';
import { signIn, signOut } from '@/server/signIn';

export interface SignInState {
  message?: string;
  handle?: string;
}

/** Signs in and goes to the board; on refusal says why and keeps the name. */
export async function signInAction(_before: SignInState, form: FormData): Promise<SignInState> {
  const handle = String(form.get('handle') ?? '').slice(0, 80);
  const password = String(form.get('password') ?? '').slice(0, 400);
  if (handle.trim() === '' || password === '') return { message: 'Both a name and a password are needed.', handle };
  try {
    const signedIn = await signIn(appDb(), handle, password, { allowDemo: !serverConfig().exposed });
    const session = await sealedSession();
    Object.assign(session, signedIn);
    await session.save();
  } catch (e) {
    if (e instanceof Refused) return { message: e.message, handle };
    console.error('sign-in failed:', (e as Error).message);
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
