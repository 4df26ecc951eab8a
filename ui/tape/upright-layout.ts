/** Vertical places for an upright tape: time runs down, long waits are shortened so that all marks stay legible. */
export type UprightLayout = { y: (t: number) => number; height: number };

const LEAST = 32;
const MOST = 92;

/**
 * @param times of the marks in order, UTC ms
 * @returns y in px for any time: straight between marks; height down to the last mark
 */
export function uprightLayout(times: readonly number[], top = 22): UprightLayout {
  const stops: { t: number; y: number }[] = [];
  for (const t of times) {
    const last = stops.at(-1);
    if (!last) stops.push({ t, y: top });
    else stops.push({ t: Math.max(t, last.t), y: last.y + Math.min(MOST, LEAST + 7 * Math.log2(1 + Math.max(0, t - last.t) / 4000)) });
  }
  const height = stops.at(-1)?.y ?? top;
  const y = (t: number): number => {
    const first = stops[0];
    if (!first || t <= first.t) return first?.y ?? top;
    for (let i = 1; i < stops.length; i++) {
      const a = stops[i - 1] as { t: number; y: number };
      const b = stops[i] as { t: number; y: number };
      if (t <= b.t) return b.t === a.t ? b.y : a.y + ((t - a.t) / (b.t - a.t)) * (b.y - a.y);
    }
    return height;
  };
  return { y, height };
}
