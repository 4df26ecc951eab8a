'use client';
import { usePathname } from 'next/navigation';
import { PLACES } from './places';
import { ThumbBar } from './thumb-bar';

/** The thumb bar of the pages with data: knows which place is open. */
export function BookFoot() {
  const path = usePathname();
  return <ThumbBar here={PLACES.find((p) => path.startsWith(p.href))?.href ?? ''} />;
}
