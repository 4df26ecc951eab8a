import { deriveVisit, type Visit } from './derive';
import type { StoredEvent } from './event';
import { idOf, LIFE, PHONE, SITE, STALL_A, STALL_B, T0, VISIT } from './fixtures/story';
import cases from './fixtures/timeline.json';
import type { Kind } from './payloads';
import { payloadProblem } from './payloads';

/**
 * Visits as plain lists of events with the figures they must give, worked out by hand beside the code (no published source).
 * `t`: seconds from the pulling in; `wall`: where the phone's wall clock says something else; `dev`, `role`: another phone;
 * `of`: the corrected event by its place in the list, `at` its corrected time.
 */
type Line = { t: number; kind: string; [more: string]: unknown };
type Expect = Record<string, unknown>;

const DEVICES: Record<string, string> = { a: PHONE, b: idOf(5), c: idOf(61), d: idOf(62) };
const STALLS: Record<string, string> = { a: STALL_A, b: STALL_B };
const MEANS = { meansKind: 'contactless' };

function payloadOf(e: Line): Record<string, unknown> {
  switch (e.kind) {
    case 'pulled_in':
      return { siteId: SITE };
    case 'stall_chosen':
      return { stallId: STALLS[e.stall as string] };
    case 'means_shown':
      return MEANS;
    case 'power_seen':
      return { screen: 'stall', mark: 'kW', value: e.kw };
    case 'reading':
      return {
        screen: 'stall',
        ...(e.kw === undefined ? {} : { kW: e.kw }),
        ...(e.kwh === undefined ? {} : { kWh: String(e.kwh) }),
        ...(e.meter_start === undefined ? {} : { meterStart: e.meter_start }),
        ...(e.meter_end === undefined ? {} : { meterEnd: e.meter_end }),
      };
    case 'change':
      return { what: e.what };
    case 'fault':
      return { code: e.fault, side: e.fault === 'adapter_not_recognised' ? 'adapter' : 'network' };
    case 'stop_asked':
      return { by: e.by };
    case 'power_gone':
      return e.why ? { why: e.why } : {};
    case 'pulled_out':
      return { reason: e.reason ?? 'enough' };
    case 'bill':
      return { sessions: [], amount: e.amount, currency: 'EUR', kWh: e.kwh, state: 'charged' };
    case 'correction':
      return { target: idOf(100 + (e.of as number)), at: T0 + (e.at as number) * 1000 };
    default:
      return {};
  }
}

const eventsOf = (lines: readonly Line[]): StoredEvent[] =>
  lines.map(
    (e, i): StoredEvent => ({
      id: idOf(100 + i),
      householdId: idOf(1),
      personId: idOf(2),
      visitId: VISIT,
      kind: e.kind,
      v: 1,
      at: T0 + ((e.wall as number | undefined) ?? e.t) * 1000,
      precision: (e.precision as StoredEvent['precision'] | undefined) ?? 'ms',
      zone: 'Europe/Ljubljana',
      deviceId: DEVICES[(e.dev as string | undefined) ?? 'a'] as string,
      life: LIFE,
      mono: 10_000 + e.t * 1000,
      awake: true,
      seq: i + 1,
      origin: e.precision === 'day' ? 'typed' : 'tap',
      role: (e.role as StoredEvent['role'] | undefined) ?? 'recorder',
      payload: payloadOf(e),
    }),
  );

/** Each figure a case may name, from the visit. */
const FIGURES: Record<string, (v: Visit) => unknown> = {
  attempts: (v) => v.attempts.length,
  sessions: (v) => v.attempts.filter((a) => a.proof).length,
  outcomes: (v) => v.attempts.map((a) => a.outcome.kind),
  first_try: (v) => v.firstTry.answer === 'yes',
  kwh: (v) => (v.delivered.known ? Number(v.delivered.value) : null),
  kwh_text: (v) => (v.delivered.known ? v.delivered.value : null),
  average_kw: (v) => (v.average.known ? v.average.value : null),
  charging_s: (v) => (v.times.charging.known ? v.times.charging.s : null),
  side: (v) => (v.attempts[0]?.outcome as { side?: string } | undefined)?.side,
  code: (v) => (v.attempts[0]?.outcome as { code?: string } | undefined)?.code,
  handshake_s: (v) => exact(v, 'handshake'),
  plug_to_power_s: (v) => exact(v, 'plugToPower'),
  handshake_at_most_s: (v) => {
    const h = v.attempts.find((a) => a.proof)?.times.handshake;
    return h?.known && h.bound === 'at_most' ? h.s : null;
  },
};
function exact(v: Visit, name: 'handshake' | 'plugToPower'): number | null {
  const t = v.attempts.find((a) => a.proof)?.times[name];
  return t?.known && t.bound === 'exact' ? t.s : null;
}

describe.each(cases as unknown as { id: string; about: string; events: Line[]; expect: Expect }[])('$id: $about', ({ events, expect: want }) => {
  const all = eventsOf(events);
  it('holds only events that the record takes', () => expect(all.map((e) => payloadProblem(e.kind as Kind, e.payload))).toEqual(all.map(() => null)));
  const v = deriveVisit(VISIT, all, payloadProblem);
  it.each(Object.entries(want))('%s is %j', (name, value) => {
    if (name === 'pm_over') {
      const h = v.attempts.find((a) => a.proof)?.times.handshake;
      expect(h?.known ? h.pm_s : 0).toBeGreaterThan(value as number);
    } else if (Array.isArray(value) && typeof value[0] === 'number') {
      const got = FIGURES[name]?.(v) as number;
      expect(got).toBeGreaterThanOrEqual(value[0]);
      expect(got).toBeLessThanOrEqual(value[1]);
    } else expect(FIGURES[name]?.(v)).toEqual(value);
  });
});
