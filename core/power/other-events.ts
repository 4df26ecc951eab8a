import { faultLabel } from '../faults/fault-list';
import { chargingEnd } from '../visit/attempt-times';
import type { Attempt } from '../visit/attempts/attempt';
import type { Visit } from '../visit/derive';
import { CHANGE_LABELS } from '../visit/kinds/change';
import { BEGINS, levelAt } from './charge-conditions';
import type { Series } from './series';

/** Something noted in mid-charge that explains no power by itself: seconds from the proof of power, and the level then. */
export type OtherEvent = { text: string; t_s: number; socPct: number | null };
/** What else was noted while it charged: pauses, fans, rain, faults, in the words of the record. What bears on the power is told by its conditions. */
export function otherEvents({ line }: Pick<Visit, 'line'>, a: Attempt, series: Series): OtherEvent[] {
  const { proof } = a;
  const over = chargingEnd(a) ?? a.ended?.at;
  if (!proof) return [];
  return line.flatMap((e): OtherEvent[] => {
    if (e.place <= proof.place || (over && e.place > over.place)) return [];
    const text =
      e.kind === 'fault'
        ? faultLabel(e.payload.code)
        : e.kind === 'change' && !TOLD_BY_CONDITIONS.has(e.payload.what)
          ? (e.payload.text ?? CHANGE_LABELS[e.payload.what])
          : null;
    const t_s = (e.t - proof.t) / 1000;
    return text === null ? [] : [{ text, t_s, socPct: levelAt(series, t_s) }];
  });
}
const TOLD_BY_CONDITIONS: ReadonlySet<string> = new Set([...Object.keys(BEGINS), 'neighbour_out', 'climate_off']);
