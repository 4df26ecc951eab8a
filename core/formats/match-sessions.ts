import Big from 'big.js';
import { firstBy, grouped } from '../units/grouped';
import { finish, type Steps, withEach } from '../units/steps';
import { localDay } from '../units/zoned';

/** One attempt of a recorded visit, as something billed may be matched to it. Times UTC ms, kWh decimal. */
export type RecordedAttempt = {
  visitId: string;
  n: number;
  site: string;
  stall: string | null;
  start: number | null;
  kWh: string | null;
  power: boolean;
  zone: string;
  pulledIn: number;
  pulledOut: number | null;
};
/** What a network or a spreadsheet says: a CDR, a bill, a row. */
export type BilledItem = {
  id: string;
  site: string;
  stall: string | null;
  start: number;
  dayOnly: boolean;
  kWh: string | null /** The item it takes back. */;
  credits: string | null;
};

export type AttemptRef = readonly [visitId: string, n: number];
export type Matched = { item: string; visitId: string; n: number; offset_s: number | null; stallDiffers: boolean | null; kWhDiff: string | null };
export type MatchAsk = { item: string; code: 'several' | 'already_paired' | 'hour_off' | 'site_differs'; candidates: AttemptRef[] };
export type SessionMatch = {
  pairs: Matched[];
  asks: MatchAsk[];
  unmatchedItems: string[];
  /** Those with power, in no pair and no question. */
  unmatchedAttempts: AttemptRef[];
  credits: { item: string; of: string; visitId: string | null; n: number | null; state: 'paired' | 'asked' | 'unmatched' }[];
};

/** Clocks of phone and network differ by minutes, meters by a class and a display step. Choices. */
const NEAR = { ms: 15 * 60_000, kWh: 0.5, share: 0.05 };
const CLOSE = { ms: 60_000, kWh: 0.1 };
/** An open visit is taken to last so long. */
const OPEN_MS = 12 * 3_600_000;
const HOUR_MS = 3_600_000;

/** Names as they are compared: normal form, case and white space aside, all dashes alike. Upper case first, since ß and ss are one there. */
export const fold = (text: string): string =>
  text
    .normalize('NFC')
    .toUpperCase()
    .toLowerCase()
    .replace(/[\p{Pd}\u2212]/gu, '-')
    .replace(/\s+/g, ' ')
    .trim();
/** Each name folded once: ten thousand rows name few sites. */
function folding(): (text: string) => string {
  const done = new Map<string, string>();
  return (text) => {
    const found = done.get(text) ?? fold(text);
    done.set(text, found);
    return found;
  };
}
/** An attempt that never had power delivered nothing. */
const energyOf = (a: RecordedAttempt): string | null => a.kWh ?? (a.power ? null : '0');
const apart = (a: string, b: string): Big => new Big(a).minus(b).abs();
/** When it was: its start, else when its visit pulled in. */
const anchorOf = (a: RecordedAttempt): number => a.start ?? a.pulledIn;
/** How long one of which no start is known may have been under way. */
const lengthOf = (a: RecordedAttempt): number => (a.pulledOut ?? a.pulledIn + OPEN_MS) - a.pulledIn;

/** The day of an instant by the clock of a zone, told once: of a file of days each row is held against all attempts of two days around it. */
function days(): (ms: number, zone: string) => string {
  const zones = new Map<string, Map<number, string>>();
  return (ms, zone) => {
    const told = zones.get(zone) ?? new Map<number, string>();
    zones.set(zone, told);
    const day = told.get(ms) ?? localDay(ms, zone);
    told.set(ms, day);
    return day;
  };
}
function sameTime(item: BilledItem, a: RecordedAttempt, day: (ms: number, zone: string) => string): boolean {
  if (item.dayOnly) return day(item.start, a.zone) === day(anchorOf(a), a.zone);
  if (a.start !== null) return Math.abs(item.start - a.start) <= NEAR.ms;
  return item.start >= a.pulledIn - NEAR.ms && item.start <= a.pulledIn + lengthOf(a) + NEAR.ms;
}
function sameEnergy(item: BilledItem, a: RecordedAttempt): boolean {
  const kWh = energyOf(a);
  if (item.kWh === null || kWh === null) return true;
  const share = new Big(new Big(item.kWh).gt(kWh) ? item.kWh : kWh).times(NEAR.share);
  return apart(item.kWh, kWh).lte(share.gt(NEAR.kWh) ? share : NEAR.kWh);
}
function energyClose(item: BilledItem, a: RecordedAttempt): boolean {
  const kWh = energyOf(a);
  return item.kWh !== null && kWh !== null && apart(item.kWh, kWh).lte(CLOSE.kWh);
}
const isClose = (item: BilledItem, a: RecordedAttempt): boolean =>
  !item.dayOnly && a.start !== null && Math.abs(item.start - a.start) <= CLOSE.ms && energyClose(item, a);

/** Two instants of one local day are no further apart: the longest day has 25 h, and zones moved by as much as a day. */
const DAY_MS = 50 * HOUR_MS;

