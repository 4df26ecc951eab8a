'use client';
import { forgetHabits } from '@/client/store/habits';
import { askWho, forgetWho } from '@/client/store/who';
import { deleteForm } from '@/core/records/account-forms';
import { FormAlert } from '@/ui/forms/form-alert';
import { FormField, fieldState } from '@/ui/forms/form-field';
import { PasswordInput } from '@/ui/forms/password-input';
import { useCheckedForm } from '@/ui/forms/use-checked-form';

/** Deletes what cannot be brought back, after a word was typed and the password. */
export function DeleteForm({ url, word, wordLabel, button }: { url: string; word: string; wordLabel: string; button: string }) {
  const { register, submit, busy, message, rootMessage } = useCheckedForm(
    url,
    deleteForm,
    { word: '', password: '' },
    async () => {
      forgetHabits();
      if ((await askWho()) === 'signed_out') forgetWho();
      location.assign('/');
    },
    'DELETE',
  );
  const id = (field: string) => `${url.split('/').at(-1)}-${field}`;
  return (
    <form onSubmit={submit} noValidate>
      <FormField id={id('word')} label={wordLabel} error={message('word')} hint={`Type ${word}`}>
        <input type="text" autoComplete="off" {...register('word')} {...fieldState(id('word'), message('word'))} />
      </FormField>
      <FormField id={id('password')} label="Your password" error={message('password')}>
        <PasswordInput id={id('password')} error={message('password')} autoComplete="current-password" {...register('password')} />
      </FormField>
      <FormAlert message={rootMessage} />
      <button type="submit" className="plate plate-bad" disabled={busy}>
        {button}
      </button>
    </form>
  );
}
