import { chargingEnd } from '../visit/attempt-times';
import type { Attempt } from '../visit/attempts/attempt';
import type { Visit } from '../visit/derive';
import { curveAt } from './monotone-curve';
import type { Series } from './series';

/** What was noted to go on during a charge that may explain its power, along the battery. */
export type Condition = {
  what: 'neighbour' | 'climate' | 'derate' | 'cold' | 'hot' | 'phases' | 'ramp';
  /** Battery per cent; `null` where the level was not read around it. */
  from: number | null;
  to: number | null;
  /** Where it was noted: as a change in mid-charge, seen on arrival, or as a fault of the attempt. */
  noted: 'during' | 'on arrival' | 'as a fault';
  /** What a derate leaves, or a neighbour; `null` where that is not known. */
  kW: number | null;
};

export const BEGINS = { neighbour_in: 'neighbour', climate_on: 'climate', derate: 'derate', cold: 'cold' } as const;
/** A derate lasts until the next one is noted. */
const ENDS: Partial<Record<Condition['what'], string>> = { neighbour: 'neighbour_out', climate: 'climate_off', derate: 'derate' };
/** Faults that say why less came. When one is noted says not since when it was so. */
const BY_FAULT: Readonly<Record<string, Condition['what']>> = {
  hot_connector: 'hot',
  derated: 'derate',
  shared_drop: 'neighbour',
  fewer_phases: 'phases',
  slow_ramp: 'ramp',
};
/** At or below this outside a battery that was not warmed takes less. Common practice, no source. */
export const COLD_C = 5;

/** The level at a moment of the charge; beyond what was read, that of the nearest look. */
export function levelAt({ soc, clock }: Series, t_s: number): number | null {
  return soc && curveAt(soc, Math.min(soc.x.at(-1) as number, Math.max(soc.x[0] as number, clock.charged(t_s))));
}

const changesOf = (line: Visit['line']) => line.flatMap((e) => (e.kind === 'change' ? [e] : []));

/** Of the stall and not of the car: left behind when another one is chosen. */
const OF_STALL: ReadonlySet<string> = new Set(['neighbour_in', 'neighbour_out', 'derate']);
/** What was noted on the way to and during a charge, without what was noted of a stall tried before. */
function notedHere({ line }: Pick<Visit, 'line'>, before: number) {
  const chosen = line.flatMap((e) => (e.kind === 'stall_chosen' && e.place < before ? [e] : []));
  const here = chosen.at(-1)?.payload.stallId;
  const moved = chosen.findLast((e) => e.payload.stallId !== here);
  const since = moved ? (chosen.find((e) => e.place > moved.place)?.place ?? 0) : Number.NEGATIVE_INFINITY;
  return changesOf(line).filter((e) => e.place > since || !OF_STALL.has(e.payload.what));
}

/** A bay as it was last looked at before something; one that was passed over stays what it was. */
const bayAt = ({ line }: Pick<Visit, 'line'>, stallId: string, before: number) =>
  line
    .flatMap((e) => (e.kind === 'survey' && e.place < before ? e.payload.stalls.map((s) => ({ ...s, place: e.place })) : []))
    .findLast((s) => s.stallId === stallId && s.state !== 'not_looked');

/** What was seen before a charge: a car charging on the same cabinet, with the note that it left, and how far the stall itself was derated. */
function onArrival(visit: Pick<Visit, 'line'>, changes: ReturnType<typeof notedHere>, stallId: string | null, before: number, mates: ReadonlySet<string>) {
  const own = stallId === null ? undefined : bayAt(visit, stallId, before);
  const mate = [...mates].flatMap((id) => bayAt(visit, id, before) ?? []).find((s) => s.state === 'charging');
  const left = mate && changes.find((e) => e.payload.what === 'neighbour_out' && e.place > mate.place);
  return { mate: mate ? { left: left ?? null } : null, derated: own?.state === 'derated' ? { kW: own.kW ?? null } : null };
}

/** Stalls at which a car was seen charging before a session's power came, and not noted to have left by then. */
export function besideOnArrival(visit: Pick<Visit, 'line'>, a: Attempt): string[] {
  const before = a.proof?.place;
  if (before === undefined) return [];
  const left = notedHere(visit, before).filter((e) => e.payload.what === 'neighbour_out' && e.place < before);
  const seen = new Set(visit.line.flatMap((e) => (e.kind === 'survey' ? e.payload.stalls.map((s) => s.stallId) : [])));
  return [...seen].filter((id) => {
    const bay = id === a.stallId ? undefined : bayAt(visit, id, before);
    return bay?.state === 'charging' && !left.some((e) => e.place > bay.place);
  });
}

/** Stalls that share a cabinet with one, of those at its site. */
export const matesOf = (stallId: string | null, cabinet: string | null, atSite: readonly { id: string; fields: { cabinet: string | null } }[]): Set<string> =>
  new Set(atSite.filter((s) => s.id !== stallId && cabinet !== null && s.fields.cabinet === cabinet).map((s) => s.id));

