/** How deep objects and lists may lie in each other. The storage takes 31; nothing that is recorded needs more than 4. */
export const MOST_DEPTH = 16;

/** The name that reaches behind an object: a parser keeps it, most code that copies an object drops it or worse. */
const BEHIND = '__proto__';

/** Half of a surrogate pair alone is no character: it has no form in UTF-8. Zero ends a text in too many places. */
function textProblem(text: string): string | null {
  // Hardly any text has half of a pair or zero in it, and this is asked of every text.
  if (!/[\0\ud800-\udfff]/.test(text)) return null;
  return /\p{Surrogate}/u.test(text) ? 'holds half a character' : text.includes('\u0000') ? 'holds a character that cannot be shown' : null;
}

export type Unkeepable = { path: string; reason: string };

/**
 * Says why a JSON value cannot be kept and shown again exactly as it came, or `null` when it can.
 * What is asked here holds for every item, whatever its kind: one that the storage could not take would spoil the whole batch.
 * @param value any JSON value @param path where it stands, for the answer
 */
export function unkeepable(value: unknown, path: string): Unkeepable | null {
  return look(value, path, 0);
}

function look(value: unknown, path: string, depth: number): Unkeepable | null {
  if (typeof value === 'string') {
    const reason = textProblem(value);
    return reason ? { path, reason } : null;
  }
  if (typeof value === 'number') return Number.isFinite(value) ? null : { path, reason: 'is a number too large to keep' };
  if (value === null || typeof value !== 'object') return null;
  if (depth >= MOST_DEPTH) return { path: path.split('.').slice(0, 2).join('.'), reason: 'is nested too deeply' };
  for (const name of Object.keys(value)) {
    const inner = (value as Record<string, unknown>)[name];
    const at = path === '' ? name : `${path}.${name}`;
    if (name === BEHIND) return { path: at, reason: 'is a name that cannot be kept' };
    const reason = textProblem(name);
    if (reason) return { path: path || 'item', reason: `has a name that ${reason}` };
    const found = look(inner, at, depth + 1);
    if (found) return found;
  }
  return null;
}
