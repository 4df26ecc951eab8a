'use client';
import { signInForm } from '@/core/records/account-forms';
import { FormAlert } from '@/ui/forms/form-alert';
import { EmailAndPassword } from '../email-and-password';
import { useDoorForm } from '../use-door-form';

/** @param to where it leads */
export function SignInForm({ to }: { to: string }) {
  const { register, submit, busy, message, rootMessage } = useDoorForm('/api/v1/session', signInForm, { email: '', password: '' }, to);
  return (
    <form onSubmit={submit} noValidate className="mt-4">
      <EmailAndPassword email={register('email')} password={register('password')} message={message} />
      <FormAlert message={rootMessage} />
      <button type="submit" className="plate !min-h-[52px] w-full text-[17px]" disabled={busy}>
        Sign in
      </button>
    </form>
  );
}