/** Attempts in the order of time, so that those around an instant are found without looking at the others. */
class InTime {
  private readonly sorted: { a: RecordedAttempt; n: number; at: number }[];
  constructor(attempts: readonly { a: RecordedAttempt; n: number }[]) {
    this.sorted = attempts.map(({ a, n }) => ({ a, n, at: anchorOf(a) })).sort((x, y) => x.at - y.at);
  }
  between(from: number, to: number): { a: RecordedAttempt; n: number }[] {
    let [lo, hi] = [0, this.sorted.length];
    while (lo < hi) {
      const mid = (lo + hi) >> 1;
      if ((this.sorted[mid] as { at: number }).at < from) lo = mid + 1;
      else hi = mid;
    }
    let end = lo;
    while (end < this.sorted.length && (this.sorted[end] as { at: number }).at <= to) end += 1;
    return this.sorted.slice(lo, end);
  }
}
/** In the order in which the attempts were given. */
const inOrder = (found: readonly { a: RecordedAttempt; n: number }[]): RecordedAttempt[] => [...found].sort((x, y) => x.n - y.n).map(({ a }) => a);

/** The recorded attempts as billed items look for them: at their place and time. */
class Attempts {
  private readonly folded = folding();
  private readonly day = days();
  /** Of each site: those with a start, and those without, with how long they may have been under way. */
  private readonly sites = new Map<string, { started: InTime; others: InTime; longest: number }>();
  private readonly started: InTime;

  constructor(attempts: readonly RecordedAttempt[]) {
    const all = attempts.map((a, n) => ({ a, n }));
    for (const [site, of] of grouped(all, ({ a }) => this.folded(a.site))) {
      const others = of.filter(({ a }) => a.start === null);
      const longest = others.reduce((most, { a }) => Math.max(most, lengthOf(a)), 0);
      this.sites.set(site, { started: new InTime(of.filter(({ a }) => a.start !== null)), others: new InTime(others), longest });
    }
    this.started = new InTime(all.filter(({ a }) => a.start !== null));
  }

  /** Those at its place and time, with its energy. */
  candidates(item: BilledItem): RecordedAttempt[] {
    const here = this.sites.get(this.folded(item.site));
    if (!here) return [];
    const around = item.dayOnly ? DAY_MS : NEAR.ms;
    const found = [
      ...here.started.between(item.start - around, item.start + around),
      ...here.others.between(item.start - Math.max(around, here.longest + NEAR.ms), item.start + around),
    ];
    return inOrder(found.filter(({ a }) => sameTime(item, a, this.day) && sameEnergy(item, a)));
  }

  /** Those with a start at its place, up to so far from its time. */
  startedHere(item: BilledItem, within_ms: number): RecordedAttempt[] {
    return inOrder(this.sites.get(this.folded(item.site))?.started.between(item.start - within_ms, item.start + within_ms) ?? []);
  }

  /** Those with a start at its time, at any other place. */
  startedElsewhere(item: BilledItem): RecordedAttempt[] {
    const here = this.folded(item.site);
    return inOrder(this.started.between(item.start - NEAR.ms, item.start + NEAR.ms)).filter((a) => this.folded(a.site) !== here);
  }
}

const refOf = (a: RecordedAttempt): AttemptRef => [a.visitId, a.n];
function pairOf(item: BilledItem, a: RecordedAttempt): Matched {
  const kWh = energyOf(a);
  return {
    item: item.id,
    visitId: a.visitId,
    n: a.n,
    offset_s: item.dayOnly || a.start === null ? null : (item.start - a.start) / 1000,
    stallDiffers: item.stall === null || a.stall === null ? null : fold(item.stall) !== fold(a.stall),
    kWhDiff: item.kWh === null || kWh === null ? null : new Big(item.kWh).minus(kWh).toFixed(),
  };
}

/**
 * Which recorded attempt each billed session is. Only what is unmistakable is paired; anything else is asked, with what it
 * could be, and nothing is decided by order: the same items in any order give the same pairs.
 */
export const matchSessions = (items: readonly BilledItem[], attempts: readonly RecordedAttempt[]): SessionMatch => finish(matchingSessions(items, attempts));

