/** Things by a key, in the order in which each key came first. */
export function grouped<T, K>(all: readonly T[], keyOf: (t: T) => K): Map<K, T[]> {
  const groups = new Map<K, T[]>();
  for (const t of all) {
    const key = keyOf(t);
    const list = groups.get(key);
    if (list) list.push(t);
    else groups.set(key, [t]);
  }
  return groups;
}

/** Things by a key, of several the first. */
export function firstBy<T, K>(all: readonly T[], keyOf: (t: T) => K): Map<K, T> {
  const first = new Map<K, T>();
  for (const t of all) {
    const key = keyOf(t);
    if (!first.has(key)) first.set(key, t);
  }
  return first;
}
