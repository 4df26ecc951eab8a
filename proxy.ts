import { type NextRequest, NextResponse } from 'next/server';
import { methodRefused } from '@/server/api/methods';
import { contentSecurityPolicy, isStaticShell } from '@/server/content-security';
import { ASKED_PAGE } from '@/server/http/asked-page';

/** What every answer carries, whatever its path: pages, the API, static files and what is not found. */
const HEADERS = {
  'x-content-type-options': 'nosniff',
  'referrer-policy': 'same-origin',
  'x-frame-options': 'DENY',
  'permissions-policy': 'camera=(), microphone=(), geolocation=(self), payment=()',
  'cross-origin-opener-policy': 'same-origin',
  'cross-origin-resource-policy': 'same-origin',
};

/** Answers that say themselves whether they are shown, or under which name they are kept. */
const SAYS_ITSELF = /^\/api\/v1\/(?:photos\/|export\/|household\/export$|trials\/|pdf\/|schema\/|openapi\.json$)/;

/** False for a path that no text is: `%ff` is half a character. */
function isText(pathname: string): boolean {
  try {
    decodeURIComponent(pathname);
    return true;
  } catch {
    return false;
  }
}

/** Puts the security headers on every answer and gives dynamic pages their nonce. */
export function proxy(request: NextRequest) {
  const { pathname, search } = request.nextUrl;
  const nonce = Buffer.from(crypto.getRandomValues(new Uint8Array(16))).toString('base64');
  const policy = contentSecurityPolicy(pathname, nonce);
  const headers = new Headers(request.headers);
  // Next reads the nonce for its own scripts from the policy on the request.
  if (!isStaticShell(pathname)) headers.set('content-security-policy', policy);
  headers.set(ASKED_PAGE, `${pathname}${search}`);
  const refused = methodRefused(request.method, pathname);
  const response = refused
    ? new NextResponse(refused.body, refused)
    : isText(pathname)
      ? NextResponse.next({ request: { headers } })
      : new NextResponse('There is no such address.', { status: 404, headers: { 'content-type': 'text/plain; charset=utf-8' } });
  response.headers.set('content-security-policy', policy);
  // Opened as a page, an answer of the API is a file; pictures are shown, and what is taken along says its own name.
  if (pathname.startsWith('/api/') && !SAYS_ITSELF.test(pathname)) response.headers.set('content-disposition', 'attachment; filename="answer.json"');
  for (const [name, value] of Object.entries(HEADERS)) response.headers.set(name, value);
  return response;
}
