import { type NextRequest, NextResponse } from 'next/server';
import { contentSecurityPolicy, isStaticShell } from '@/server/content-security';

/** Puts the security headers on every page and gives dynamic pages their nonce. */
export function proxy(request: NextRequest) {
  const nonce = Buffer.from(crypto.getRandomValues(new Uint8Array(16))).toString('base64');
  const policy = contentSecurityPolicy(request.nextUrl.pathname, nonce);
  const headers = new Headers(request.headers);
  // Next reads the nonce for its own scripts from the policy on the request.
  if (!isStaticShell(request.nextUrl.pathname)) headers.set('content-security-policy', policy);
  const response = NextResponse.next({ request: { headers } });
  response.headers.set('content-security-policy', policy);
  response.headers.set('x-content-type-options', 'nosniff');
  response.headers.set('referrer-policy', 'same-origin');
  response.headers.set('x-frame-options', 'DENY');
  response.headers.set('permissions-policy', 'camera=(), microphone=(), geolocation=(self), payment=()');
  response.headers.set('cross-origin-opener-policy', 'same-origin');
  return response;
}

export const config = { matcher: ['/((?!_next/static|_next/image|icon|sheet.js|manifest.webmanifest).*)'] };
