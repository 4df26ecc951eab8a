import type { Position } from '@/core/records/place-questions';

/** Where a picture says it was taken; `null` when it does not. Read only when it is wanted: the picture itself is kept without. */
export async function photoPosition(file: Blob): Promise<Position | null> {
  const { gps } = await import('exifr/dist/mini.esm.mjs');
  const found = await gps(file).catch(() => undefined);
  if (!found || !Number.isFinite(found.latitude) || !Number.isFinite(found.longitude)) return null;
  const five = (degrees: number) => Math.round(degrees * 1e5) / 1e5;
  return { latitude: five(found.latitude), longitude: five(found.longitude) };
}
