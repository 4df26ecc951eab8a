'use client';
import { Keys } from '@/ui/road/keys';
import { later } from '../later';

const Find = later(() => import('@/ui/find/find-dialog').then((m) => m.FindDialog));

/** The keys of every page with data. A find box that cannot be fetched says so over the page, and takes nothing of it. */
export function BookKeys() {
  return <Keys Find={Find} />;
}
