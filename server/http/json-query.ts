import type * as z from 'zod';
import { firstProblem, ownWords } from '@/core/units/own-words';

/** What stands as JSON in an address. @returns it, or what is wrong with it in words; `null` where it is not there */
export function jsonQuery<T>(request: Request, name: string, schema: z.ZodType<T>): T | string | null {
  const text = new URL(request.url).searchParams.get(name);
  if (text === null) return null;
  try {
    const parsed = schema.safeParse(JSON.parse(text), { error: ownWords });
    if (parsed.success) return parsed.data;
    const { path, reason } = firstProblem(parsed.error, name);
    return `${path}: ${reason}`;
  } catch {
    return `${name}: is not JSON`;
  }
}
