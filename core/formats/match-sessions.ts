import Big from 'big.js';
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
/** An attempt that never had power delivered nothing. */
const energyOf = (a: RecordedAttempt): string | null => a.kWh ?? (a.power ? null : '0');
const apart = (a: string, b: string): Big => new Big(a).minus(b).abs();

function sameTime(item: BilledItem, a: RecordedAttempt): boolean {
  if (item.dayOnly) return localDay(item.start, a.zone) === localDay(a.start ?? a.pulledIn, a.zone);
  if (a.start !== null) return Math.abs(item.start - a.start) <= NEAR.ms;
  return item.start >= a.pulledIn - NEAR.ms && item.start <= (a.pulledOut ?? a.pulledIn + OPEN_MS) + NEAR.ms;
}
function sameEnergy(item: BilledItem, a: RecordedAttempt): boolean {
  const kWh = energyOf(a);
  if (item.kWh === null || kWh === null) return true;
  const share = new Big(new Big(item.kWh).gt(kWh) ? item.kWh : kWh).times(NEAR.share);
  return apart(item.kWh, kWh).lte(share.gt(NEAR.kWh) ? share : NEAR.kWh);
}
const isCandidate = (item: BilledItem, a: RecordedAttempt): boolean => fold(item.site) === fold(a.site) && sameTime(item, a) && sameEnergy(item, a);
function energyClose(item: BilledItem, a: RecordedAttempt): boolean {
  const kWh = energyOf(a);
  return item.kWh !== null && kWh !== null && apart(item.kWh, kWh).lte(CLOSE.kWh);
}
const isClose = (item: BilledItem, a: RecordedAttempt): boolean =>
  !item.dayOnly && a.start !== null && Math.abs(item.start - a.start) <= CLOSE.ms && energyClose(item, a);

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
export function matchSessions(items: readonly BilledItem[], attempts: readonly RecordedAttempt[]): SessionMatch {
  const own = items.filter((i) => i.credits === null);
  const pairs: Matched[] = [];
  const asks: MatchAsk[] = [];
  const unmatchedItems: string[] = [];
  const all = new Map(own.map((item) => [item, attempts.filter((a) => isCandidate(item, a))]));

  // Those that are each other's only close one are taken out first.
  const close = new Map(own.map((item) => [item, (all.get(item) ?? []).filter((a) => isClose(item, a))]));
  const taken = new Set<RecordedAttempt>();
  const done = new Set<BilledItem>();
  for (const [item, near] of close) {
    const [a] = near;
    if (!a || near.length > 1 || [...close.values()].filter((list) => list.includes(a)).length > 1) continue;
    pairs.push(pairOf(item, a));
    taken.add(a);
    done.add(item);
  }

  const left = new Map<BilledItem, RecordedAttempt[]>();
  for (const [item, candidates] of all) {
    if (done.has(item)) continue;
    const free = candidates.filter((a) => !taken.has(a));
    if (candidates.length > 0 && free.length === 0) asks.push({ item: item.id, code: 'already_paired', candidates: candidates.map(refOf) });
    else if (candidates.length === 0) elsewhere(item, attempts, asks, unmatchedItems);
    else {
      const here = free.filter((a) => item.stall !== null && a.stall !== null && fold(item.stall) === fold(a.stall));
      left.set(item, free.length > 1 && here.length > 0 ? here : free);
    }
  }
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
    credits: items.flatMap((i) => (i.credits === null ? [] : [creditOf(i, i.credits, own, pairs, asks)])),
  };
}

/** Nothing at its place and time: an hour off, or another site, is asked; else it is unmatched. */
function elsewhere(item: BilledItem, attempts: readonly RecordedAttempt[], asks: MatchAsk[], unmatched: string[]): void {
  const off = (a: RecordedAttempt, hours: number) => a.start !== null && Math.abs(Math.abs(item.start - a.start) - hours * HOUR_MS) <= NEAR.ms;
  const late = item.dayOnly ? [] : attempts.filter((a) => fold(a.site) === fold(item.site) && energyClose(item, a) && (off(a, 1) || off(a, 2)));
  if (late.length > 0) {
    asks.push({ item: item.id, code: 'hour_off', candidates: late.map(refOf) });
    return;
  }
  const other = item.dayOnly ? [] : attempts.filter((a) => fold(a.site) !== fold(item.site) && a.start !== null && off(a, 0) && energyClose(item, a));
  if (other.length > 0) asks.push({ item: item.id, code: 'site_differs', candidates: other.map(refOf) });
  else unmatched.push(item.id);
}

/** Items that share an attempt, over any number of steps, belong to one group. */
function hangingTogether(left: ReadonlyMap<BilledItem, RecordedAttempt[]>): [BilledItem, RecordedAttempt[]][][] {
  const groups: { items: [BilledItem, RecordedAttempt[]][]; attempts: Set<RecordedAttempt> }[] = [];
  for (const entry of left) {
    const touching = groups.filter((g) => entry[1].some((a) => g.attempts.has(a)));
    const merged = { items: [...touching.flatMap((g) => g.items), entry], attempts: new Set([...touching.flatMap((g) => [...g.attempts]), ...entry[1]]) };
    for (const g of touching) groups.splice(groups.indexOf(g), 1);
    groups.push(merged);
  }
  return groups.map((g) => g.items);
}

/** A credit follows what it credits; a credit of a credit follows nothing. */
function creditOf(
  item: BilledItem,
  of: string,
  own: readonly BilledItem[],
  pairs: readonly Matched[],
  asks: readonly MatchAsk[],
): SessionMatch['credits'][number] {
  const nothing = { item: item.id, of, visitId: null, n: null };
  if (!own.some((i) => i.id === of)) return { ...nothing, state: 'unmatched' };
  const pair = pairs.find((p) => p.item === of);
  if (pair) return { item: item.id, of, visitId: pair.visitId, n: pair.n, state: 'paired' };
  return { ...nothing, state: asks.some((a) => a.item === of) ? 'asked' : 'unmatched' };
}
