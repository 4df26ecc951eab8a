import type { MeansKind } from '@/core/records/means-kind';

/** What this phone remembers to save taps: the last sites, the car, the means by network. Forgotten at signing out. */
const SITES = 'mile.recentSites';
const CAR = 'mile.car';
const MEANS = 'mile.usualMeans';
type Means = { meansKind: MeansKind; meansId?: string };

function read<T>(key: string, none: T): T {
  try {
    return (JSON.parse(localStorage.getItem(key) ?? 'null') as T | null) ?? none;
  } catch {
    return none;
  }
}

/** Sites last pulled in at, newest first. */
export const recentSites = (): string[] => read(SITES, []);
export const lastCar = (): string | null => localStorage.getItem(CAR);
export function rememberPullIn(siteId: string, carId: string | undefined): void {
  localStorage.setItem(SITES, JSON.stringify([siteId, ...recentSites().filter((id) => id !== siteId)].slice(0, 20)));
  if (carId) localStorage.setItem(CAR, carId);
}

export const meansUsedAt = (networkId: string): Means | undefined => read<Record<string, Means>>(MEANS, {})[networkId];
export function rememberMeans(networkId: string | undefined, means: Means): void {
  if (!networkId) return;
  localStorage.setItem(
    MEANS,
    JSON.stringify({
      ...read<Record<string, Means>>(MEANS, {}),
      [networkId]: { meansKind: means.meansKind, ...(means.meansId ? { meansId: means.meansId } : {}) },
    }),
  );
}

export function forgetHabits(): void {
  for (const key of [SITES, CAR, MEANS]) localStorage.removeItem(key);
}
