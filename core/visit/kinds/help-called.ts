import type { KindFile } from './kind';

export const helpCalled: KindFile<'help_called'> = { label: 'Helpline called' };
