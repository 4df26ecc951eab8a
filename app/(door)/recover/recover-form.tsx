'use client';
import { recoveryForm } from '@/core/records/account-forms';
import { FormAlert } from '@/ui/forms/form-alert';
import { FormField, fieldState } from '@/ui/forms/form-field';
import { PasswordInput } from '@/ui/forms/password-input';
import { useDoorForm } from '../use-door-form';

/** @param to where it leads */
export function RecoverForm({ to }: { to: string }) {
  const { register, submit, busy, message, rootMessage } = useDoorForm('/api/v1/recovery', recoveryForm, { email: '', code: '', password: '' }, to);
  return (
    <form onSubmit={submit} noValidate className="mt-4">
      <FormField id="email" label="E-mail address" error={message('email')}>
        <input type="email" autoComplete="username" {...register('email')} {...fieldState('email', message('email'))} />
      </FormField>
      <FormField id="code" label="Recovery code" hint="Twelve signs, in any grouping" error={message('code')}>
        <input type="text" autoComplete="off" autoCapitalize="characters" spellCheck={false} {...register('code')} {...fieldState('code', message('code'))} />
      </FormField>
      <FormField id="password" label="New password" hint="At least 10 characters" error={message('password')}>
        <PasswordInput id="password" error={message('password')} autoComplete="new-password" {...register('password')} />
      </FormField>
      <FormAlert message={rootMessage} />
      <button type="submit" className="plate plate-next !min-h-[52px] w-full text-[17px]" disabled={busy}>
        Set the password and sign in
      </button>
    </form>
  );
}
