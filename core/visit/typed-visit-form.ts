import { faultOf } from '../faults/fault-list';
import { MEANS_KIND_NAMES, type MeansKind } from '../records/means-kind';
import { privateNumber } from '../records/private-number';
import { MOST_AMOUNT } from '../units/money';
import { dayAfter } from '../units/zoned';
import type { Payload } from './payloads';
import type { TypedVisit } from './typed-visit';

/** The form as it stands: texts, empty where nothing is known. Times are `13:52` of the site's day, `day` is `2025-10-14`. */
export type TypedTexts = Record<
  | 'siteId'
  | 'stallId'
  | 'carId'
  | 'drivenBy'
  | 'day'
  | 'pulledIn'
  | 'plugged'
  | 'powerSeen'
  | 'stopped'
  | 'pulledOut'
  | 'means'
  | 'handshake'
  | 'socFrom'
  | 'socTo'
  | 'kWh'
  | 'minutes'
  | 'amount'
  | 'currency'
  | 'fault'
  | 'charged'
  | 'reason'
  | 'note',
  string
>;

const TIMES = ['pulledIn', 'plugged', 'powerSeen', 'stopped', 'pulledOut'] as const;
/** A time so far before the one above it is of the day after; a nearer one is a mistake. */
const OVER_MIDNIGHT_MS = 12 * 3600 * 1000;

/** `33.4` or `1:05` or `1:05.2` as seconds; `null` when it is none. */
export function readSeconds(text: string): number | null {
  const m = /^(?:(\d{1,3}):)?(\d{1,4}(?:\.\d)?)$/.exec(text.trim().replace(',', '.'));
  if (!m) return null;
  const seconds = Number(m[2]);
  if (m[1] !== undefined && seconds >= 60) return null;
  return Number(m[1] ?? 0) * 60 + seconds;
}

/**
 * Reads the form of a visit typed in afterwards.
 * @param instants UTC ms of a local time at the site, two where the clock is put back, none when it is no time
 * @param now UTC ms: nothing is typed in before it happened
 * @returns what is wrong by field, and the visit when nothing is
 */
export function readTypedVisit(
  t: TypedTexts,
  instants: (day: string, time: string) => number[],
  now: number,
): { visit: TypedVisit | null; problems: Partial<Record<keyof TypedTexts, string>> } {
  const problems: Partial<Record<keyof TypedTexts, string>> = {};
  if (t.siteId === '') problems.siteId = 'Which site?';
  const noon = t.day === '' ? null : (instants(t.day, '12:00')[0] ?? null);
  if (noon === null) problems.day = 'Which day?';
  else if ((instants(t.day, '00:00')[0] ?? noon) > now) problems.day = 'This day has not come yet';

  const times: Record<(typeof TIMES)[number], number | null> = { pulledIn: null, plugged: null, powerSeen: null, stopped: null, pulledOut: null };
  let before = Number.NEGATIVE_INFINITY;
  for (const name of TIMES) {
    if (t[name].trim() === '' || noon === null) continue;
    // Of two at which the clock shows it, the first that is not before the time above it.
    const shown = (day: string) => {
      const all = instants(day, t[name].trim());
      return all.find((at) => at >= before) ?? all[0];
    };
    let at = shown(t.day);
    if (at === undefined) {
      problems[name] = 'A time such as 13:52';
      continue;
    }
    if (before - at >= OVER_MIDNIGHT_MS) at = shown(dayAfter(t.day)) ?? at;
    if (at < before) problems[name] = 'Is before the time above it';
    else if (at > now) problems[name] = 'This time has not come yet';
    else {
      times[name] = at;
      before = at;
    }
  }

  const figure = (name: 'socFrom' | 'socTo' | 'kWh' | 'minutes' | 'amount', most: number, unit: string): string | null => {
    const text = t[name].trim().replace(',', '.');
    if (text === '') return null;
    if (!/^\d+(\.\d+)?$/.test(text)) problems[name] = 'Not a number';
    else if (Number(text) > most) problems[name] = `At most ${most} ${unit}`.trim();
    else return text;
    return null;
  };
  const [socFrom, socTo] = [figure('socFrom', 100, '%'), figure('socTo', 100, '%')];
  const [kWh, minutes, amount] = [figure('kWh', 2000, 'kWh'), figure('minutes', 2880, 'min'), figure('amount', MOST_AMOUNT, '')];
  if (socFrom !== null && socTo !== null && Number(socTo) < Number(socFrom)) problems.socTo = 'Is below the level on arrival';
  const handshake_s = t.handshake.trim() === '' ? null : readSeconds(t.handshake);
  if (t.handshake.trim() !== '' && handshake_s === null) problems.handshake = 'Such as 33.4 or 1:05';
  else if (handshake_s !== null && handshake_s > 7200) problems.handshake = 'At most two hours';
  if (!/^[A-Z]{3}$/.test(t.currency)) problems.currency = 'Three letters, such as EUR';
  const charged = t.charged !== 'no';
  if (!charged && t.reason === 'enough') problems.reason = 'Why did you leave without a charge?';
  const known = faultOf(t.fault);
  const note = t.note.trim();
  const number = privateNumber(note);
  if (number) problems.note = number;
  if (note.length > 2000) problems.note = 'At most 2000 characters';
  if (Object.keys(problems).length > 0 || noon === null) return { visit: null, problems };

  // The means is one held, by its id, or a kind: `rfid 018e…` or `rfid`.
  const [kind = '', meansId] = t.means.split(' ');
  return {
    problems,
    visit: {
      siteId: t.siteId,
      stallId: t.stallId || null,
      carId: t.carId || null,
      drivenBy: t.drivenBy || null,
      day: noon,
      ...times,
      meansKind: (MEANS_KIND_NAMES as readonly string[]).includes(kind) ? (kind as MeansKind) : null,
      meansId: meansId ?? null,
      handshake_s,
      socFrom: socFrom === null ? null : Number(socFrom),
      socTo: socTo === null ? null : Number(socTo),
      kWh,
      minutes: minutes === null ? null : Number(minutes),
      amount,
      currency: t.currency,
      fault: known ? { code: known.code, side: known.side } : null,
      charged,
      reason: t.reason as Payload<'pulled_out'>['reason'],
      note: note || null,
    },
  };
}
