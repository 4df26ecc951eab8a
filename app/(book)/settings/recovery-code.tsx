'use client';
import { useRouter } from 'next/navigation';
import { useState } from 'react';
import { againForm } from '@/core/records/account-forms';
import { FormAlert } from '@/ui/forms/form-alert';
import { FormField } from '@/ui/forms/form-field';
import { PasswordInput } from '@/ui/forms/password-input';
import { useCheckedForm } from '@/ui/forms/use-checked-form';

/** Makes a recovery code and shows it once, to be printed or written down. @param made when the one in force was made, in words; `null` when there is none */
export function RecoveryCode({ made }: { made: string | null }) {
  const [code, setCode] = useState<string | null>(null);
  const router = useRouter();
  const { register, submit, busy, message, rootMessage } = useCheckedForm('/api/v1/recovery/code', againForm, { password: '' }, (answer) => {
    setCode((answer as { code: string }).code);
    router.refresh();
  });
  return (
    <>
      <p className="text-sm">
        {code ? '' : made ? `One was made on ${made}; it is shown nowhere any more. ` : 'None is made yet. '}It opens the account when the password is lost,
        once: no e-mail is sent from here. Keep it on paper, not on a phone.
      </p>
      {code ? (
        <div role="status" className="mt-3 border-l-4 border-paint bg-picked px-3 py-2">
          <p className="text-sm font-semibold">Your recovery code. It is not shown again.</p>
          <p id="recovery-code" className="num my-2 select-all text-[26px] font-semibold tracking-normal max-[360px]:text-[22px]">
            {code}
          </p>
          <button type="button" className="plate no-print" onClick={() => print()}>
            Print
          </button>
        </div>
      ) : (
        <form onSubmit={submit} noValidate className="mt-3">
          <FormField id="again" label="Your password" error={message('password')}>
            <PasswordInput id="again" error={message('password')} autoComplete="current-password" {...register('password')} />
          </FormField>
          <FormAlert message={rootMessage} />
          <button type="submit" className="plate" disabled={busy}>
            {made ? 'Make a new one, the old one ends' : 'Make a recovery code'}
          </button>
        </form>
      )}
    </>
  );
}
