import type { UsualStop } from './same-stop';

/** What is asked of the look at one stop: what differs from the proposal, with which car, and how far around which site: in the distance its reader reads. */
export type StopAsk = Partial<UsualStop> & { car?: string; from?: string; within?: number };

const inRange = (text: string | null | undefined, least: number, most: number): number | undefined => {
  const n = Number((text ?? '').replace(',', '.'));
  return text && Number.isFinite(n) && n >= least && n <= most ? n : undefined;
};

/** Reads it from an address; what is not understood is left out, never an error. */
export function readStopAsk(get: (name: string) => string | null | undefined): StopAsk {
  const kWh = inRange(get('kwh'), 0.1, 500);
  const weekday = inRange(get('day'), 0, 6);
  const time = get('time');
  const parkedMin = inRange(get('parked'), 0, 2880);
  const minutes = inRange(get('minutes'), 1, 1440);
  const [fromPct, toPct] = [inRange(get('from_pct'), 0, 100), inRange(get('to_pct'), 0, 100)];
  const car = get('car');
  const from = get('from');
  const within = inRange(get('within'), 1, 2000);
  return {
    ...(kWh === undefined ? {} : { kWh }),
    ...(weekday === undefined || !Number.isInteger(weekday) ? {} : { weekday }),
    ...(time && /^([01]\d|2[0-3]):[0-5]\d$/.test(time) ? { time } : {}),
    ...(parkedMin === undefined ? {} : { parkedMin: Math.round(parkedMin) }),
    ...(minutes === undefined ? {} : { minutes: Math.round(minutes) }),
    ...(fromPct === undefined || toPct === undefined || toPct <= fromPct ? {} : { levels: { fromPct, toPct } }),
    ...(car ? { car } : {}),
    ...(from ? { from } : {}),
    ...(within === undefined ? {} : { within }),
  };
}

/** The address of a stop, by which it is kept and found again: what a reader of it understands, and no more. */
export function writeStopAsk(ask: StopAsk): string {
  const said: Record<string, string | number | undefined> = {
    kwh: ask.kWh,
    from_pct: ask.levels?.fromPct,
    to_pct: ask.levels?.toPct,
    minutes: ask.minutes,
    day: ask.weekday,
    time: ask.time,
    parked: ask.parkedMin,
    car: ask.car,
    within: ask.within,
    from: ask.from,
  };
  const q = new URLSearchParams(Object.entries(said).flatMap(([k, v]) => (v === undefined ? [] : [[k, String(v)]])));
  return q.size === 0 ? '' : `?${q}`;
}
/** Reads it back. @param address with or without its question mark */
export function stopOfAddress(address: string): StopAsk {
  const q = new URLSearchParams(address.replace(/^\?/, ''));
  return readStopAsk((name) => q.get(name));
}
