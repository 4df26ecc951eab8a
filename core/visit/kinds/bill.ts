import { choice, decimal, number, text } from '../correctable-field';
import { type KindFile, unit } from './kind';

export const bill: KindFile<'bill'> = {
  label: 'Bill',
  detail: ({ amount, currency, kWh, sessions, state, payee, ref, what }, _, attempts) => [
    `${amount} ${currency}`,
    what === 'parking' ? 'for parking' : null,
    unit(kWh, 'kWh'),
    attempts(sessions),
    state === 'charged' ? null : state,
    payee,
    ref,
  ],
  fields: [
    { field: 'sessions', label: 'For which attempts', is: 'attempts' },
    decimal('amount', 'Amount paid'),
    text('currency', 'Currency'),
    decimal('fx', 'Came to, in your own currency'),
    decimal('kWh', 'kWh on the bill'),
    number('minutes', 'Minutes on the bill'),
    decimal('tax', 'Of that tax'),
    choice('what', 'For', [
      ['charging', 'Charging'],
      ['parking', 'Parking'],
    ]),
    text('payee', 'Paid to'),
    text('ref', 'Number of the bill'),
    choice('counts', 'Beside another bill for the same', [['as_well', 'a bill of its own, paid as well']]),
    choice('state', 'State', [
      ['charged', 'Charged'],
      ['pending', 'Pending'],
      ['checked', 'Checked'],
      ['queried', 'Queried'],
      ['settled', 'Settled'],
      ['refunded', 'Refunded'],
    ]),
  ],
  afterwards: true,
};
