import { type ChargedSession, plainPeriod } from './session-period';

/** A stop of so much energy in so many minutes, from a moment on, and then so long plugged in. @param start UTC ms */
export function exampleStop(zone: string, start: number, kWh: number, minutes: number, parkedMinutes = 0): ChargedSession {
  const end = start + Math.round(minutes * 60_000);
  return {
    zone,
    periods: [plainPeriod(start, end, true, kWh), ...(parkedMinutes > 0 ? [plainPeriod(end, end + Math.round(parkedMinutes * 60_000), false, 0)] : [])],
  };
}

/** The next day of the week on or after a day, ISO. @param weekday 0 is Sunday */
export function nextWeekday(day: string, weekday: number): string {
  const from = new Date(`${day}T12:00:00Z`);
  from.setUTCDate(from.getUTCDate() + ((weekday - from.getUTCDay() + 7) % 7));
  return from.toISOString().slice(0, 10);
}
