import type { Visit } from './derive';

/** The person to whom alone a visit shows itself: its driver, where it is marked private. The others see that the car was charged, its kWh and money. */
export const privateTo = (v: Pick<Visit, 'marks' | 'driverId'>): string | null => (v.marks.as === 'private' ? v.driverId : null);

/** What the others see of a visit that is private to its driver. */
export type PrivateVisit = { id: string; at: number; zone: string; driver: string; car: string; delivered: Visit['delivered']; paid: Visit['paid'] };

/** True when somebody may see all of a visit. */
export const seesAll = (v: Pick<Visit, 'marks' | 'driverId'>, personId: string): boolean => [null, personId].includes(privateTo(v));
