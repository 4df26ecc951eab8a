import type { KindFile } from './kind';

export const helpAnswered: KindFile<'help_answered'> = { label: 'Helpline answered' };
