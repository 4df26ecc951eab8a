import { MEANS_KINDS } from '../../records/means-kind';
import type { Show } from '../attempts/attempt';
import { type CorrectableField, choice, decimal, reference, text } from '../correctable-field';
import type { Payload } from '../payloads';
import { markOf } from '../timing';
import { type NameOf, type PlacedOf, unit } from './kind';

/** What the three kinds that name a means have in common. */
export const MEANS_FIELDS: readonly CorrectableField[] = [
  choice(
    'meansKind',
    'Kind of means',
    MEANS_KINDS.map((m) => [m.kind, m.label] as const),
  ),
  reference('means', 'meansId', 'Means held'),
  decimal('holdAmount', 'Amount held back'),
  text('currency', 'Currency'),
];

export const meansDetail = (p: Payload<'means_shown'>, nameOf: NameOf) => [
  p.meansId ? nameOf('means', p.meansId) : null,
  unit(p.holdAmount, p.currency ? `${p.currency} held` : 'held'),
];

export const meansOn = (e: PlacedOf<'means_shown' | 'means_accepted' | 'means_refused'>): Show => ({
  ...markOf(e),
  meansKind: e.payload.meansKind,
  ...(e.payload.meansId ? { meansId: e.payload.meansId } : {}),
});
