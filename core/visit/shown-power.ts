import type { Reading } from './attempts/attempt';

export type Screen = 'stall' | 'car';

/** The power a look at a screen tells: as shown, else volts × amps of the very same look. */
export function powerOf({ kW, V, A }: { kW?: number | undefined; V?: number | undefined; A?: number | undefined }): { kW: number; how: 'read' | 'VxA' } | null {
  if (kW !== undefined) return { kW, how: 'read' };
  return V !== undefined && A !== undefined ? { kW: (V * A) / 1000, how: 'VxA' } : null;
}

/** The screen that a charge's power is taken from: the one read more often, else the stall's; the two differ by some kW, and a mixture would show steps that never happened. */
export const powerScreen = (looks: { stall: readonly unknown[]; car: readonly unknown[] }): Screen => (looks.car.length > looks.stall.length ? 'car' : 'stall');

/** The looks at its power that a session's curve, tape and peak are made of. UTC ms. */
export function powerLooks(readings: readonly Pick<Reading, 'screen' | 'mark' | 'kW' | 'V' | 'A'>[]): { screen: Screen; points: { t: number; kW: number }[] } {
  const looks: Record<Screen, { t: number; kW: number }[]> = { stall: [], car: [] };
  for (const r of readings) {
    const power = powerOf(r);
    if (power) looks[r.screen].push({ t: r.mark.t, kW: power.kW });
  }
  const screen = powerScreen(looks);
  return { screen, points: looks[screen] };
}
