import type { Metadata } from 'next';
import { insidePath } from '@/core/units/inside-path';
import { one, type Query } from '../../query';
import { RecoverForm } from './recover-form';

export const metadata: Metadata = { title: 'Recovery code' };

export default async function RecoverPage({ searchParams }: { searchParams: Promise<Query> }) {
  const to = insidePath(one(await searchParams, 'to')) ?? '/';
  return (
    <>
      <h1 className="text-2xl">Open your account by its recovery code</h1>
      <p className="mt-2 text-sm text-ink-2">
        The code you printed opens the account once and sets a new password. Every device is signed out; what is kept on a phone stays there and is sent when
        you sign in on it again.
      </p>
      <RecoverForm to={to} />
      <p className="mt-5 text-sm">
        Know your password?{' '}
        <a href="/sign-in" className="font-semibold text-shake underline">
          Sign in
        </a>
      </p>
    </>
  );
}
