import { readFileSync } from 'node:fs';
import path from 'node:path';

/** Hashes of the inline scripts of each static shell, collected after the build; empty before one. */
function collectedHashes(): Record<string, string[]> {
  try {
    return JSON.parse(readFileSync(path.join(process.cwd(), '.next', 'script-hashes.json'), 'utf8'));
  } catch {
    return {};
  }
}
const collected = collectedHashes();

/** True for a page that was written at build time and can carry no nonce. */
export const isStaticShell = (pathname: string, hashes = collected): boolean => Object.hasOwn(hashes, pathname);

/**
 * The content security policy of a page. No unsafe-inline anywhere.
 * Static shells name their inline scripts by hash, dynamic pages by the request's nonce; a page not found is
 * static too and may stand at any address, so its hashes are always let in.
 */
export function contentSecurityPolicy(pathname: string, nonce: string, hashes = collected): string {
  const own = isStaticShell(pathname, hashes) ? (hashes[pathname] ?? []) : [`'nonce-${nonce}'`];
  const scripts = [...new Set(["'self'", ...own, ...(hashes['/_not-found'] ?? [])])];
  return [
    "default-src 'self'",
    `script-src ${scripts.join(' ')}${process.env.NODE_ENV === 'development' ? " 'unsafe-eval'" : ''}`,
    "style-src 'self'",
    "img-src 'self' data: blob:",
    "font-src 'self'",
    "connect-src 'self'",
    "worker-src 'self'",
    "manifest-src 'self'",
    "object-src 'none'",
    "base-uri 'none'",
    "form-action 'self'",
    "frame-ancestors 'none'",
  ].join('; ');
}
