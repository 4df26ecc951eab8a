/** A level of the battery as it was typed, per cent; `null` where it is none, `undefined` where nothing was typed. */
export function typedLevel(text: string | undefined): number | null | undefined {
  if (!text?.trim()) return undefined;
  const plain = /^\s*(\d+(?:[.,]\d+)?)\s*%?\s*$/.exec(text)?.[1]?.replace(',', '.');
  return plain !== undefined && Number(plain) <= 100 ? Number(plain) : null;
}
/** A level as it is read, per cent: one that was typed as it was typed, to a tenth; one that was worked out, whole. */
export const printLevel = (pct: number, typed: readonly number[]): string => String(typed.includes(pct) ? Number(pct.toFixed(1)) : Math.round(pct));
/** What is said of fields whose level is none. @param names as they stand at the fields */
export const noLevel = (names: readonly string[]): string =>
  `${names.map((name) => `“${name}”`).join(' and ')} ${names.length > 1 ? 'are no levels' : 'is no level'} of the battery: a number from 0 to 100.`;
/** The names of the fields whose level is none. */
export const wrongLevels = (typed: Readonly<Record<string, number | null | undefined>>): string[] =>
  Object.entries(typed).flatMap(([name, is]) => (is === null ? [name] : []));
