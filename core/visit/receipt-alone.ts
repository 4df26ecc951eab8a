import type { Visit } from './derive';

/** The number by which a charge is called of which no attempt was noted: one typed in from its receipt. */
export const NO_ATTEMPT = 0;

/** The stall that was chosen last, whether or not anything was tried there: of a visit typed in from its receipt the only one that is known. */
export const chosenStall = (v: Pick<Visit, 'line'>): string | null => v.line.findLast((e) => e.kind === 'stall_chosen')?.payload.stallId ?? null;
