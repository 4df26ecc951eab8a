import { createHash } from 'node:crypto';
import { type CarLogRefused, type LogSample, readCarLog } from '@/core/formats/car-log';
import { chargeOf } from '@/core/power/charge-of';
import { aligningLog, hasSession, isTold, keptSamples, LEAST_APART_S, type LogAligned, type Look, type TapErrors, tapErrors } from '@/core/power/log-align';
import { grouped } from '@/core/units/grouped';
import { deriveVisit } from '@/core/visit/derive';
import { effectiveEvents } from '@/core/visit/effective';
import type { StoredEvent } from '@/core/visit/event';
import { payloadProblem } from '@/core/visit/payloads';
import { seesAll } from '@/core/visit/private';
import type { Member } from '../accounts/who';
import { unhurried } from '../unhurried';
import { eventsOfVisits } from '../visits/event-rows';
import { idOf, importedEvent, sendImported } from './imported-events';

export type CarLogTold = {
  importId: string;
  samples: number;
  skipped: number;
  columns: Record<string, string>;
  turned: boolean;
  /** Beside which session it lies and how well; `null`: it fits none. */
  session: { n: number; aligned: LogAligned; told: boolean; errors: TapErrors } | null;
  /** Other sessions of the visit that it has, by the same clock: told where the first is. */
  also: { n: number; errors: TapErrors }[];
  /** Readings that would come in, and how many of them are there. */
  readings: number;
  there: number;
};
export type CarLogAnswer = { ok: true; told: CarLogTold; taken?: number } | { ok: false; refused: CarLogRefused };

/** The readings of a visit that came with logs: a log tells of nothing else, where a sheet tells of a visit, and a program says what its events come from. */
function loggedIn(events: readonly StoredEvent[]): StoredEvent[] {
  const ofMore = new Set(events.filter((e) => e.kind !== 'reading' && e.kind !== 'withdrawal').map((e) => e.deviceId));
  return events.filter(
    (e) => e.kind === 'reading' && e.origin === 'imported' && e.payload.screen === 'car' && e.payload.source === undefined && !ofMore.has(e.deviceId),
  );
}
const goneOf = (visitId: string, events: readonly StoredEvent[]): ReadonlySet<string> => effectiveEvents(events, visitId, () => null).gone;

type Session = { n: number; proof_t: number; end_s: number; looks: Look[] };

/**
 * Lays a car's own log beside a visit: which session it goes with, how far each tap is from it, and, with `take`, its readings as the car's, thinned.
 * @returns `null` for a visit that is unknown here, or private to somebody else
 */
