import { number } from '../correctable-field';
import type { KindFile } from './kind';

export const rating: KindFile<'rating'> = {
  label: 'Rating',
  detail: ({ stars }) => [stars === undefined ? null : `${stars} of 5`],
  fields: [number('stars', 'Stars, 1 to 5')],
  afterwards: true,
};
