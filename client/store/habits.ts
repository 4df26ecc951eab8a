import type { MeansKind } from '@/core/records/means-kind';
import type { StartOrder } from '@/core/visit/start-order';

/** What this phone remembers to save taps: the last sites, the car, the means by network, the order that starts a stall. Forgotten at signing out. */
const SITES = 'mile.recentSites';
const CAR = 'mile.car';
const MEANS = 'mile.usualMeans';
const ORDER = 'mile.startOrder';
const LEG = 'mile.nextLeg';
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

/** Where the drive goes next, as typed at the stall. It is of no record: a way that was driven is. */
export type NextLeg = {
  /** The visit at which it was typed: at the next one it is asked anew, the reserve stays. */
  visitId: string;
  km: number | null;
  reservePct: number;
  fallback_km: number | null;
  /** How fast the way is driven on average, km/h; kept for the next visit, as the reserve is. */
  kmh: number;
  /** A site to stop at on the way, and the way on from there; `direct_km`: past it, where the stop may be left out. */
  next: { siteId: string; km: number; after_km: number; direct_km: number | null } | null;
};
const USUAL_RESERVE_PCT = 10;
const USUAL_KMH = 80;
export function nextLeg(visitId: string): NextLeg {
  const leg = read<NextLeg | null>(LEG, null);
  const kmh = leg?.kmh ?? USUAL_KMH;
  return leg?.visitId === visitId
    ? { ...leg, kmh }
    : { visitId, km: null, reservePct: leg?.reservePct ?? USUAL_RESERVE_PCT, fallback_km: null, kmh, next: null };
}
export const rememberLeg = (leg: NextLeg): void => write(LEG, leg);

export function forgetHabits(): void {
  for (const key of [SITES, CAR, MEANS, ORDER, LEG]) localStorage.removeItem(key);
}
