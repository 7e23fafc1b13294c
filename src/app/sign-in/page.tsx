import type { Metadata } from 'next';
import { SignInForm } from './SignInForm';

export const metadata: Metadata = { title: 'Sign in' };

export default function SignInPage() {
  return (
    <main className="signin">
      <section className="signin-card" aria-labelledby="signin-title">
        <h1 id="signin-title">Surrik</h1>
        <p>The bench beside the rig: where to put the leads, what they should read, what is wrong.</p>
        <SignInForm />
        <p className="quiet">The demo sign-in is printed where Surrik was started.</p>
      </section>
    </main>
  );
}
