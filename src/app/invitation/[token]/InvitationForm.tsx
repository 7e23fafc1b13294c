'use client';
import { useActionState } from 'react';
import { acceptInvitationAction } from '@/app/sign-in/actions';

export function InvitationForm({ token, handle }: { token: string; handle: string }) {
  const [state, action, busy] = useActionState(acceptInvitationAction.bind(null, token), {} as { message?: string });
  return (
    <form action={action} className="grid gap-3">
      <input type="hidden" name="username" autoComplete="username" value={handle} readOnly />
      <label className="field">
        <span>Password</span>
        <input name="password" type="password" className="input" autoComplete="new-password" minLength={12} required />
      </label>
      <label className="field">
        <span>The same again</span>
        <input name="again" type="password" className="input" autoComplete="new-password" minLength={12} required />
      </label>
      {state.message && (
        <p role="alert" className="alert alert-error alert-outline">
          {state.message}
        </p>
      )}
      <button type="submit" className="btn btn-accent" disabled={busy}>
        {busy ? 'One moment' : 'Set it and sign in'}
      </button>
    </form>
  );
}
