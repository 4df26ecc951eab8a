import Link from 'next/link';
import type { ReactNode } from 'react';

/** The frame of a form's page. */
export function EditPage({ title, back, lead, children }: { title: string; back: { href: string; text: string }; lead?: string; children: ReactNode }) {
  return (
    <div className="max-w-[860px] px-4 py-4 sm:px-6">
      <Link href={back.href} className="inline-block min-h-6 text-[13px] font-semibold text-shake underline">
        {back.text}
      </Link>
      <h1 className="mb-3 mt-1 text-[24px]">{title}</h1>
      {lead ? <p className="-mt-1 mb-4 text-[14.5px] text-ink-2">{lead}</p> : null}
      {children}
    </div>
  );
}
