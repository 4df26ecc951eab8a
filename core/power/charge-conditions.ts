import { chargingEnd } from '../visit/attempt-times';
import type { Attempt } from '../visit/attempts/attempt';
import type { Visit } from '../visit/derive';
import { curveAt } from './monotone-curve';
import type { Series } from './series';

/** What was noted to go on during a charge that may explain its power, along the battery. */
export type Condition = {
  what: 'neighbour' | 'climate' | 'derate' | 'cold' | 'hot';
  /** Battery per cent; `null` where the level was not read around it. */
  from: number | null;
  to: number | null;
  /** Where it was noted: in mid-charge, or seen on arrival. */
  noted: 'during' | 'on arrival';
  kW: number | null;
};

const BEGINS = { neighbour_in: 'neighbour', climate_on: 'climate', derate: 'derate', cold: 'cold' } as const;
const ENDS: Partial<Record<Condition['what'], string>> = { neighbour: 'neighbour_out', climate: 'climate_off' };
/** At or below this outside a battery that was not warmed takes less. Common practice, no source. */
export const COLD_C = 5;

/** The level at a moment of the charge; beyond what was read, that of the nearest look. */
function levelAt({ soc, clock }: Series, t_s: number): number | null {
  return soc && curveAt(soc, Math.min(soc.x.at(-1) as number, Math.max(soc.x[0] as number, clock.charged(t_s))));
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
  const changes = visit.line.flatMap((e) => (e.kind === 'change' ? [e] : []));
  const out: Condition[] = changes.flatMap((e): Condition[] => {
    const what = BEGINS[e.payload.what as keyof typeof BEGINS];
    if (!what || (over && e.place > over.place)) return [];
    const ends = changes.find((o) => o.place > e.place && o.payload.what === ENDS[what]);
    if (ends && ends.place <= proof.place) return [];
    const within = e.place > proof.place;
    return [
      {
        what,
        // Cold is no event: it was so from the beginning, whenever it was noted.
        from: within && what !== 'cold' ? levelAt(series, t(e.t)) : first,
        to: ends && (!over || ends.place <= over.place) ? levelAt(series, t(ends.t)) : last,
        noted: within ? 'during' : 'on arrival',
        kW: what === 'derate' ? (e.payload.value ?? null) : null,
      },
    ];
  });
  const survey = visit.line.findLast((e) => e.kind === 'survey' && e.place < proof.place);
  const mateSeen = survey?.kind === 'survey' && survey.payload.stalls.some((s) => s.state === 'charging' && mates.has(s.stallId));
  const told = out.some((c) => c.what === 'neighbour');
  const left = changes.find((e) => e.payload.what === 'neighbour_out' && e.place > proof.place);
  if (mateSeen && !told) out.push({ what: 'neighbour', from: first, to: left ? levelAt(series, t(left.t)) : last, noted: 'on arrival', kW: null });
  const arrival = visit.line.find((e) => e.kind === 'pulled_in')?.payload;
  if (arrival?.airC !== undefined && arrival.airC <= COLD_C && arrival.preconditioned !== true && !out.some((c) => c.what === 'cold'))
    out.push({ what: 'cold', from: first, to: last, noted: 'on arrival', kW: null });
  if (a.faults.some((f) => f.code === 'hot_connector')) out.push({ what: 'hot', from: first, to: last, noted: 'during', kW: null });
  return out;
}

/** True where a stretch of the battery overlaps what was noted. */
export const overlaps = (c: Condition, from: number, to: number): boolean => (c.from ?? 0) < to && (c.to ?? 100) > from;
