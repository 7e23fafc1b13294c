import { clsx } from 'clsx';
import type { Metadata } from 'next';
import { SignInForm } from './SignInForm';

export const metadata: Metadata = { title: 'Sign in' };

export default function SignInPage() {
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
        <p className="quiet">The demo sign-in is printed where Surrik was started.</p>
      </section>
    </main>
  );
}
