import type { MeansKind } from '@/core/records/means-kind';
import type { StartOrder } from '@/core/visit/start-order';

/** What this phone remembers to save taps: the last sites, the car, the means by network, the order that starts a stall. Forgotten at signing out. */
const SITES = 'mile.recentSites';
const CAR = 'mile.car';
const MEANS = 'mile.usualMeans';
const ORDER = 'mile.startOrder';
type Means = { meansKind: MeansKind; meansId?: string };

function read<T>(key: string, none: T): T {
  try {
    return (JSON.parse(localStorage.getItem(key) ?? 'null') as T | null) ?? none;
  } catch {
    return none;
  }
}

/** Sites last pulled in at, newest first. */
/** Where nothing can be remembered, taps are not saved; nothing else is lost. */
function write(key: string, value: unknown): void {
  try {
    localStorage.setItem(key, JSON.stringify(value));
  } catch {
    // Full or refused.
  }
}

export const recentSites = (): string[] => read(SITES, []);
export const lastCar = (): string | null => read<string | null>(CAR, null);
export function rememberPullIn(siteId: string | undefined, carId: string | undefined): void {
  if (siteId) write(SITES, [siteId, ...recentSites().filter((id) => id !== siteId)].slice(0, 20));
  if (carId) write(CAR, carId);
}

export const meansUsedAt = (networkId: string): Means | undefined => read<Record<string, Means>>(MEANS, {})[networkId];
export function rememberMeans(networkId: string | undefined, means: Means): void {
  if (!networkId) return;
  write(MEANS, {
    ...read<Record<string, Means>>(MEANS, {}),
    [networkId]: { meansKind: means.meansKind, ...(means.meansId ? { meansId: means.meansId } : {}) },
  });
}

/** The order in which a stall started last time; at another stall of the network, the network's. */
export const orderAt = (stallId: string, networkId: string | undefined): StartOrder | null => {
  const orders = read<Record<string, StartOrder>>(ORDER, {});
  return orders[stallId] ?? (networkId ? (orders[networkId] ?? null) : null);
};
export function rememberOrder(stallId: string, networkId: string | undefined, order: StartOrder): void {
  write(ORDER, { ...read<Record<string, StartOrder>>(ORDER, {}), [stallId]: order, ...(networkId ? { [networkId]: order } : {}) });
}

export function forgetHabits(): void {
  for (const key of [SITES, CAR, MEANS, ORDER]) localStorage.removeItem(key);
}
