/** What stands behind the question mark of a page's address. */
export type Query = Record<string, string | string[] | undefined>;

/** One part of it; of several by one name the first. */
export const one = (q: Query, name: string): string | undefined => {
  const v = q[name];
  return Array.isArray(v) ? v[0] : v;
};
