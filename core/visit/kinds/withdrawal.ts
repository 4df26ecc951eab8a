import type { KindFile } from './kind';

/** Applied before the line is laid ([effectiveEvents]). */
export const withdrawal: KindFile<'withdrawal'> = { label: 'Taken back' };
