/** Most stalls made from one series. */
const MOST = 60;
export type StallSeries = { ok: true; names: string[] } | { ok: false; reason: string };

/**
 * The stall names that a sign stands for: `1-4`, `A–D`, `11, 12, 14`, `North, South`, or these together.
 * Leading zeros are kept (`01-04`).
 */
export function stallSeries(text: string): StallSeries {
  const names: string[] = [];
  for (const part of text.split(/[,;\n]/).map((p) => p.trim())) {
    if (part === '') continue;
    const range = /^(\d{1,4}|[A-Za-z])\s*[-–]\s*(\d{1,4}|[A-Za-z])$/.exec(part);
    const made = range ? between(range[1] as string, range[2] as string) : [part];
    if (!made) return { ok: false, reason: `“${part}” is not a series such as 1-4 or A-D` };
    for (const name of made) {
      if (name.length > 40) return { ok: false, reason: 'A name has at most 40 characters' };
      if (names.includes(name)) return { ok: false, reason: `Stall ${name} comes twice` };
      names.push(name);
    }
    if (names.length > MOST) return { ok: false, reason: `At most ${MOST} stalls at once` };
  }
  return { ok: true, names };
}

function between(a: string, b: string): string[] | null {
  const digits = /^\d+$/;
  if (digits.test(a) !== digits.test(b)) return null;
  if (digits.test(a)) {
    const [from, to] = [Number(a), Number(b)];
    if (to < from || to - from > MOST) return null;
    return Array.from({ length: to - from + 1 }, (_, i) => String(from + i).padStart(a.length, '0'));
  }
  const [from, to] = [a.charCodeAt(0), b.charCodeAt(0)];
  if (to < from || (a === a.toUpperCase()) !== (b === b.toUpperCase())) return null;
  return Array.from({ length: to - from + 1 }, (_, i) => String.fromCharCode(from + i));
}

/** Cabinets for a row of stalls, so many stalls on each: `1`, `1`, `2`, `2`. @param onEach 0 when every stall stands alone */
export const cabinetsFor = (stalls: number, onEach: number): (string | null)[] =>
  Array.from({ length: stalls }, (_, i) => (onEach < 2 ? null : String(Math.floor(i / onEach) + 1)));
