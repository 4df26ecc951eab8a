import type { Condition } from './charge-conditions';
import type { Limits } from './limits';
import { intervalOf } from './monotone-curve';
import { type Series, within } from './series';
import { kWhAt, type PowerHow, seriesAt } from './series-at';
import type { SessionPower } from './session-power';
import type { HeldBy } from './what-held-it-back';

/** A moment of a charge as it is drawn: along the battery or along the clock. Minutes from the proof of power, pauses in. */
export type ChartPoint = { min: number; socPct: number | null; kW: number | null; kWh: number | null; how: PowerHow };
/** A look at a screen, drawn as a dot. */
export type ChartLook = { min: number; socPct: number | null; kW: number | null; V: number | null; A: number | null };
export type ChartLine = { label: string; points: readonly ChartPoint[]; looks: readonly ChartLook[] };
export type ChartHeld = { by: HeldBy; text: string; evidence: string; from: number; to: number; fromMin: number | null; toMin: number | null };
export type ChartMark = { text: string; socPct: number | null; min: number | null };
/** Everything a chart of one session shows, and what is laid over it. */
export type PowerChartData = {
  lines: readonly ChartLine[];
  /** What car and stall allow, and what the stall's word is, [battery per cent, kW]. */
  expected: readonly (readonly [number, number])[];
  expectedText: string;
  held: readonly ChartHeld[];
  marks: readonly ChartMark[];
};

/** Points of a line between its readings: enough for a curve, few enough for a phone. */
const MOST_POINTS = 240;

const decimals = (n: number): number => String(n).split('.')[1]?.length ?? 0;
/**
 * Where the meter tells a power worth drawing: it rose by two of the steps in which it was read at least. One step, seen a moment
 * after the one before, would be a peak that never was. What was written down at the end may be finer than the screen.
 */
function meterTells({ x, y }: Series['kWh']): (s: number) => boolean {
  const step = 10 ** -Math.max(...(y.length > 2 ? y.slice(0, -1) : y).map(decimals));
  return (s) => {
    const k = intervalOf(x, s);
    const rose = (y[k + 1] ?? 0) - (y[k] ?? 0);
    return rose === 0 || within(2 * step, rose);
  };
}

/** A charge as a line: its knots, and even steps between them. */
export function chartLine(series: Series, label: string, vAndA: readonly { t_s: number; V?: number | undefined; A?: number | undefined }[] = []): ChartLine {
  const { clock, soc, power, kWh } = series;
  const end = series.charging_s ?? Math.max(0, soc?.x.at(-1) ?? 0, power.at(-1)?.s ?? 0, kWh.x.at(-1) ?? 0);
  const moments = new Set([0, end, ...(soc?.x ?? []), ...power.map((p) => p.s), ...kWh.x]);
  for (let i = 1; i < MOST_POINTS; i++) moments.add((end * i) / MOST_POINTS);
  const tells = meterTells(kWh);
  const at = (s: number): ChartPoint => {
    const t_s = clock.momentOf(s);
    const { socPct, kW, how } = seriesAt(series, t_s);
    const power = how === 'meter' && !tells(s) ? ({ kW: null, how: 'not_read' } as const) : { kW, how };
    return { min: t_s / 60, socPct, kWh: kWhAt(series, s), ...power };
  };
  return {
    label,
    points: [...moments]
      .sort((a, b) => a - b)
      .filter((s) => s <= end)
      .map(at),
    looks: [
      ...power.map((p) => ({ ...at(p.s), kW: p.kW, V: null, A: null })),
      ...vAndA.flatMap(({ t_s, V, A }) =>
        V === undefined && A === undefined ? [] : [{ min: t_s / 60, socPct: seriesAt(series, t_s).socPct, kW: null, V: V ?? null, A: A ?? null }],
      ),
    ].map(({ min, socPct, kW, V, A }) => ({ min, socPct, kW, V, A })),
  };
}

/** By so many times a power that only a meter tells passes all that was read, and what car and stall can, where one figure was mistyped. */
const MISTYPED = 3;
/**
 * The highest power that a chart shows, kW, and what lies beyond: a meter mistyped once would press all else flat.
 * @returns `beyond`: the highest power by the meter, where it is left out
 */
