import { privateNumber } from '../records/private-number';
import { type Json, JsonNumber } from './strict-json';

/** What stands for a number that must not be kept. */
export const NOT_KEPT = 'not kept';
/** A number that may be a card's: shorter ones are counted milliseconds as well, decimals are measured. */
const MAY_BE_CARD = /^\d{14,19}$/;

/** What a file says, kept as it stands but for the numbers of cards, contracts and hardware, in whatever text or number they are. */
export function keptJson(v: Json): Json {
  if (typeof v === 'string') return privateNumber(v) === null ? v : NOT_KEPT;
  if (v instanceof JsonNumber) return MAY_BE_CARD.test(v.text) && privateNumber(v.text) !== null ? NOT_KEPT : v;
  if (Array.isArray(v)) return v.map(keptJson);
  return v instanceof Map ? new Map([...v].map(([k, of]): [string, Json] => [k, keptJson(of)])) : v;
}
