/**
 * The one clock of the server. The demo runs on its own day: its offset is given at the start and told to the
 * phone, so that both sides agree on what "today" is.
 */
export const clockOffsetMs = Number(process.env.MILE_CLOCK_OFFSET_MS ?? 0);
export const now = (): number => Date.now() + clockOffsetMs;
