/** Kilometres of an international mile: 1.609344 by definition (international yard and pound agreement of 1959, from memory). */
export const KM_PER_MILE = 1.609344;

/** In what a distance is read and typed; it is kept in kilometres. */
export type DistanceUnit = 'km' | 'mi';

/** What stands on an odometer or sign, to a tenth. @param km kilometres */
export const fromKm = (km: number, unit: DistanceUnit): number => Number((unit === 'mi' ? km / KM_PER_MILE : km).toFixed(1));
/** Kilometres of what was read there, to the metre: read again, it is the same figure. */
export const toKm = (read: number, unit: DistanceUnit): number => (unit === 'mi' ? Number((read * KM_PER_MILE).toFixed(3)) : read);
