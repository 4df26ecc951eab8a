import type { Visit } from './derive';

/** The stall that was chosen last, whether or not anything was tried there: of a visit typed in from its receipt the only one that is known. */
export const chosenStall = (v: Pick<Visit, 'line'>): string | null => v.line.findLast((e) => e.kind === 'stall_chosen')?.payload.stallId ?? null;
