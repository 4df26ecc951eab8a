import { localDay } from '../units/zoned';
import type { Placed } from './timeline/placed';

/** Faults after which a stall is not to be trusted until somebody looked at it. A hot cable is the milder one. */
const REPORTED = { danger: 'danger', hot_connector: 'hot' } as const;

/** What was reported at a stall and nobody has cleared since. `on`: the local day, `2025-10-14`. */
export type Danger = { stallId: string; is: 'danger' | 'hot'; on: string };

/** Dangers that a visit reported, of the stall one stood at, without those that were cleared after. @param line in order */
export function dangersOf(line: readonly Placed[]): Danger[] {
  let open: Danger[] = [];
  let stallId: string | null = null;
  for (const e of line) {
    if (e.kind === 'stall_chosen') stallId = e.payload.stallId;
    if (e.kind === 'danger_cleared') open = open.filter((d) => e.payload.stallId !== undefined && e.payload.stallId !== d.stallId);
    const is = e.kind === 'fault' ? REPORTED[e.payload.code as keyof typeof REPORTED] : undefined;
    if (is === undefined || stallId === null) continue;
    const at = stallId;
    open = [...open.filter((d) => d.stallId !== at || d.is !== is), { stallId: at, is, on: localDay(e.t, e.zone) }];
  }
  return open;
}

/** Dangers by stall, the graver first, then the newest. */
export type Dangers = Readonly<Record<string, readonly Danger[]>>;
export function byStall(all: readonly Danger[]): Dangers {
  const out: Record<string, Danger[]> = {};
  for (const d of all) {
    out[d.stallId] ??= [];
    out[d.stallId]?.push(d);
  }
  for (const list of Object.values(out)) list.sort((a, b) => Number(a.is === 'hot') - Number(b.is === 'hot') || (a.on < b.on ? 1 : -1));
  return out;
}

/** What is known of a household with what one more visit reported. */
export const withDangers = (known: Dangers, more: readonly Danger[]): Dangers =>
  more.length === 0 ? known : byStall([...Object.values(known).flat(), ...more]);
