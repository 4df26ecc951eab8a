import { connection } from 'next/server';
import type { ReactNode } from 'react';
import { Stone } from '@/ui/road/stone';

/** The pages before the sign-in. Made for each request, so that their scripts carry its nonce. */
export default async function DoorLayout({ children }: { children: ReactNode }) {
  await connection();
  return (
    <>
      <header className="relative flex h-[52px] items-center bg-asphalt px-5 text-line">
        <div className="lane-dashes absolute inset-x-0 bottom-[6px] h-[2px] opacity-55" aria-hidden="true" />
        <span className="flex items-center gap-2 text-[17px] font-extrabold tracking-tight">
          <Stone />
          Mile Ledger
        </span>
      </header>
      <main className="mx-auto max-w-md p-6">{children}</main>
    </>
  );
}
