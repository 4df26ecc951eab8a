type SocReading = { t: number; socPct: number };

/**
 * When the battery will show its next full ten, so that the reading is not missed: by the pace of the last two
 * readings, else by power over capacity. UTC ms; `null` when nothing tells, or at 100 %.
 * @param kW power read last, @param usableKWh of the car
 */
export function nextTen(readings: readonly SocReading[], kW: number | null, usableKWh: number | null): { pct: number; at: number } | null {
  const last = readings.at(-1);
  if (!last || last.socPct >= 100) return null;
  const before = readings.findLast((r) => r.socPct < last.socPct && r.t < last.t);
  const perMs = before ? (last.socPct - before.socPct) / (last.t - before.t) : kW !== null && kW > 0 && usableKWh ? ((kW / usableKWh) * 100) / 3_600_000 : null;
  if (perMs === null || perMs <= 0) return null;
  const pct = Math.min(100, Math.floor(last.socPct / 10) * 10 + 10);
  return { pct, at: last.t + (pct - last.socPct) / perMs };
}
