import type { KindFile } from './kind';

export const released: KindFile<'released'> = { label: 'Released' };
