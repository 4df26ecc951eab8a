/** Nothing is asked at this place; only what leads away from it counts. */
const HERE = 'http://here.invalid';

/**
 * An address within the application from one that an address brought along, `/ledger?site=…`; `null` for whatever leads to another host,
 * is a script, or begins otherwise than at the root.
 */
export function insidePath(text: string | null | undefined): string | null {
  if (!text?.startsWith('/') || !URL.canParse(text, HERE)) return null;
  const { origin, pathname, search, hash } = new URL(text, HERE);
  // A path of two strokes would be another host's, once it stands alone.
  return origin === HERE && !pathname.startsWith('//') ? `${pathname}${search}${hash}` : null;
}
