import type { KindFile } from './kind';

export const receipt: KindFile<'receipt'> = { label: 'Receipt', afterwards: true };
