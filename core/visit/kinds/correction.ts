import type { KindFile } from './kind';

/** Applied before the line is laid ([effectiveEvents]). */
export const correction: KindFile<'correction'> = { label: 'Correction' };
