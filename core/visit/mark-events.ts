import type { Visit } from './derive';
import type { Payload } from './payloads';

/** What can be said of one visit or of many at once. `plain`: neither business nor private any more; `counted`: no longer left out. */
export const MARKINGS = ['business', 'private', 'plain', 'left_out', 'counted', 'withdraw', 'restore'] as const;
export type Marking = (typeof MARKINGS)[number];
type Draft = { kind: 'mark'; payload: Payload<'mark'> } | { kind: 'withdrawal'; payload: Payload<'withdrawal'> };

/**
 * The events by which a visit comes to be marked so; none where it is already. What was said before is taken back, never deleted.
 * @param reason why it is left out of comparisons
 */
export function markEvents(v: Pick<Visit, 'id' | 'line' | 'marks' | 'withdrawn' | 'visitWithdrawals'>, as: Marking, reason: string): Draft[] {
  const takeBack = (which: (mark: Payload<'mark'>) => boolean) =>
    v.line.flatMap((e): Draft[] => (e.kind === 'mark' && which(e.payload) ? [{ kind: 'withdrawal', payload: { target: e.id } }] : []));
  switch (as) {
    case 'business':
    case 'private':
      return v.marks.as === as ? [] : [{ kind: 'mark', payload: { as } }];
    case 'plain':
      return takeBack((m) => m.as !== 'left_out');
    case 'left_out':
      return v.marks.leftOut?.reason === reason ? [] : [{ kind: 'mark', payload: { as, reason } }];
    case 'counted':
      return takeBack((m) => m.as === 'left_out');
    case 'withdraw':
      return v.withdrawn ? [] : [{ kind: 'withdrawal', payload: { target: v.id } }];
    case 'restore':
      return v.visitWithdrawals.map((target) => ({ kind: 'withdrawal', payload: { target } }));
  }
}
