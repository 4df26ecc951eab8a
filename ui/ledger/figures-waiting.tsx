'use client';
import { useRouter } from 'next/navigation';
import { useEffect } from 'react';
import { printCount } from '@/core/units/print';

/** How often a page looks how far the figures have come. */
const LOOK_MS = 3000;

/** Said while figures are brought up to date in the background: what is shown may still be the older ones. */
export function FiguresWaiting({ visits }: { visits: number }) {
  const router = useRouter();
  useEffect(() => {
    if (visits === 0) return;
    const timer = setInterval(() => router.refresh(), LOOK_MS);
    return () => clearInterval(timer);
  }, [visits, router]);
  if (visits === 0) return null;
  return (
    <p role="status" className="no-print border-b border-rule bg-picked px-4 py-1.5 text-[13px]">
      The figures of {printCount(visits, 'visit')} are still being brought up to date.
    </p>
  );
}
