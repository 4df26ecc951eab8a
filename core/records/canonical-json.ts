/** What JSON writes of a text otherwise than as it stands: quotes, what cannot be shown, halves of a pair. */
// biome-ignore lint/suspicious/noControlCharactersInRegex: it is control characters that are looked for
const ESCAPED = /["\\\u0000-\u001f\ud800-\udfff]/;
// Asked of every text of every event, and hardly any has one.
const text = (s: string): string => (ESCAPED.test(s) ? JSON.stringify(s) : `"${s}"`);

/**
 * JSON with object keys sorted at every depth: the same content gives the same text.
 * `undefined` members are left out, as JSON.stringify does.
 */
export function canonicalJson(value: unknown): string {
  if (typeof value === 'string') return text(value);
  if (value === null || typeof value !== 'object') return JSON.stringify(value) ?? 'null';
  if (Array.isArray(value)) return `[${value.map((v) => canonicalJson(v ?? null)).join(',')}]`;
  let members = '';
  for (const name of Object.keys(value).sort()) {
    const member = (value as Record<string, unknown>)[name];
    if (member !== undefined) members += `${members === '' ? '' : ','}${text(name)}:${canonicalJson(member)}`;
  }
  return `{${members}}`;
}
