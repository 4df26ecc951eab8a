import type { NameOf } from './kinds/kind';
import { eventLabel } from './kinds/registry';
import type { Placed } from './timeline/placed';

/** What is told above the tape; what the paint itself shows, power and waiting, needs no words. */
const MARKED = new Set<string>([
  'pulled_in',
  'queue_joined',
  'stall_chosen',
  'plugged',
  'means_refused',
  'fault',
  'change',
  'stop_asked',
  'power_gone',
  'pulled_out',
]);
const isTold = (e: Placed, line: readonly Placed[]): boolean => {
  if (e.kind === 'power_gone') return e.payload.why !== 'asked';
  // A plug right after its stall was chosen stands under the same words.
  if (e.kind === 'plugged') return !line.some((o) => o.kind === 'stall_chosen' && o.place < e.place && e.t - o.t < 90_000);
  return MARKED.has(e.kind);
};

/** What is told above a tape, with its time, UTC ms. */
export const toldMarks = (line: readonly Placed[], stallName: (id: string) => string): { t: number; text: string }[] => {
  const nameOf: NameOf = (type, id) => (type === 'stall' ? stallName(id) : '');
  return line.filter((e) => isTold(e, line)).map((e) => ({ t: e.t, text: eventLabel(e, nameOf) }));
};
