import { problem } from './problem';

const ID = '[0-9a-f-]{36}';
/** What each address below /api/v1 that programs call can be asked with; HEAD goes with GET. */
const METHODS: readonly (readonly [path: string, methods: readonly string[]])[] = [
  [`/(?:visits|visits/${ID}|attempts|readings|bills|places|tariffs|compare|export/[^/]+|household/export)`, ['GET', 'HEAD']],
  ['/events', ['GET', 'HEAD', 'POST']],
  ['/price', ['POST']],
];
const BY_PATH = METHODS.map(([path, methods]) => [new RegExp(`^/api/v1${path}/?$`), methods] as const);

/**
 * Refuses a method that an address of the API does not have, with those it has (RFC 9110, 405 and Allow): Next alone would answer
 * with nothing in it. `null` where it has it, and for every other address. OPTIONS is answered by the address itself.
 */
export function methodRefused(method: string, pathname: string): Response | null {
  const methods = BY_PATH.find(([path]) => path.test(pathname))?.[1];
  if (!methods || method === 'OPTIONS' || methods.includes(method)) return null;
  const allow = methods.join(', ');
  return problem(405, `This address takes ${allow} and no ${method}.`, {}, { allow });
}
