'use client';
import { useActionState, useEffect } from 'react';
import { forgetCopies } from '@/client/deviceCopy';
import { signInAction, type SignInState } from './actions';

export function SignInForm() {
  // Who stands here is signed out, however that came about.
  useEffect(() => void forgetCopies(), []);
  const [state, action, busy] = useActionState<SignInState, FormData>(signInAction, {});
  return (
    <form action={action} className="grid gap-3">
      <label className="field">
        <span>Name</span>
        <input
          name="handle"
          className="input"
          autoComplete="username"
          autoCapitalize="none"
          defaultValue={state.handle ?? ''}
          required
        />
      </label>
      <label className="field">
        <span>Password</span>
        <input name="password" type="password" className="input" autoComplete="current-password" required />
      </label>
      {state.message && (
        <p role="alert" className="alert alert-error alert-outline">
          {state.message}
        </p>
      )}
      <button type="submit" className="btn btn-accent" disabled={busy}>
        {busy ? 'Signing in' : 'Sign in'}
      </button>
    </form>
  );
}
