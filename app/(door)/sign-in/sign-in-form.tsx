'use client';
import { signInForm } from '@/core/records/account-forms';
import { FormAlert } from '@/ui/forms/form-alert';
import { FormField, fieldState } from '@/ui/forms/form-field';
import { PasswordInput } from '@/ui/forms/password-input';
import { useDoorForm } from '../use-door-form';

export function SignInForm() {
  const { register, submit, busy, message, rootMessage } = useDoorForm('/api/v1/session', signInForm, { email: '', password: '' });
  return (
    <form onSubmit={submit} noValidate className="mt-4">
      <FormField id="email" label="E-mail address" error={message('email')}>
        <input type="email" autoComplete="username" {...register('email')} {...fieldState('email', message('email'))} />
      </FormField>
      <FormField id="password" label="Password" error={message('password')}>
        <PasswordInput id="password" error={message('password')} autoComplete="current-password" {...register('password')} />
      </FormField>
      <FormAlert message={rootMessage} />
      <button type="submit" className="plate !min-h-[52px] w-full text-[17px]" disabled={busy}>
        Sign in
      </button>
    </form>
  );
}
