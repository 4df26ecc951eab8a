import type { Metadata } from 'next';
import { redirect } from 'next/navigation';
import { insidePath } from '@/core/units/inside-path';
import { whoAsks } from '@/server/http/session-cookie';
import { one, type Query } from '../../query';
import { DemoPlate } from './demo-plate';
import { SignInForm } from './sign-in-form';

export const metadata: Metadata = { title: 'Sign in' };

export default async function SignInPage({ searchParams }: { searchParams: Promise<Query> }) {
  const to = insidePath(one(await searchParams, 'to'));
  if (await whoAsks()) redirect(to ?? '/');
  const demo = process.env.MILE_DEMO === '1';
  return (
    <>
      {demo ? (
        <section className="mb-8 border-l-[6px] border-paint bg-card p-4">
          <h1 className="text-2xl">The demo ledger</h1>
          <p className="mb-4 mt-2">
            Eighteen months of visits by Ines Kolar, who tunes church organs and bells. All of it is invented: people, cars, networks and sites.
          </p>
          <DemoPlate to={to ?? '/ledger'} />
        </section>
      ) : null}
      {demo ? <h2 className="text-xl">Sign in</h2> : <h1 className="text-2xl">Sign in</h1>}
      <SignInForm to={to ?? '/'} />
      <p className="mt-5 text-sm">
        Lost the password?{' '}
        <a href={to === null ? '/recover' : `/recover?${new URLSearchParams({ to })}`} className="font-semibold text-shake underline">
          Use your recovery code
        </a>
      </p>
      <p className="mt-2 text-sm">
        No account yet?{' '}
        <a href="/sign-up" className="font-semibold text-shake underline">
          Make the first one of a household
        </a>
        , or{' '}
        <a href="/join" className="font-semibold text-shake underline">
          come by an invitation
        </a>
      </p>
    </>
  );
}
