'use server';
import { randomUUID } from 'node:crypto';
import { headers } from 'next/headers';
import { redirect } from 'next/navigation';
import { Refused } from '@/server/actor';
import { serverConfig } from '@/server/config';
import { appDb } from '@/server/db';
import { currentActor, currentDevice, sealedDevice, sealedSession } from '@/server/http';
import { log } from '@/server/log';
import { acceptInvitation } from '@/server/people';
import { knownOnDevice, takeOver } from '@/server/quickSwitch';
import { signIn, signInWithCode, signOut, signOutEverywhere, type SignedIn } from '@/server/signIn';

export interface SignInState {
  message?: string;
  handle?: string;
  /** The password was right: a code is asked for. */
  code?: boolean;
}

/** ms for which a right password waits for its code. */
const CODE_WITHIN_MS = 5 * 60_000;

/** The session in the cookie, and nothing of a half one. */
async function keepSession(signedIn: SignedIn): Promise<void> {
  const session = await sealedSession();
  session.half = undefined as never;
  Object.assign(session, signedIn);
  await session.save();
}

/** Signed in with all that is asked: from now on this device knows the person. */
async function wholly(signedIn: SignedIn): Promise<void> {
  await keepSession(signedIn);
  const device = await sealedDevice();
  if (device.shopId !== signedIn.shopId || !device.deviceId) {
    Object.assign(device, { shopId: signedIn.shopId, deviceId: randomUUID() });
    await device.save();
  }
  await knownOnDevice(appDb(), { shopId: signedIn.shopId, deviceId: device.deviceId! }, signedIn.personId);
}

/** What is said of a failure: a refusal’s own sentence, else that the database is away. */
function said(e: unknown, what: string): string {
  if (e instanceof Refused) return e.message;
  log.error({ err: e }, `${what} failed`);
  return 'The database does not answer just now. Try again in a moment.';
}

const address = async (): Promise<string> => (await headers()).get('x-surrik-address') ?? '';

/** Signs in and goes to the board, or asks for a code; on refusal says why and keeps the name. */
export async function signInAction(_before: SignInState, form: FormData): Promise<SignInState> {
  const handle = String(form.get('handle') ?? '').slice(0, 80);
  const password = String(form.get('password') ?? '').slice(0, 400);
  if (handle.trim() === '' || password === '') return { message: 'Both a name and a password are needed.', handle };
  try {
    const result = await signIn(appDb(), handle, password, {
      allowDemo: !serverConfig().exposed,
      address: await address(),
    });
    if ('half' in result) {
      const session = await sealedSession();
      session.destroy();
      session.half = { ...result.half, until: Date.now() + CODE_WITHIN_MS };
      await session.save();
      return { code: true, handle };
    }
    await wholly(result);
  } catch (e) {
    return { message: said(e, 'sign-in'), handle };
  }
  redirect('/');
}

/** The second half of it: a code of the time, or one off the paper. */
export async function codeAction(_before: SignInState, form: FormData): Promise<SignInState> {
  const { half } = await sealedSession();
  if (!half || half.until < Date.now()) return { message: 'That took longer than five minutes. Sign in again.' };
  try {
    const code = String(form.get('code') ?? '').slice(0, 40);
    await wholly(await signInWithCode(appDb(), half, code, { address: await address(), at: new Date() }));
  } catch (e) {
    return { code: true, message: said(e, 'sign-in') };
  }
  redirect('/');
}

/** Takes the device over with a PIN: whoever was signed in on it is out; on refusal says why. */
export async function takeOverAction(person: string, pin: string): Promise<{ message: string } | undefined> {
  try {
    const device = await currentDevice();
    if (!device) throw new Refused(401, 'unknown', 'This device knows nobody yet. Sign in with name and password.');
    const signedIn = await takeOver(appDb(), device, person, pin.slice(0, 20));
    const before = await currentActor();
    await keepSession(signedIn);
    if (before) await signOut(appDb(), before);
  } catch (e) {
    return { message: said(e, 'switch') };
  }
  return undefined;
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

/** Takes an invitation up: sets the password and goes to the board, or to sign in with a code; on refusal says why. */
export async function acceptInvitationAction(
  token: string,
  _before: { message?: string },
  form: FormData,
): Promise<{ message?: string }> {
  const password = String(form.get('password') ?? '');
  if (password !== String(form.get('again') ?? '')) return { message: 'The two are not the same. Type both again.' };
  let signedIn: SignedIn | undefined;
  try {
    signedIn = await acceptInvitation(appDb(), token, password);
    if (signedIn) await wholly(signedIn);
  } catch (e) {
    return { message: said(e, 'invitation') };
  }
  redirect(signedIn ? '/' : '/sign-in');
}
