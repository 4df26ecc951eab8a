import { readWho } from '../store/who';

/** The phone's clock, set off as the server's is (the demo's day). UTC ms. */
export const phoneNow = (): number => Date.now() + (readWho()?.clockOffsetMs ?? 0);

export type TouchTime = { at: number; mono: number };

/**
 * The time of the touch itself, however late its handler runs.
 * Never `timeOrigin + timeStamp`: that clock stops while a phone sleeps.
 * @param timeStamp of the event, ms on the page's clock
 */
export const touchTime = (timeStamp: number): TouchTime => ({ at: Math.round(phoneNow() - (performance.now() - timeStamp)), mono: timeStamp });
