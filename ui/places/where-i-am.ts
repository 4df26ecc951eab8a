import type { Position } from '@/core/records/place-questions';

/** Where this device is; it is asked for nowhere else, and sent nowhere. @throws with a sentence when the browser does not say */
export const whereIAm = (): Promise<Position> =>
  new Promise((done, fail) => {
    if (!navigator.geolocation) return fail(new Error('This browser does not tell where it is.'));
    navigator.geolocation.getCurrentPosition(
      (p) => done({ latitude: p.coords.latitude, longitude: p.coords.longitude }),
      () => fail(new Error('The position was not given.')),
      { timeout: 10_000, maximumAge: 60_000 },
    );
  });

/** Whether asking shows no question: it was allowed before. */
export async function mayAskWhere(): Promise<boolean> {
  try {
    return (await navigator.permissions.query({ name: 'geolocation' })).state === 'granted';
  } catch {
    return false;
  }
}
