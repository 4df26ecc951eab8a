import { decimal, text } from '../correctable-field';
import type { KindFile } from './kind';

export const priceShown: KindFile<'price_shown'> = {
  label: 'Price shown',
  detail: ({ text, where, taxIn }) => [text, where.toLowerCase(), taxIn === undefined ? null : taxIn ? 'tax in' : 'tax on top'],
  fields: [text('where', 'Where'), text('text', 'What it said'), decimal('perKWh', 'Per kWh'), text('currency', 'Currency')],
};
