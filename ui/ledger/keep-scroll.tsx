'use client';
import { type ReactNode, useLayoutEffect, useRef } from 'react';

/** Where the list stood: moving from visit to visit must never lose the place. */
let kept = 0;

export function KeepScroll({ children, selected }: { children: ReactNode; selected: string | null }) {
  const ref = useRef<HTMLDivElement>(null);
  const begun = useRef(false);
  useLayoutEffect(() => {
    const el = ref.current;
    if (!el) return;
    // Scrolled before the page came alive: under a finger nothing jumps back.
    const scrolled = !begun.current && el.scrollTop > 0;
    begun.current = true;
    if (scrolled) {
      kept = el.scrollTop;
      return;
    }
    el.scrollTop = kept;
    if (selected) el.querySelector('[aria-current=true]')?.scrollIntoView({ block: 'nearest' });
  }, [selected]);
  return (
    <div
      ref={ref}
      onScroll={(e) => {
        kept = e.currentTarget.scrollTop;
      }}
      className="relative min-h-0 grow lg:overflow-y-auto"
      tabIndex={0}
      role="region"
      aria-label="Visits"
    >
      {children}
    </div>
  );
}
