'use client';
import * as Popover from '@radix-ui/react-popover';
import { useRouter } from 'next/navigation';
import { startTransition, useOptimistic, useState } from 'react';
import { Floating } from '../forms/floating';

/** So many are laid over at once: more cannot be told apart. */
const MOST = 5;

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
  // A tick stands at once and the next one counts on it, though the page is still on its way.
  const [chosen, choose] = useOptimistic(others.filter((o) => o.chosen).map((o) => o.id));
  const toggle = (id: string) => {
    const next = chosen.includes(id) ? chosen.filter((c) => c !== id) : [...chosen, id].slice(-MOST);
    const asked = new URLSearchParams({ ...kept, ...(next.length > 0 ? { over: next.join(',') } : {}) });
    startTransition(() => {
      choose(next);
      router.push(`${base}${asked.size > 0 ? '?' : ''}${asked}`, { scroll: false });
    });
  };
  return (
    <Popover.Root open={open} onOpenChange={setOpen}>
      <Popover.Trigger className="plate">Lay another visit over it{chosen.length > 0 ? ` (${chosen.length})` : ''}</Popover.Trigger>
      <Floating label="Visits of the same car or site" align="end" className="max-h-[60dvh] w-[min(380px,calc(100vw-24px))] overflow-y-auto p-2">
        {others.length === 0 ? <p className="p-2 text-sm text-ink-2">No other visit of this car or at this site has its power read.</p> : null}
        {others.map((o) => (
          <label key={o.id} className="flex min-h-[40px] cursor-pointer items-center gap-2 px-1.5 text-[14px] hover:bg-picked">
            <input type="checkbox" checked={chosen.includes(o.id)} onChange={() => toggle(o.id)} className="size-5" />
            {o.name}
          </label>
        ))}
      </Floating>
    </Popover.Root>
  );
}
