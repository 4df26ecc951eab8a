import type { BreachCode } from './ocpi-check';
import type { JsonRefused } from './strict-json';

/** What is wrong with a member of a document, to be said after its place in it. */
export const BREACH_WORDS: Readonly<Record<BreachCode, string>> = {
  missing: 'is missing',
  type: 'is of the wrong type',
  value: 'is none of the values there are',
  format: 'is not written as it must be',
  bounds: 'is out of bounds',
  empty: 'holds nothing',
  zone: 'is no time zone',
  order: 'is before it begins',
  duplicate: 'stands there twice',
  restriction: 'is a condition that is not known: passed over it would misprice',
  too_long: 'is longer than it may be',
  decimals: 'has other decimals than it must',
  offset: 'has an offset, and should be in UTC',
  dimension: 'is a dimension that is not known',
  sum: 'does not add up',
  outside: 'is outside the session',
  unsorted: 'is not in order',
  credit_sign: 'has the wrong sign for a credit',
};

/** Why a file is not read as JSON. */
export const JSON_WORDS: Readonly<Record<JsonRefused['code'], string>> = {
  not_json: 'It is not JSON.',
  bad_encoding: 'It is not UTF-8.',
  nul_byte: 'It holds a NUL byte.',
  too_deep: 'It is nested too deep.',
  duplicate_key: 'A name stands twice in one object.',
  lone_surrogate: 'It holds half a character.',
  bad_number: 'It holds a number of impossible size.',
  too_large: 'It is too large.',
};
