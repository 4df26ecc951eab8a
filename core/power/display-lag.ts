/** A meter's display: its step, and whether it truncates or rounds to it. */
export type Display = { resolution_kWh: number; display?: 'truncates' | 'rounds' | undefined };

/**
 * Seconds from the first current until energy reaches the display's first step, power rising in a straight line
 * within the ramp and level after it. A 0.1 kWh display lags by 0.1 kWh ÷ power.
 */
export function displayLag_s({ kW, ramp_s = 0, resolution_kWh, display = 'truncates' }: Display & { kW: number; ramp_s?: number | undefined }): number {
  const step_kWs = (display === 'rounds' ? resolution_kWh / 2 : resolution_kWh) * 3600;
  const ramped_kWs = (kW * ramp_s) / 2;
  return step_kWs <= ramped_kWs ? Math.sqrt((2 * ramp_s * step_kWs) / kW) : step_kWs / kW + ramp_s / 2;
}

/** Mean power between two looks at a meter, and what its display's step leaves open. */
export function meanBetween(
  t_s: readonly [number, number],
  kWh: readonly [number, number],
  resolution_kWh: number,
): { mean_kW: number; low_kW: number; high_kW: number } {
  const hours = (t_s[1] - t_s[0]) / 3600;
  const difference = kWh[1] - kWh[0];
  return { mean_kW: difference / hours, low_kW: Math.max(0, difference - resolution_kWh) / hours, high_kW: (difference + resolution_kWh) / hours };
}
