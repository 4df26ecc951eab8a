import { tzOffset } from '@date-fns/tz/tzOffset';

const two = (n: number) => String(n).padStart(2, '0');

/**
 * An instant by the clock of a zone, with its offset (ISO 8601): `2025-10-14T13:52:08+02:00`, as exact as it is known; a day
 * alone is the date there. UTC is `+00:00`.
 * @param at UTC ms
 */
export function localIso(at: number, zone: string, precision: 'ms' | 's' | 'min' | 'day' = 's'): string {
  const minutes = tzOffset(zone, new Date(at));
  const local = new Date(at + minutes * 60_000).toISOString();
  if (precision === 'day') return local.slice(0, 10);
  const clock = local.slice(0, precision === 'min' ? 16 : precision === 's' ? 19 : 23);
  const away = Math.abs(minutes);
  return `${clock}${minutes < 0 ? '-' : '+'}${two(Math.floor(away / 60))}:${two(away % 60)}`;
}
