'use client';
import { useRouter } from 'next/navigation';
import { useState } from 'react';
import { passwordForm } from '@/core/records/account-forms';
import { FormAlert } from '@/ui/forms/form-alert';
import { FormField } from '@/ui/forms/form-field';
import { PasswordInput } from '@/ui/forms/password-input';
import { useCheckedForm } from '@/ui/forms/use-checked-form';

/** Changes the password with the old one. Every other device is signed out. */
export function ChangePassword() {
  const [done, setDone] = useState(false);
  const router = useRouter();
  const { register, submit, busy, message, rootMessage } = useCheckedForm('/api/v1/password', passwordForm, { old: '', password: '' }, () => {
    setDone(true);
    router.refresh();
  });
  return (
    <form onSubmit={submit} noValidate className="mt-2">
      <FormField id="old" label="Your password now" error={message('old')}>
        <PasswordInput id="old" error={message('old')} autoComplete="current-password" {...register('old')} />
      </FormField>
      <FormField id="new-password" label="New password" hint="At least 10 characters" error={message('password')}>
        <PasswordInput id="new-password" error={message('password')} autoComplete="new-password" {...register('password')} />
      </FormField>
      <FormAlert message={rootMessage} />
      <button type="submit" className="plate" disabled={busy}>
        Change the password
      </button>
      {done ? (
        <p role="status" className="mt-2 text-sm font-semibold">
          The password is changed. Every other device is signed out, and the tokens of programs are over.
        </p>
      ) : null}
    </form>
  );
}
