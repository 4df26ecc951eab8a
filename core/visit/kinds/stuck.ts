import { choice } from '../correctable-field';
import type { KindFile } from './kind';

export const stuck: KindFile<'stuck'> = {
  label: 'Handle stuck',
  detail: ({ end }) => [`at the ${end}`],
  fields: [
    choice('end', 'Stuck at', [
      ['car', 'The car'],
      ['post', 'The post'],
    ]),
  ],
};
