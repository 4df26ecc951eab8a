/** A list is set whole. */
export type FieldValue = string | number | boolean | string[] | null;
/** A field's name, or one of an object's: nothing that reaches behind the object. The time is no field: it has its own place in a correction. */
const PATH = /^(?!__proto__|constructor|prototype|at$)[A-Za-z]\w*(\.[A-Za-z]\w*)?$/;
/** A field of an entry of a list, `stalls.2.state`. */
const IN_LIST = /^([A-Za-z]\w*)\.(\d{1,3})\.([A-Za-z]\w*)$/;

/** True for what names a field that can be set. */
export const isFieldPath = (path: string): boolean => PATH.test(path) || IN_LIST.test(path);

/**
 * A payload with fields set, or taken out by `null`. `seen.free` reaches one level into an object; an object left
 * empty is taken out. `stalls.2.state` reaches into an entry that a list has. What is no field's name is left
 * alone, and so is the payload given.
 */
export function setFields(payload: Readonly<Record<string, unknown>>, set: Readonly<Record<string, FieldValue>>): Record<string, unknown> {
  const next: Record<string, unknown> = { ...payload };
  for (const [path, value] of Object.entries(set)) {
    const inList = IN_LIST.exec(path);
    if (inList) setInList(next, inList[1] as string, Number(inList[2]), inList[3] as string, value);
    if (!PATH.test(path)) continue;
    const [outer = '', inner] = path.split('.', 2);
    if (inner === undefined) {
      if (value === null) delete next[outer];
      else next[outer] = value;
      continue;
    }
    const object = { ...(typeof next[outer] === 'object' && next[outer] !== null ? (next[outer] as Record<string, unknown>) : {}) };
    if (value === null) delete object[inner];
    else object[inner] = value;
    if (Object.keys(object).length === 0) delete next[outer];
    else next[outer] = object;
  }
  return next;
}

function setInList(next: Record<string, unknown>, list: string, i: number, field: string, value: FieldValue): void {
  const entries = next[list];
  const entry: unknown = Array.isArray(entries) ? entries[i] : undefined;
  if (!Array.isArray(entries) || typeof entry !== 'object' || entry === null) return;
  const changed: Record<string, unknown> = { ...entry };
  if (value === null) delete changed[field];
  else changed[field] = value;
  next[list] = entries.map((e, n) => (n === i ? changed : e));
}

/** The value at such a path; `undefined` where nothing stands. */
export function fieldAt(payload: Readonly<Record<string, unknown>>, path: string): FieldValue | undefined {
  const inList = IN_LIST.exec(path);
  if (inList) {
    const list = payload[inList[1] as string];
    const entry: unknown = Array.isArray(list) ? list[Number(inList[2])] : undefined;
    return typeof entry === 'object' && entry !== null ? fieldAt(entry as Record<string, unknown>, inList[3] as string) : undefined;
  }
  const [outer = '', inner] = path.split('.', 2);
  const value = payload[outer];
  const found = inner === undefined ? value : typeof value === 'object' && value !== null ? (value as Record<string, unknown>)[inner] : undefined;
  if (Array.isArray(found) && found.every((x) => typeof x === 'string')) return found;
  return typeof found === 'string' || typeof found === 'number' || typeof found === 'boolean' ? found : undefined;
}
