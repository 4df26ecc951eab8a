import type { StoredEvent } from '@/core/visit/event';
import type { Kind, Payload } from '@/core/visit/payloads';
import { typedVisit } from '@/core/visit/typed-visit';
import { demoId } from './ids';
import { cars, ines, sites } from './scenario';

/** Something recorded besides the acts of a visit: so many seconds after the nth event of a kind. */
type Aside = { [K in Kind]: { after: Kind; nth?: number; s: number; kind: K; payload: Payload<K> } }[Kind];

const vrba = sites.vrba.stalls;
/** What Ines noted at Vrba Crossing on 14 October. */
const VRBA: Aside[] = [
  {
    after: 'pulled_in',
    s: 11,
    kind: 'survey',
    payload: {
      stalls: vrba.map((s, i) => ({ stallId: s.id, state: (['charging', 'free', 'derated', 'free', 'charging', 'not_looked'] as const)[i] ?? 'not_looked' })),
    },
  },
  { after: 'fault', nth: 1, s: 21, kind: 'help_called', payload: {} },
  { after: 'fault', nth: 1, s: 58, kind: 'help_answered', payload: {} },
  { after: 'fault', nth: 1, s: 96, kind: 'help_ended', payload: { result: 'none' } },
  { after: 'bill', s: 30, kind: 'figure_given', payload: { figure: 'handshake', seconds: 36, plusMinus_s: 2, startMark: 'plug or card', endMark: 'kW' } },
  { after: 'bill', s: 60, kind: 'rating', payload: { stars: 2 } },
  { after: 'bill', s: 75, kind: 'note', payload: { text: 'The helpline knew of stall 2. Bakery is good.' } },
];

/** Puts asides among a visit's events, at their times and in one order. */
function withAsides(events: readonly StoredEvent[], asides: readonly Aside[]): StoredEvent[] {
  const added = asides.map((a): StoredEvent => {
    const anchor = events.filter((e) => e.kind === a.after)[a.nth ?? 0];
    if (!anchor) throw new Error(`the demo has no ${a.after} to follow`);
    const at = anchor.at + a.s * 1000;
    return { ...anchor, id: demoId(at), kind: a.kind, payload: a.payload as Record<string, unknown>, at, mono: anchor.mono + a.s * 1000 };
  });
  return [...events, ...added].sort((x, y) => x.at - y.at || x.seq - y.seq).map((e, i) => ({ ...e, seq: i + 1 }));
}

/** The visits' events with what was noted beside them. The last visit is the one with the story. */
export const withNotes = (visits: readonly StoredEvent[][]): StoredEvent[][] =>
  visits.map((events, i) => (i === visits.length - 1 ? withAsides(events, VRBA) : events));

/** A visit that was typed in from a receipt a day later: most of it is not known. */
export function typedIn(): StoredEvent[] {
  const at = (hhmm: string) => Date.parse(`2025-08-30T${hhmm}:00Z`);
  const visitId = demoId(at('14:20'));
  return typedVisit({
    siteId: sites.lipa.id,
    stallId: null,
    carId: cars.heron.id,
    drivenBy: null,
    day: at('10:00'),
    pulledIn: at('14:20'),
    plugged: null,
    powerSeen: null,
    stopped: null,
    pulledOut: at('15:10'),
    meansKind: 'contactless',
    meansId: null,
    handshake_s: 50,
    socFrom: 35,
    socTo: 78,
    kWh: '27.9',
    minutes: null,
    amount: '14.23',
    currency: ines.currency,
    fault: null,
    charged: true,
    reason: 'enough',
    note: 'From the receipt. The phone was in the workshop.',
  }).map((e, i): StoredEvent => {
    const made = at('10:00') + 86_400_000;
    return {
      id: demoId(made),
      householdId: ines.householdId,
      personId: ines.personId,
      visitId,
      kind: e.kind,
      v: 1,
      at: e.at,
      precision: e.precision,
      zone: sites.lipa.zone,
      deviceId: ines.deviceId,
      life: visitId,
      mono: 0,
      awake: true,
      seq: i + 1,
      origin: 'typed',
      role: 'recorder',
      payload: e.payload as Record<string, unknown>,
    };
  });
}