export async function importCarLog(who: Member, visitId: string, bytes: Uint8Array, take: boolean): Promise<CarLogAnswer | null> {
  const events = (await eventsOfVisits(who.householdId, [visitId])).get(visitId);
  const visit = events && deriveVisit(visitId, events, payloadProblem);
  if (!visit || visit.withdrawn || !seesAll(visit, who.personId)) return null;
  const log = readCarLog(bytes);
  if (!log.ok) return { ok: false, refused: log };
  const importId = idOf(visitId, `log ${createHash('sha256').update(bytes).digest('hex')}`);
  const gone = goneOf(visitId, events);
  const mine = events.filter((e) => e.kind === 'reading' && e.deviceId === importId);
  const standing = mine.filter((e) => !gone.has(e.id));
  // What a log brought does not tell where it lies, and is not what somebody tapped.
  const logged = loggedIn(events);
  const own = new Set(logged.map((e) => e.id));
  const others = logged.filter((e) => e.deviceId !== importId && !gone.has(e.id)).map((e) => e.at);
  const sessions = visit.attempts.flatMap((a): Session[] => {
    const end_s = chargeOf(a, visit)?.end?.t_s ?? null;
    if (!a.proof || end_s === null) return [];
    const proof_t = a.proof.t;
    const looks = a.readings.flatMap((r) => (r.kW === undefined || own.has(r.mark.id) ? [] : [{ t_s: (r.mark.t - proof_t) / 1000, kW: r.kW }]));
    return [{ n: a.n, proof_t, end_s, looks }];
  });
  const beside: { s: Session; aligned: LogAligned }[] = [];
  for (const s of sessions) {
    const aligned = await unhurried(aligningLog(s.looks, s.end_s, log.samples));
    if (aligned) beside.push({ s, aligned });
  }
  const found = beside.sort((x, y) => y.aligned.r - x.aligned.r)[0];
  const told = found !== undefined && isTold(found.aligned);
  // Where its line lies beside one session it lies beside the others, too: they were tapped by one clock.
  const offsetOf = (s: Session) => (found ? found.aligned.offset_s + (found.s.proof_t - s.proof_t) / 1000 : 0);
  const errorsOf = (s: Session) => ({ n: s.n, errors: tapErrors(s.looks, s.end_s, log.samples, offsetOf(s)) });
  const also = told ? sessions.filter((s) => s !== found.s && hasSession(log.samples, offsetOf(s), s.end_s)) : [];
  const all = (told ? [found.s, ...also] : []).flatMap((s) =>
    keptSamples<LogSample>(log.samples, offsetOf(s), s.end_s).map((k) => ({ ...k, at: Math.round(s.proof_t + k.t_s * 1000) })),
  );
  // Where another log stands already this one tells the same once more.
  const kept = all.filter(({ at }) => !others.some((there) => Math.abs(there - at) < LEAST_APART_S * 1000));
  const answer: CarLogTold = {
    importId,
    samples: log.samples.length,
    skipped: log.skipped,
    columns: log.columns as Record<string, string>,
    turned: log.turned,
    session: found ? { ...errorsOf(found.s), aligned: found.aligned, told } : null,
    also: also.map(errorsOf),
    readings: kept.length,
    there: standing.length,
  };
  if (!take || kept.length === 0) return { ok: true, told: answer };
  const most = Math.max(...events.map((e) => e.seq));
  // Taken back before, each comes in again under an id of its own.
  const times = mine.length === 0 ? 0 : 1 + Math.max(...mine.map((e) => Number(e.payload.again ?? 0)));
  const fresh =
    standing.length > 0
      ? []
      : kept.map(({ at, kW, socPct, V, A }, i) =>
          importedEvent(who, {
            id: idOf(visitId, `${importId} ${times} ${i}`),
            visitId,
            zone: visit.zone,
            seq: most + 1 + i,
            kind: 'reading',
            at,
            precision: 's',
            importId,
            payload: {
              screen: 'car',
              ...(kW === undefined ? {} : { kW: Math.max(0, Number(kW.toFixed(2))) }),
              ...(socPct === undefined ? {} : { socPct: Number(socPct.toFixed(1)) }),
              ...(V === undefined ? {} : { V: Number(V.toFixed(1)) }),
              ...(A === undefined ? {} : { A: Math.max(0, Number(A.toFixed(1))) }),
              ...(times === 0 ? {} : { again: times }),
            },
          }),
        );
  const { taken } = await sendImported(who, fresh);
  return { ok: true, told: { ...answer, there: standing.length + taken }, taken };
}

/** Takes the readings of a log back, each by a withdrawal of its own. @returns how many */
export async function undoCarLog(who: Member, visitId: string, importId: string): Promise<number> {
  const events = (await eventsOfVisits(who.householdId, [visitId])).get(visitId);
  if (!events || !seesAll(deriveVisit(visitId, events, payloadProblem), who.personId)) return 0;
  const gone = goneOf(visitId, events);
  const standing = loggedIn(events).filter((e) => e.deviceId === importId && !gone.has(e.id));
  const most = Math.max(...events.map((e) => e.seq));
  const times = (id: string) => events.filter((e) => e.kind === 'withdrawal' && e.payload.target === id).length;
  const back = standing.map((e, i) =>
    importedEvent(who, {
      id: idOf(e.id, `back ${times(e.id) || ''}`.trim()),
      visitId,
      zone: e.zone,
      seq: most + 1 + i,
      kind: 'withdrawal',
      payload: { target: e.id },
      importId,
    }),
  );
  return (await sendImported(who, back)).taken;
}

/** The logs whose readings stand in a visit, to be taken back. */
export async function carLogsOf(who: Member, visitId: string): Promise<{ importId: string; readings: number }[]> {
  const events = (await eventsOfVisits(who.householdId, [visitId])).get(visitId) ?? [];
  const gone = goneOf(visitId, events);
  const standing = loggedIn(events).filter((e) => !gone.has(e.id));
  return [...grouped(standing, (e) => e.deviceId)].map(([importId, list]) => ({ importId, readings: list.length }));
}
