'use client';
import { useRouter } from 'next/navigation';
import { askWho } from '@/client/store/who';
import { ownNameForm } from '@/core/records/account-forms';
import { FormAlert } from '@/ui/forms/form-alert';
import { FormField, fieldState } from '@/ui/forms/form-field';
import { useCheckedForm } from '@/ui/forms/use-checked-form';

/** One's own name, as everybody of the household reads it. */
export function OwnName({ name }: { name: string }) {
  const router = useRouter();
  const { register, submit, busy, message, rootMessage } = useCheckedForm(
    '/api/v1/me',
    ownNameForm,
    { name },
    async () => {
      await askWho();
      router.refresh();
    },
    'PUT',
  );
  return (
    <form onSubmit={submit} noValidate className="mt-3">
      <FormField id="own-name" label="Your name" error={message('name')}>
        <input type="text" autoComplete="name" {...register('name')} {...fieldState('own-name', message('name'))} />
      </FormField>
      <FormAlert message={rootMessage} />
      <button type="submit" className="plate" disabled={busy}>
        Keep the name
      </button>
    </form>
  );
}