/**
 * What goes on around a charge at the last that was told: a neighbour that draws from the same cabinet, and how far the stall is derated.
 * @param kept what the stall's record says of its state: it holds where nothing was seen today, and until more than that is read
 */
export function aroundNow(
  visit: Pick<Visit, 'line'>,
  a: Attempt,
  mates: ReadonlySet<string>,
  kept: { is: string; kW: number | null } | null,
): { paired: boolean; deratedKW: number | null } {
  const before = a.proof?.place ?? Number.POSITIVE_INFINITY;
  const said = notedHere(visit, before);
  const neighbour = said.findLast((e) => e.payload.what === 'neighbour_in' || e.payload.what === 'neighbour_out');
  const { mate, derated } = onArrival(visit, said, a.stallId, before, mates);
  const still = kept?.is === 'derated' && kept.kW !== null && !a.readings.some((r) => (r.kW ?? 0) > (kept.kW as number)) ? kept.kW : null;
  return {
    paired: neighbour
      ? neighbour.payload.what === 'neighbour_in'
      : (mate !== null && mate.left === null) || a.faults.some((f) => BY_FAULT[f.code] === 'neighbour'),
    deratedKW: said.findLast((e) => e.payload.what === 'derate')?.payload.value ?? derated?.kW ?? still,
  };
}

/**
 * Everything noted about a session that bears on its power. @param mates stalls on the same cabinet
 */
export function conditionsOf(visit: Pick<Visit, 'line'>, a: Attempt, series: Series, mates: ReadonlySet<string>): Condition[] {
  const { proof } = a;
  if (!proof) return [];
  const over = chargingEnd(a) ?? a.ended?.at;
  const t = (ms: number) => (ms - proof.t) / 1000;
  const [first, last] = [series.soc?.y[0] ?? null, series.soc?.y.at(-1) ?? null];
  const changes = notedHere(visit, proof.place);
  const found = changes.flatMap((e): { place: number; is: Condition }[] => {
    const what = BEGINS[e.payload.what as keyof typeof BEGINS];
    if (!what || (over && e.place > over.place)) return [];
    const ends = changes.find((o) => o.place > e.place && o.payload.what === ENDS[what]);
    if (ends && ends.place <= proof.place) return [];
    const within = e.place > proof.place;
    const is: Condition = {
      what,
      // Cold is no event: it was so from the beginning, whenever it was noted.
      from: within && what !== 'cold' ? levelAt(series, t(e.t)) : first,
      to: ends && (!over || ends.place <= over.place) ? levelAt(series, t(ends.t)) : last,
      noted: within ? 'during' : 'on arrival',
      kW: what === 'derate' ? (e.payload.value ?? null) : null,
    };
    return [{ place: e.place, is }];
  });
  const out = found.map((f) => f.is);
  const { mate, derated } = onArrival(visit, changes, a.stallId, proof.place, mates);
  const told = (what: Condition['what'], before: number) => found.some((f) => f.is.what === what && f.place < before);
  const left = mate?.left ?? null;
  // Who is noted to come while it is there is taken for the same car, who comes after it left is another. One that had left when power came took nothing.
  if (mate && !told('neighbour', left?.place ?? Number.POSITIVE_INFINITY) && !(left && left.place <= proof.place))
    out.push({ what: 'neighbour', from: first, to: left ? levelAt(series, t(left.t)) : last, noted: 'on arrival', kW: null });
  // As it was seen it stays until a derate is noted.
  const next = found.find((f) => f.is.what === 'derate');
  if (derated && !told('derate', proof.place)) out.push({ what: 'derate', from: first, to: next ? next.is.from : last, noted: 'on arrival', kW: derated.kW });
  const arrival = visit.line.find((e) => e.kind === 'pulled_in')?.payload;
  if (arrival?.airC !== undefined && arrival.airC <= COLD_C && arrival.preconditioned !== true && !out.some((c) => c.what === 'cold'))
    out.push({ what: 'cold', from: first, to: last, noted: 'on arrival', kW: null });
  for (const { code, mark } of a.faults) {
    const what = BY_FAULT[code];
    // What was noted otherwise says more: since when, until when, how many kW.
    if (!what || out.some((c) => c.what === what)) continue;
    // One that is slow to ramp up was so until it was noted, at the latest.
    const to = what === 'ramp' && !(over && mark.place > over.place) ? levelAt(series, t(mark.t)) : last;
    out.push({ what, from: first, to, noted: 'as a fault', kW: null });
  }
  return out;
}

/** True where a stretch of the battery overlaps what was noted. */
export const overlaps = (c: Condition, from: number, to: number): boolean => (c.from ?? 0) < to && (c.to ?? 100) > from;
