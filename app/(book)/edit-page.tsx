import Link from 'next/link';
import type { ReactNode } from 'react';
import { refusedTo } from '@/core/records/roles';
import { whoAsks } from '@/server/http/session-cookie';

/** The frame of a form's page. Who may not change it reads it. */
export async function EditPage({
  title,
  back,
  lead,
  children,
}: {
  title: string;
  back: { href: string; text: string };
  lead?: ReactNode;
  children: ReactNode;
}) {
  const who = await whoAsks();
  const why = who && refusedTo(who.role);
  return (
    <div className="max-w-[860px] px-4 py-4 sm:px-6">
      <Link href={back.href} className="inline-block min-h-6 text-[13px] font-semibold text-shake underline">
        {back.text}
      </Link>
      <h1 className="mb-3 mt-1 text-[24px]">{title}</h1>
      {lead ? <p className="-mt-1 mb-4 text-[14.5px] text-ink-2">{lead}</p> : null}
      {why ? (
        <>
          <p role="status" className="mb-4 border-l-4 border-rule bg-card px-3 py-2 text-[14.5px]">
            {why}.
          </p>
          <fieldset disabled>{children}</fieldset>
        </>
      ) : (
        children
      )}
    </div>
  );
}
