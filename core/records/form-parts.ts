import { upperFirst } from '../units/letter-case';
import type { Field, Option } from './form-field';
import { MEANS_KINDS } from './means-kind';

/** Parts that several forms have. */
export const same = (values: readonly string[]): Option[] => values.map((v) => [v, upperFirst(v)]);
export const plain = (values: readonly string[]): Option[] => values.map((v) => [v, v]);
export const MEANS_OPTIONS: Option[] = MEANS_KINDS.map((m) => [m.kind, m.label]);
export const note: Field = { kind: 'long', path: 'note', label: 'Note' };
export const photos: Field = { kind: 'photos', path: 'photos', label: 'Photos' };
export const accepted: Field = { kind: 'many', path: 'meansAccepted', label: 'Means accepted', options: MEANS_OPTIONS };
export const order: Field = { kind: 'text', path: 'orderThatWorks', label: 'Order that works', hint: 'Such as: start, then card' };
