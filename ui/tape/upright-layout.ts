/** Vertical places for an upright tape: time runs down, long waits are shortened so that all marks stay legible. */
export type UprightLayout = {
  /** Place of each mark, px, in order: marks of one instant stand below each other. */
  marks: number[];
  /** Place of any time, px: straight between the marks around it. */
  y: (t: number) => number;
  height: number;
};

const LEAST = 44;
const MOST = 96;

/** @param times of the marks in order, UTC ms @param top place of the first, px */
export function uprightLayout(times: readonly number[], top = 22): UprightLayout {
  const stops: { t: number; y: number }[] = [];
  for (const t of times) {
    const last = stops.at(-1);
    if (!last) stops.push({ t, y: top });
    else stops.push({ t: Math.max(t, last.t), y: last.y + Math.min(MOST, LEAST + 7 * Math.log2(1 + Math.max(0, t - last.t) / 4000)) });
  }
  const height = stops.at(-1)?.y ?? top;
  const y = (t: number): number => {
    const after = stops.findIndex((s) => s.t > t);
    if (after < 0) return height;
    const b = stops[after] as { t: number; y: number };
    const a = stops[after - 1];
    return a ? a.y + ((t - a.t) / (b.t - a.t)) * (b.y - a.y) : b.y;
  };
  return { marks: stops.map((s) => s.y), y, height };
}
