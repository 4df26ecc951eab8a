import type { ReactNode } from 'react';

/** A part of a page under a heavy rule. */
export function Section({ head, beside, children, className = '' }: { head: string; beside?: ReactNode; children: ReactNode; className?: string }) {
  return (
    <section className={`min-w-0 ${className}`}>
      <div className="mb-2.5 flex items-baseline gap-3 border-b-2 border-ink pb-1.5">
        <h2 className="text-[16px]">{head}</h2>
        <span className="grow" />
        {beside ? <span className="min-w-0 text-[13px] text-ink-2">{beside}</span> : null}
      </div>
      {children}
    </section>
  );
}

/** Rows of a name and a value under hairlines. */
export function Rows({ rows, empty }: { rows: readonly [ReactNode, ReactNode][]; empty: string }) {
  if (rows.length === 0) return <p className="text-sm text-ink-2">{empty}</p>;
  return (
    <dl className="text-[14px]">
      {rows.map(([name, value], i) => (
        // biome-ignore lint/suspicious/noArrayIndexKey: rows never change places
        <div key={i} className="flex items-baseline justify-between gap-4 border-b border-rule-2 py-[6px]">
          <dt className="min-w-0">{name}</dt>
          <dd className="shrink-0 max-w-[60%] text-right">{value}</dd>
        </div>
      ))}
    </dl>
  );
}