export function chartTop({ lines, expected }: Pick<PowerChartData, 'lines' | 'expected'>): { highest: number; beyond: number | null } {
  const most = (all: readonly number[]) => all.reduce((a, b) => Math.max(a, b), 0);
  const points = lines.flatMap((l) => l.points);
  const kWs = (metered: boolean) => points.flatMap((p) => (p.kW !== null && (p.how === 'meter') === metered ? [p.kW] : []));
  const [sure, metered] = [most([...kWs(false), ...expected.map(([, kW]) => kW)]), kWs(true)];
  const fits = sure > 0 ? metered.filter((kW) => kW <= MISTYPED * sure) : metered;
  return { highest: Math.max(sure, most(fits)), beyond: fits.length < metered.length ? most(metered) : null };
}

/** The least of the limits along a stretch of the battery, corner by corner. */
export function limitLine(limits: Limits, from: number, to: number): [number, number][] {
  return limits.pieces.flatMap((p) => {
    const [a, b] = [Math.max(from, p.from), Math.min(to, p.to)];
    if (a >= b) return [];
    const at = (s: number) => p.kWFrom + ((p.kWTo - p.kWFrom) * (s - p.from)) / (p.to - p.from);
    return [
      [a, at(a)],
      [b, at(b)],
    ] as [number, number][];
  });
}

/** kW that such a line gives at a level; `null` beyond it. */
export function kWOn(line: PowerChartData['expected'], level: number): number | null {
  const next = line.findIndex(([pct]) => pct >= level);
  const [a, b] = [line[next - 1], line[next]];
  if (!b || (!a && b[0] !== level)) return null;
  return !a || b[0] === a[0] ? b[1] : a[1] + ((b[1] - a[1]) * (level - a[0])) / (b[0] - a[0]);
}

/** What of such a line lies from a level on: a piece that begins before it is cut there. */
export function lineFrom(line: PowerChartData['expected'], level: number): PowerChartData['expected'] {
  const first = kWOn(line, level);
  const rest = line.filter(([pct]) => pct > level);
  return first === null ? rest : [[level, first], ...rest];
}

/** A hot cable is marked where it was noted, as a fault. */
const NOTED: Partial<Record<Condition['what'], [begins: string, ends: string]>> = {
  neighbour: ['Neighbour plugs in', 'Neighbour leaves'],
  climate: ['Heating or cooling on', 'Heating or cooling off'],
  derate: ['Derated', ''],
  cold: ['Cold noted', ''],
};

/** When the battery was at a level, minutes from the proof of power. */
const minuteAt = ({ soc, clock }: Series, level: number): number | null => {
  if (!soc) return null;
  const at = soc.y.findIndex((y) => y >= level);
  if (at < 0) return null;
  const [y0, y1, x0, x1] = [soc.y[at - 1], soc.y[at] as number, soc.x[at - 1], soc.x[at] as number];
  const s = y0 === undefined || x0 === undefined || y1 === y0 ? x1 : x0 + ((x1 - x0) * (level - y0)) / (y1 - y0);
  return clock.momentOf(s) / 60;
};

/** A session's events and limits, where they lie along both axes. */
export function chartOf(session: SessionPower, label: string, over: readonly ChartLine[]): PowerChartData {
  const { series, limits } = session;
  const last = series.soc?.y.at(-1) ?? null;
  const by = session.curveBy;
  return {
    lines: [chartLine(series, label, session.readings), ...over],
    expected: limits ? limitLine(limits.all, 0, 100) : [],
    expectedText:
      by === null ? 'car and stall can' : by.from === 'learnt' ? `car and stall can, by ${by.sessions} sessions` : 'car and stall can, by the typed curve',
    held: session.held.map(({ by: held, text, evidence, from, to }) => ({
      by: held,
      text,
      evidence,
      from,
      to,
      fromMin: minuteAt(series, from),
      toMin: minuteAt(series, to),
    })),
    marks: [
      ...session.conditions.flatMap((c): ChartMark[] => {
        const [begins, ends] = NOTED[c.what] ?? ['', ''];
        const mark = (text: string, level: number | null): ChartMark => ({ text, socPct: level, min: level === null ? null : minuteAt(series, level) });
        // What was there before began beyond the picture.
        return [...(begins && c.noted === 'during' ? [mark(begins, c.from)] : []), ...(ends && c.to !== null && c.to !== last ? [mark(ends, c.to)] : [])];
      }),
      ...session.events.map(({ text, t_s, socPct }): ChartMark => ({ text, socPct, min: t_s / 60 })),
    ],
  };
}
