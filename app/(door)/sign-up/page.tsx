import type { Metadata } from 'next';
import { SignUpForm } from './sign-up-form';

export const metadata: Metadata = { title: 'First account' };

export default function SignUpPage() {
  return (
    <>
      <h1 className="text-2xl">First account of a household</h1>
      <p className="mt-2 text-sm text-ink-2">Everybody in a household sees where and when each of them charged. Other households see nothing of it.</p>
      <p className="mt-2 text-sm text-ink-2">
        No e-mail is ever sent from here. Make a recovery code in the settings afterwards: it opens the account should the password be lost.
      </p>
      <SignUpForm />
      <p className="mt-5 text-sm">
        Have an account?{' '}
        <a href="/sign-in" className="font-semibold text-shake underline">
          Sign in
        </a>
      </p>
    </>
  );
}