/** The same in steps. */
export function* matchingSessions(items: readonly BilledItem[], attempts: readonly RecordedAttempt[]): Steps<SessionMatch> {
  const own = items.filter((i) => i.credits === null);
  const pairs: Matched[] = [];
  const asks: MatchAsk[] = [];
  const unmatchedItems: string[] = [];
  const recorded = new Attempts(attempts);
  const all = new Map<BilledItem, RecordedAttempt[]>();
  yield* withEach(own, (item) => all.set(item, recorded.candidates(item)));

  // Those that are each other's only close one are taken out first.
  const close = new Map<BilledItem, RecordedAttempt[]>();
  yield* withEach(all, ([item, candidates]) =>
    close.set(
      item,
      candidates.filter((a) => isClose(item, a)),
    ),
  );
  const closeTo = new Map<RecordedAttempt, number>();
  for (const near of close.values()) for (const a of near) closeTo.set(a, (closeTo.get(a) ?? 0) + 1);
  const taken = new Set<RecordedAttempt>();
  const done = new Set<BilledItem>();
  for (const [item, near] of close) {
    const [a] = near;
    if (!a || near.length > 1 || (closeTo.get(a) ?? 0) > 1) continue;
    pairs.push(pairOf(item, a));
    taken.add(a);
    done.add(item);
  }

  const left = new Map<BilledItem, RecordedAttempt[]>();
  yield* withEach(all, ([item, candidates]) => {
    if (done.has(item)) return;
    const free = candidates.filter((a) => !taken.has(a));
    if (candidates.length > 0 && free.length === 0) asks.push({ item: item.id, code: 'already_paired', candidates: candidates.map(refOf) });
    else if (candidates.length === 0) elsewhere(item, recorded, asks, unmatchedItems);
    else {
      const here = free.filter((a) => item.stall !== null && a.stall !== null && fold(item.stall) === fold(a.stall));
      left.set(item, free.length > 1 && here.length > 0 ? here : free);
    }
  });
  for (const group of hangingTogether(left)) {
    const [[item, candidates] = []] = group;
    if (group.length === 1 && item && candidates?.length === 1) pairs.push(pairOf(item, candidates[0] as RecordedAttempt));
    else for (const [i, c] of group) asks.push({ item: i.id, code: 'several', candidates: c.map(refOf) });
  }

  const spoken = new Set([...pairs.map((p) => `${p.visitId} ${p.n}`), ...asks.flatMap((a) => a.candidates.map(([v, n]) => `${v} ${n}`))]);
  return {
    pairs,
    asks,
    unmatchedItems,
    unmatchedAttempts: attempts.filter((a) => a.power && !spoken.has(`${a.visitId} ${a.n}`)).map(refOf),
    credits: creditsOf(items, own, pairs, asks),
  };
}

/** Nothing at its place and time: an hour off, or another site, is asked; else it is unmatched. */
function elsewhere(item: BilledItem, recorded: Attempts, asks: MatchAsk[], unmatched: string[]): void {
  const off = (a: RecordedAttempt, hours: number) => a.start !== null && Math.abs(Math.abs(item.start - a.start) - hours * HOUR_MS) <= NEAR.ms;
  const late = item.dayOnly ? [] : recorded.startedHere(item, 2 * HOUR_MS + NEAR.ms).filter((a) => energyClose(item, a) && (off(a, 1) || off(a, 2)));
  if (late.length > 0) {
    asks.push({ item: item.id, code: 'hour_off', candidates: late.map(refOf) });
    return;
  }
  const other = item.dayOnly ? [] : recorded.startedElsewhere(item).filter((a) => off(a, 0) && energyClose(item, a));
  if (other.length > 0) asks.push({ item: item.id, code: 'site_differs', candidates: other.map(refOf) });
  else unmatched.push(item.id);
}

type Together = { items: [BilledItem, RecordedAttempt[]][]; attempts: RecordedAttempt[]; nth: number };
/** Items that share an attempt, over any number of steps, belong to one group. */
function hangingTogether(left: ReadonlyMap<BilledItem, RecordedAttempt[]>): [BilledItem, RecordedAttempt[]][][] {
  const groups = new Set<Together>();
  const groupOf = new Map<RecordedAttempt, Together>();
  let nth = 0;
  for (const entry of left) {
    const touching = [...new Set(entry[1].flatMap((a) => groupOf.get(a) ?? []))].sort((x, y) => x.nth - y.nth);
    const [first = { items: [], attempts: [], nth }, ...others] = touching;
    // The group that grows last stands last.
    for (const g of touching) groups.delete(g);
    for (const g of others) {
      for (const item of g.items) first.items.push(item);
      for (const a of g.attempts) {
        groupOf.set(a, first);
        first.attempts.push(a);
      }
    }
    first.items.push(entry);
    for (const a of entry[1]) {
      if (groupOf.get(a) === first) continue;
      groupOf.set(a, first);
      first.attempts.push(a);
    }
    nth += 1;
    first.nth = nth;
    groups.add(first);
  }
  return [...groups].map((g) => g.items);
}

/** A credit follows what it credits; a credit of a credit follows nothing. */
function creditsOf(items: readonly BilledItem[], own: readonly BilledItem[], pairs: readonly Matched[], asks: readonly MatchAsk[]): SessionMatch['credits'] {
  const ids = new Set(own.map((i) => i.id));
  const paired = firstBy(pairs, (p) => p.item);
  const asked = new Set(asks.map((a) => a.item));
  return items.flatMap(({ id, credits: of }): SessionMatch['credits'] => {
    if (of === null) return [];
    const pair = ids.has(of) ? paired.get(of) : undefined;
    if (pair) return [{ item: id, of, visitId: pair.visitId, n: pair.n, state: 'paired' }];
    return [{ item: id, of, visitId: null, n: null, state: ids.has(of) && asked.has(of) ? 'asked' : 'unmatched' }];
  });
}
