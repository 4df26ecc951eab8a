import type { KindFile } from './kind';

export const reserved: KindFile<'reserved'> = { label: 'Reserved' };
