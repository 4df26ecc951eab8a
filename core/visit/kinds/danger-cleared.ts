import { reference, text } from '../correctable-field';
import type { KindFile } from './kind';

/** Somebody looked at a stall at which danger was reported and says why it can be used again. */
export const dangerCleared: KindFile<'danger_cleared'> = {
  label: 'Danger cleared',
  detail: ({ stallId, reason }, nameOf) => [stallId ? `stall ${nameOf('stall', stallId)}` : null, reason],
  fields: [reference('stall', 'stallId', 'Stall'), text('reason', 'Why it can be used again')],
  afterwards: true,
};
