import { createHash, timingSafeEqual } from 'node:crypto';

/** The header by which our own TLS front makes itself known; its value is made anew at each start. */
export const FRONT_HEADER = 'x-mile-front';
const digest = (text: string) => createHash('sha256').update(text).digest();

/** True for a request that came through our own front: only then is believed what it says of address and scheme. */
function throughFront(headers: Headers): boolean {
  const secret = process.env.MILE_FRONT_SECRET;
  const shown = headers.get(FRONT_HEADER);
  return Boolean(secret && shown) && timingSafeEqual(digest(shown as string), digest(secret as string));
}

/** True when the person's own connection is https, which the front ends. */
export const isHttps = (headers: Headers): boolean => throughFront(headers) && headers.get('x-forwarded-proto') === 'https';

/** Address a request came from: the front says it, else it is this machine, since nothing else can reach the application. */
export function addressOf(headers: Headers): string {
  if (!throughFront(headers)) return '127.0.0.1';
  const said = (headers.get('x-forwarded-for') ?? '').split(',')[0]?.replace(/[^0-9A-Za-z.:-]/g, '');
  return said?.slice(0, 64) || '127.0.0.1';
}
