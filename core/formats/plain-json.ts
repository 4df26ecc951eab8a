import { type Json, JsonNumber } from './strict-json';

/** What was read strictly as the plain values of the language; a name is only ever a name, `__proto__` too. */
export function plainJson(value: Json): unknown {
  if (value instanceof JsonNumber) return value.value;
  if (Array.isArray(value)) return value.map(plainJson);
  if (value instanceof Map) return Object.fromEntries([...value].map(([key, member]) => [key, plainJson(member)]));
  return value;
}
