'use client';
import { useActionState, useEffect } from 'react';
import { forgetCopies } from '@/client/deviceCopy';
import { codeAction, signInAction, type SignInState } from './actions';

export function SignInForm() {
  // Who stands here is signed out, however that came about.
  useEffect(() => void forgetCopies(), []);
  const [first, signIn, signingIn] = useActionState<SignInState, FormData>(signInAction, {});
  const [second, showCode, showing] = useActionState<SignInState, FormData>(codeAction, {});
  // A code that took too long begins with the password again.
  const wantsCode = first.code === true && (second.message === undefined || second.code === true);
  const message = wantsCode ? second.message : (second.message ?? first.message);
  const told = message && (
    <p role="alert" className="alert alert-error alert-outline">
      {message}
    </p>
  );
  if (wantsCode)
    return (
      <form action={showCode} className="grid gap-3">
        <label className="field">
          <span>The code your phone shows, or one off your paper</span>
          <input
            name="code"
            className="input"
            autoComplete="one-time-code"
            autoCapitalize="none"
            autoFocus
            required
            key={message}
          />
        </label>
        {told}
        <button type="submit" className="btn btn-accent" disabled={showing}>
          {showing ? 'Signing in' : 'Go on'}
        </button>
        <a className="btn" href="/sign-in">
          Begin again
        </a>
      </form>
    );
  return (
    <form action={signIn} className="grid gap-3">
      <label className="field">
        <span>Name</span>
        <input
          name="handle"
          className="input"
          autoComplete="username"
          autoCapitalize="none"
          defaultValue={first.handle ?? ''}
          required
        />
      </label>
      <label className="field">
        <span>Password</span>
        <input name="password" type="password" className="input" autoComplete="current-password" required />
      </label>
      {told}
      <button type="submit" className="btn btn-accent" disabled={signingIn}>
        {signingIn ? 'Signing in' : 'Sign in'}
      </button>
    </form>
  );
}
