/** The demo's today: the day after its last visit. */
export const DEMO_TODAY = '2025-10-15';

/** What to add to the world's clock so that the date is the demo's today and the time of day stays. @param worldMs UTC ms */
export const demoOffsetMs = (worldMs: number): number => Date.parse(`${DEMO_TODAY}T00:00:00Z`) - Math.floor(worldMs / 86_400_000) * 86_400_000;
