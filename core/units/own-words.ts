import type * as z from 'zod/v4/core';
import { safeParse } from '@/core/units/schema';

const TYPES: Record<string, string> = {
  string: 'must be text',
  number: 'must be a number',
  int: 'must be a whole number',
  boolean: 'must be yes or no',
  array: 'must be a list',
  object: 'must hold named fields',
  record: 'must hold named fields',
};
const UNITS: Record<string, string> = { string: ' characters', array: ' entries' };

/**
 * What is wrong, in the project's own words, where a schema says nothing itself. Handed to every parse of what comes
 * from outside, so that a refusal never speaks a library's language.
 */
export function ownWords(issue: z.$ZodRawIssue): string {
  const bound = (n: unknown) => `${String(n)}${UNITS[String(issue.origin)] ?? ''}`;
  switch (issue.code) {
    case 'invalid_type':
      return issue.input === undefined ? 'is missing' : (TYPES[String(issue.expected)] ?? 'is not understood');
    case 'too_small':
      return issue.inclusive === false ? `must be more than ${bound(issue.minimum)}` : `must be at least ${bound(issue.minimum)}`;
    case 'too_big':
      return issue.inclusive === false ? `must be less than ${bound(issue.maximum)}` : `must be at most ${bound(issue.maximum)}`;
    case 'invalid_value':
      return issue.input === undefined ? 'is missing' : `must be one of: ${(issue.values as unknown[]).join(', ')}`;
    case 'invalid_key':
      // The name's own schema says what is wrong with it.
      return (issue.issues as { message: string }[])[0]?.message ?? 'has a name that is not allowed';
    case 'unrecognized_keys':
      return 'is no field that is known here';
    default:
      return 'is not understood';
  }
}

/**
 * Parses what comes from outside. Only what is refused is parsed once more, for the words: a parse that carries them takes twice as long, and of ten thousand events hardly one
 * is refused.
 */
export function parsed<T extends z.$ZodType>(schema: T, value: unknown): z.util.SafeParseResult<z.output<T>> {
  const plainly = safeParse(schema, value);
  return plainly.success ? plainly : safeParse(schema, value, { error: ownWords });
}

/** All that is wrong, each with the path of its field: of fields that are not known too. */
export const problemsOf = (error: z.$ZodError): { path: readonly PropertyKey[]; reason: string }[] =>
  error.issues.flatMap((issue) =>
    (issue.code === 'unrecognized_keys' ? issue.keys.map((key) => [...issue.path, key]) : [issue.path]).map((path) => ({ path, reason: issue.message })),
  );

/** The first thing that is wrong: the path of the field below `under`, and the reason. */
export function firstProblem(error: z.$ZodError, under: string): { path: string; reason: string } {
  const [first] = problemsOf(error);
  return { path: [under, ...(first?.path ?? [])].filter((part) => part !== '').join('.') || 'item', reason: first?.reason ?? 'is not understood' };
}
