import type { KindFile } from './kind';

export const stallFree: KindFile<'stall_free'> = { label: 'Stall free' };
