import { type Json, JsonNumber } from './strict-json';

/** What was read strictly as a JSON text again: members in their order, numbers as they were written. */
export function jsonText(value: Json): string {
  if (value instanceof JsonNumber) return value.text;
  if (Array.isArray(value)) return `[${value.map(jsonText).join(',')}]`;
  if (value instanceof Map) return `{${[...value].map(([key, member]) => `${JSON.stringify(key)}:${jsonText(member)}`).join(',')}}`;
  return JSON.stringify(value);
}
