'use client';
import * as Popover from '@radix-ui/react-popover';
import { useRouter } from 'next/navigation';
import { startTransition, useOptimistic, useState } from 'react';
import { findBest } from '@/core/records/find-text';
import { Floating } from '../forms/floating';

/** So many are laid over at once: more cannot be told apart. */
const MOST = 5;

/** Up to so many all are looked through at a glance; of a longer list so many are shown, and typing finds the others. */
const AT_A_GLANCE = 12;
const SHOWN = 24;

/** Chooses visits of the same car or at the same site to lay over this one. */
export function LayOver({
  others,
  base,
  kept,
}: {
  others: readonly { id: string; name: string; chosen: boolean }[];
  base: string;
  /** What else the address says. */
  kept: Readonly<Record<string, string>>;
}) {
  const router = useRouter();
  const [open, setOpen] = useState(false);
  const [typed, setTyped] = useState('');
  // A tick stands at once and the next one counts on it, though the page is still on its way.
  const [chosen, choose] = useOptimistic(others.filter((o) => o.chosen).map((o) => o.id));
  const show = (is: boolean) => {
    setOpen(is);
    setTyped('');
  };
  const toggle = (id: string) => {
    const next = chosen.includes(id) ? chosen.filter((c) => c !== id) : [...chosen, id].slice(-MOST);
    const asked = new URLSearchParams({ ...kept, ...(next.length > 0 ? { over: next.join(',') } : {}) });
    startTransition(() => {
      choose(next);
      router.push(`${base}${asked.size > 0 ? '?' : ''}${asked}`, { scroll: false });
    });
  };
  const found = others.map((o) => ({ ...o, text: o.name }));
  const fitting = typed.trim() === '' ? found.slice(0, SHOWN) : findBest(typed, found, SHOWN);
  // What is laid over is at hand whatever is typed: it is taken off again there.
  const shown = [...found.filter((o) => chosen.includes(o.id) && fitting.every((f) => f.id !== o.id)), ...fitting];
  return (
    <Popover.Root open={open} onOpenChange={show}>
      <Popover.Trigger className="plate">Lay another visit over it{chosen.length > 0 ? ` (${chosen.length})` : ''}</Popover.Trigger>
      <Floating label="Visits of the same car or site" align="end" className="max-h-[60dvh] w-[min(380px,calc(100vw-24px))] overflow-y-auto p-2">
        {others.length === 0 ? <p className="p-2 text-sm text-ink-2">No other visit of this car or at this site has its power read.</p> : null}
        {others.length > AT_A_GLANCE ? (
          <label className="block px-1.5 pb-1 text-[13px] font-semibold">
            Find one by its date, site or car
            <input type="search" className="field mt-0.5" value={typed} onChange={(e) => setTyped(e.target.value)} />
          </label>
        ) : null}
        {others.length > 0 && fitting.length === 0 ? <p className="p-2 text-sm text-ink-2">None is called so.</p> : null}
        {shown.map((o) => (
          <label key={o.id} className="flex min-h-[40px] cursor-pointer items-center gap-2 px-1.5 text-[14px] hover:bg-picked">
            <input type="checkbox" checked={chosen.includes(o.id)} onChange={() => toggle(o.id)} className="size-5" />
            {o.name}
          </label>
        ))}
      </Floating>
    </Popover.Root>
  );
}
