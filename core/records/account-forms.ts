import * as z from '@/core/units/schema';
import { unkeepable } from '../units/keepable-json';
import { ownWords } from '../units/own-words';
import { isZone } from '../units/zoned';

const TOO_LONG = 'At most 200 characters';
const email = z.pipe(z.string().check(z.trim(), z.toLowerCase(), z.maxLength(190, 'At most 190 characters')), z.email('This is not an e-mail address'));
/** Something that must be there. */
const given = (missing: string, max: number, tooLong: string) => z.string().check(z.minLength(1, missing), z.maxLength(max, tooLong));
const name = (missing: string) => z.string().check(z.trim(), z.minLength(1, missing), z.maxLength(80, 'At most 80 characters'));

/** One schema for the form and the server. */
export const signInForm = z.object({ email, password: given('Enter your password', 200, TOO_LONG) });
export type SignInForm = z.infer<typeof signInForm>;

/** A password that is set: length is what makes it hard to guess; the server also refuses common ones. */
const newPassword = z.string().check(z.minLength(10, 'At least 10 characters'), z.maxLength(200, TOO_LONG));

export const passwordForm = z.object({ old: given('Enter your password', 200, TOO_LONG), password: newPassword });
export type PasswordForm = z.infer<typeof passwordForm>;

export const recoveryForm = z.object({ email, code: given('Enter the code', 40, 'At most 40 characters'), password: newPassword });
export type RecoveryForm = z.infer<typeof recoveryForm>;

/** What is asked again before something that a borrowed device must not do. */
export const againForm = z.object({ password: given('Enter your password', 200, TOO_LONG) });
export type AgainForm = z.infer<typeof againForm>;

const ofHousehold = {
  householdName: name('Name the household'),
  currency: z.string().check(z.trim(), z.toUpperCase(), z.regex(/^[A-Z]{3}$/, 'Three letters, such as EUR')),
  zone: z.string().check(z.maxLength(64), z.refine(isZone, 'Not a known time zone')),
};
const ofPerson = { name: name('Enter your name'), email, password: newPassword };
export const signUpForm = z.object({ ...ofPerson, ...ofHousehold });
export type SignUpForm = z.infer<typeof signUpForm>;

/** A household by itself: another of one's own, or the one there is as it is called from now on. */
export const householdForm = z.object(ofHousehold);
export type HouseholdForm = z.infer<typeof householdForm>;

/** An account made by somebody who was invited. */
export const invitedForm = z.object(ofPerson);
export type InvitedForm = z.infer<typeof invitedForm>;

/** A code as it was sent, of twelve signs however they are grouped. */
export const codeForm = z.object({ code: given('Enter the code', 40, 'At most 40 characters') });
export type CodeForm = z.infer<typeof codeForm>;

/** How one is called oneself. */
export const ownNameForm = z.object({ name: name('Enter your name') });
export type OwnNameForm = z.infer<typeof ownNameForm>;

/** A word that somebody types so that nothing is deleted by a slip: the household's name, or one's own. */
export const deleteForm = z.object({ word: given('Type the name', 200, TOO_LONG), password: given('Enter your password', 200, TOO_LONG) });
export type DeleteForm = z.infer<typeof deleteForm>;

/** Checks a form as it was typed or as it came: its values, or what is wrong by field, in our own words. */
export function checkForm<T>(schema: z.ZodMiniType<T>, typed: unknown): { ok: true; data: T } | { ok: false; fields: Record<string, string> } {
  const checked = schema.safeParse(typed, { error: ownWords });
  if (!checked.success) return { ok: false, fields: fieldMessages(checked.error) };
  const bad = unkeepable(checked.data, '');
  return bad ? { ok: false, fields: { [bad.path || 'form']: bad.reason } } : { ok: true, data: checked.data };
}

/** The first message of each field, for showing beside it. */
function fieldMessages(error: z.core.$ZodError): Record<string, string> {
  const out: Record<string, string> = {};
  for (const issue of error.issues) {
    const field = issue.path.join('.') || 'form';
    out[field] ??= issue.message;
  }
  return out;
}
