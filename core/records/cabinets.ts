import type { MileRecord } from './record-schema';
import { plateKW } from './stall-plate';

type Stall = Pick<MileRecord<'stall'>, 'id' | 'fields'>;
/** Neighbouring stalls that stand on one cabinet, or a run of stalls with a supply of their own. */
export type CabinetGroup = { cabinet: string | null; stalls: Stall[]; text: string };

/** Groups stalls, in the order given, by the cabinets they share; the text says how. */
export function byCabinet(stalls: readonly Stall[]): CabinetGroup[] {
  const groups: { cabinet: string | null; stalls: Stall[] }[] = [];
  for (const s of stalls) {
    const cabinet = s.fields.sharing === 'own' ? null : s.fields.cabinet;
    const there = cabinet === null ? groups.at(-1) : groups.find((g) => g.cabinet === cabinet);
    if (there && there.cabinet === cabinet) there.stalls.push(s);
    else groups.push({ cabinet, stalls: [s] });
  }
  return groups.map((g) => ({ ...g, text: say(g) }));
}

function say({ cabinet, stalls }: { cabinet: string | null; stalls: Stall[] }): string {
  const stated = stalls.some((s) => s.fields.sharing === 'own');
  if (cabinet === null) return stated ? (stalls.length > 1 ? 'own supply each' : 'own supply') : '';
  if (stalls.some((s) => s.fields.sharing === 'one at a time')) return 'one cabinet, one car at a time';
  if (!stalls.some((s) => s.fields.sharing === 'shared')) return 'one cabinet';
  const kW = stalls.find((s) => s.fields.cabinetKW !== null)?.fields.cabinetKW;
  const sum = stalls.reduce((n, s) => n + (plateKW(s.fields) ?? 0), 0);
  const among = stalls.length === 2 ? 'two' : String(stalls.length);
  if (stalls.length === 1) return 'shares a cabinet';
  return kW != null && kW < sum ? `one cabinet, ${kW} kW between ${among}` : `one cabinet, shared by ${among}`;
}
