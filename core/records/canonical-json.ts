/**
 * JSON with object keys sorted at every depth: the same content gives the same text.
 * `undefined` members are left out, as JSON.stringify does.
 */
export function canonicalJson(value: unknown): string {
  if (value === null || typeof value !== 'object') return JSON.stringify(value) ?? 'null';
  if (Array.isArray(value)) return `[${value.map((v) => canonicalJson(v ?? null)).join(',')}]`;
  let members = '';
  for (const name of Object.keys(value).sort()) {
    const member = (value as Record<string, unknown>)[name];
    if (member !== undefined) members += `${members === '' ? '' : ','}${JSON.stringify(name)}:${canonicalJson(member)}`;
  }
  return `{${members}}`;
}
