import { type AttemptRef, matchingSessions } from '@/core/formats/match-sessions';
import type { SheetRow } from '@/core/formats/sheet-row';
import { rowTells } from '@/core/formats/sheet-visit';
import type { Visit } from '@/core/visit/derive';
import type { Member } from '../accounts/who';
import { unhurried } from '../unhurried';
import { sessionsAround } from './visits-around';

/** For each row the recorded visit that it may be, by place, time and energy, the first of several; `may`: all of them. @param own ids of the file's own visits, which are no others @returns `null` where too many stand near */
export async function nearVisits(
  who: Member,
  rows: readonly SheetRow[],
  own: ReadonlySet<string>,
): Promise<{ near: Map<number, { visitId: string; n: number }>; may: Map<number, readonly AttemptRef[]>; visits: Map<string, Visit> } | null> {
  const charges = rows.filter((r) => ['charged', 'failed'].includes(rowTells(r)));
  const around = await sessionsAround(
    who,
    charges.map((r) => r.start),
    own,
  );
  if (!around) return null;
  const { visits, attempts } = around;
  const { pairs, asks } = await unhurried(
    matchingSessions(
      charges.map((r) => ({
        id: String(r.line),
        site: r.site,
        stall: r.stall,
        start: r.start,
        dayOnly: r.startPrecision === 'day',
        kWh: r.kWh,
        credits: null,
      })),
      attempts,
    ),
  );
  const may = new Map<number, readonly AttemptRef[]>([
    ...asks.map((a) => [Number(a.item), a.candidates] as const),
    ...pairs.map((p) => [Number(p.item), [[p.visitId, p.n]]] as const),
  ]);
  const near = new Map([...may].flatMap(([line, [first]]) => (first ? [[line, { visitId: first[0], n: first[1] }] as const] : [])));
  return { near, may, visits };
}
