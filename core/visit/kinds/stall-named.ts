import { text } from '../correctable-field';
import type { KindFile } from './kind';

export const stallNamed: KindFile<'stall_named'> = {
  label: (p) => `Named ${p.text}`,
  fields: [text('text', 'Named in the app or kiosk')],
};
