import type { Position } from '@/core/records/place-questions';
import { fetchedLater } from '../visit-session/fetched-later';

const reader = fetchedLater(async () => (await import('exifr/dist/mini.esm.mjs')).gps);

/**
 * Where a picture says it was taken; `null` when it does not. Read only when it is wanted: the picture itself is kept without.
 * @returns `'unread'` where what reads it is not on the phone and cannot be fetched
 */
export async function photoPosition(file: Blob): Promise<Position | null | 'unread'> {
  const gps = await reader().catch(() => null);
  if (!gps) return 'unread';
  const found = await gps(file).catch(() => undefined);
  if (!found || !Number.isFinite(found.latitude) || !Number.isFinite(found.longitude)) return null;
  const five = (degrees: number) => Math.round(degrees * 1e5) / 1e5;
  return { latitude: five(found.latitude), longitude: five(found.longitude) };
}
