import { typedNumber } from './form-fields';

/** Zone of a position, asked of the server. */
export type ZoneAt = (latitude: number, longitude: number) => Promise<string | null>;
type Form = { latitude: () => string; longitude: () => string; zone: () => string; setZone: (zone: string) => void };

/**
 * Fills in the zone of a position as it is typed: once for each position that is new, by the answer to the last that was asked, and never over
 * a zone that was typed meanwhile.
 * @param start the position that the form opens with: what stands there was chosen for it
 */
export function fillingZone(zoneAt: ZoneAt, start: { latitude: number | null; longitude: number | null } | null): (form: Form) => Promise<void> {
  let last = start && start.latitude !== null && start.longitude !== null ? `${start.latitude} ${start.longitude}` : '';
  return async (form) => {
    const [latitude, longitude] = [typedNumber(form.latitude()), typedNumber(form.longitude())];
    const here = `${latitude} ${longitude}`;
    if (here === last) return;
    last = here;
    if (typeof latitude !== 'number' || typeof longitude !== 'number' || Math.abs(latitude) > 90 || Math.abs(longitude) > 180) return;
    const before = form.zone();
    const found = await zoneAt(latitude, longitude);
    if (found && last === here && form.zone() === before) form.setZone(found);
  };
}
