/** A visit's code, short enough to be read off a film: the random end of its id, `7C2F-09AB`. */
export function visitCode(visitId: string): string {
  const end = visitId.replaceAll('-', '').slice(-8).toUpperCase();
  return `${end.slice(0, 4)}-${end.slice(4)}`;
}

/** A code as somebody types it, whole or its first half on: digits of its beginning, or null for any other text. */
export function codeTyped(typed: string): string | null {
  const digits = typed.replace(/[\s–-]/g, '').toUpperCase();
  return /^[0-9A-F]{4,8}$/.test(digits) ? digits : null;
}
