/** What each is called, with what tells it apart where another is called the same. */
export function toldApart<T>(list: readonly T[], name: (of: T) => string, more: (of: T) => string): string[] {
  const names = list.map(name);
  const often = new Map<string, number>();
  for (const n of names) often.set(n, (often.get(n) ?? 0) + 1);
  return list.map((of, i) => {
    const n = names[i] as string;
    return (often.get(n) ?? 0) > 1 ? `${n}, ${more(of)}` : n;
  });
}
