import type { KindFile } from './kind';

export const queueJoined: KindFile<'queue_joined'> = { label: 'Queue joined' };
