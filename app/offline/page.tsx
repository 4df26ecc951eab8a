import type { Metadata } from 'next';

export const metadata: Metadata = { title: 'No network' };
export const dynamic = 'force-static';

export default function Offline() {
  return (
    <main className="mx-auto max-w-md p-6">
      <h1 className="text-2xl">No network</h1>
      <p className="mt-3">
        This page needs the server, which cannot be reached just now. The Stall works without it: what you record there is kept on the phone and sent later.
      </p>
      <p className="mt-5">
        <a className="plate plate-next !min-h-[44px]" href="/stall">
          Go to the Stall
        </a>
      </p>
    </main>
  );
}
