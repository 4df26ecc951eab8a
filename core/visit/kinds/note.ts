import { text } from '../correctable-field';
import type { KindFile } from './kind';

export const note: KindFile<'note'> = {
  label: 'Note',
  detail: ({ text }) => [text],
  fields: [text('text', 'Note')],
  afterwards: true,
};
