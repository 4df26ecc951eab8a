import * as z from 'zod';
import { ownWords } from '../units/own-words';
import { isZone } from '../units/zoned';

const email = z.string().trim().toLowerCase().max(190, 'At most 190 characters').pipe(z.email('This is not an e-mail address'));

/** One schema for the form and the server. */
export const signInForm = z.object({ email, password: z.string().min(1, 'Enter your password').max(200, 'At most 200 characters') });
export type SignInForm = z.infer<typeof signInForm>;

/** A password that is set: length is what makes it hard to guess; the server also refuses common ones. */
const newPassword = z.string().min(10, 'At least 10 characters').max(200, 'At most 200 characters');

export const passwordForm = z.object({ old: z.string().min(1, 'Enter your password').max(200, 'At most 200 characters'), password: newPassword });
export type PasswordForm = z.infer<typeof passwordForm>;

export const recoveryForm = z.object({ email, code: z.string().min(1, 'Enter the code').max(40, 'At most 40 characters'), password: newPassword });
export type RecoveryForm = z.infer<typeof recoveryForm>;

/** What is asked again before something that a borrowed device must not do. */
export const againForm = z.object({ password: z.string().min(1, 'Enter your password').max(200, 'At most 200 characters') });
export type AgainForm = z.infer<typeof againForm>;

export const signUpForm = z.object({
  name: z.string().trim().min(1, 'Enter your name').max(80, 'At most 80 characters'),
  householdName: z.string().trim().min(1, 'Name the household').max(80, 'At most 80 characters'),
  email,
  password: newPassword,
  currency: z
    .string()
    .trim()
    .toUpperCase()
    .regex(/^[A-Z]{3}$/, 'Three letters, such as EUR'),
  zone: z.string().max(64).refine(isZone, 'Not a known time zone'),
});
export type SignUpForm = z.infer<typeof signUpForm>;

/** Checks a form as it was typed or as it came: its values, or what is wrong by field, in our own words. */
export function checkForm<T>(schema: z.ZodType<T>, typed: unknown): { ok: true; data: T } | { ok: false; fields: Record<string, string> } {
  const checked = schema.safeParse(typed, { error: ownWords });
  return checked.success ? { ok: true, data: checked.data } : { ok: false, fields: fieldMessages(checked.error) };
}

/** The first message of each field, for showing beside it. */
function fieldMessages(error: z.ZodError): Record<string, string> {
  const out: Record<string, string> = {};
  for (const issue of error.issues) {
    const field = issue.path.join('.') || 'form';
    out[field] ??= issue.message;
  }
  return out;
}
