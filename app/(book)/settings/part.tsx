import type { ReactNode } from 'react';

/** One part of the settings. */
export function Part({ id, head, children }: { id?: string; head?: string; children: ReactNode }) {
  return (
    <section {...(id ? { id } : {})} className="mt-4 border-t-2 border-ink bg-card p-4">
      {head ? <h2 className="mb-2 text-[16px]">{head}</h2> : null}
      {children}
    </section>
  );
}
