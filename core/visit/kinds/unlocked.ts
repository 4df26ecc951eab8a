import type { KindFile } from './kind';

export const unlocked: KindFile<'unlocked'> = { label: 'Unlocked' };
