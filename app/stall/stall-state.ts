import type { PhoneWho } from '@/client/store/who';
import type { VisitSession } from '@/client/visit-session/session';
import type { SessionState } from '@/client/visit-session/session-state';
import type { Rest } from '@/ui/pads/rest';

export type { Records } from '@/client/store/records-by-type';
export type { Draft } from '@/client/visit-session/session-state';

export type StallState = { is: 'opening' } | { is: 'nobody' } | ({ is: 'ready'; who: PhoneWho; signedOut: boolean } & SessionState);

/** What can be done at the Stall: all that the session can, with the pads at rest after each touch. */
export type StallHands = Omit<VisitSession, 'state' | 'subscribe' | 'open' | 'close' | 'look'> & {
  /** For 700 ms after a tap the pads take no touch. */
  rest: Rest;
};
