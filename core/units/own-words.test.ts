import fc from 'fast-check';
import * as z from 'zod';
import { checkForm, recoveryForm, signInForm, signUpForm } from '../records/account-forms';
import { checkChange } from '../records/record-change';
import { RECORD_TYPES } from '../records/types/registry';
import { checkEvent } from '../visit/check-event';
import { IN, SITE, story, T0 } from '../visit/fixtures/story';
import { KINDS } from '../visit/kinds/registry';
import { firstProblem, ownWords } from './own-words';

const said = (schema: z.ZodType, value: unknown) => {
  const r = schema.safeParse(value, { error: ownWords });
  return r.success ? null : firstProblem(r.error, '');
};

describe('what a schema refuses is said in our own words', () => {
  it.each<[z.ZodType, unknown, string]>([
    [z.string(), undefined, 'is missing'],
    [z.string(), 3, 'must be text'],
    [z.number(), 'x', 'must be a number'],
    [z.int(), 1.5, 'must be a whole number'],
    [z.boolean(), 'x', 'must be yes or no'],
    [z.array(z.string()), 'x', 'must be a list'],
    [z.object({}), 'x', 'must hold named fields'],
    [z.date(), 'x', 'is not understood'],
    [z.string().max(3), 'abcd', 'must be at most 3 characters'],
    [z.string().min(3), 'ab', 'must be at least 3 characters'],
    [z.array(z.string()).max(1), ['a', 'b'], 'must be at most 1 entries'],
    [z.number().max(3), 4, 'must be at most 3'],
    [z.number().lt(3), 3, 'must be less than 3'],
    [z.number().gt(3), 3, 'must be more than 3'],
    [z.enum(['a', 'b']), 'c', 'must be one of: a, b'],
    [z.enum(['a', 'b']), undefined, 'is missing'],
    [z.string().regex(/x/), 'y', 'is not understood'],
    [z.record(z.string().regex(/^a/, 'must begin with a'), z.number()), { b: 1 }, 'must begin with a'],
    [z.strictObject({ a: z.string() }), { a: '', b: 1 }, 'is no field that is known here'],
    [z.string('must be a name'), 3, 'must be a name'],
  ])('%#', (schema, value, reason) => expect(said(schema, value)?.reason).toBe(reason));
  it('with the path of the field, below what it stands in', () => {
    const schema = z.object({ a: z.array(z.object({ b: z.string() })) });
    expect(said(schema, { a: [{ b: 'x' }, { b: 3 }] })).toEqual({ path: 'a.1.b', reason: 'must be text' });
    expect(said(z.object({ a: z.strictObject({}) }), { a: { c: 1, d: 2 } })?.path).toBe('a.c');
    const r = schema.safeParse(7, { error: ownWords });
    expect(firstProblem(r.error as z.ZodError, '').path).toBe('item');
    expect(firstProblem(r.error as z.ZodError, 'payload').path).toBe('payload');
  });
  it('whatever comes: no refusal speaks a library’s language', () => {
    const foreign = /invalid|expected|received|too (big|small)|zod|pattern/i;
    const [good] = story(IN);
    fc.assert(
      fc.property(fc.jsonValue(), fc.constantFrom(...KINDS), fc.constantFrom(...RECORD_TYPES), (junk, kind, type) => {
        const answers = [
          checkEvent(junk, T0),
          checkEvent({ ...good, ...(typeof junk === 'object' ? junk : {}) }, T0),
          checkEvent({ ...good, kind, payload: junk }, T0),
          checkChange(junk),
          checkChange({ type, id: SITE, baseRev: 0, fields: junk }),
        ].flatMap((a) => (a.ok ? [] : [a.reason]));
        for (const form of [signInForm, signUpForm, recoveryForm]) {
          const checked = checkForm<unknown>(form, junk);
          if (!checked.ok) answers.push(...Object.values(checked.fields));
        }
        for (const reason of answers) expect(reason).not.toMatch(foreign);
      }),
      { seed: 12, numRuns: 400 },
    );
  });
});
