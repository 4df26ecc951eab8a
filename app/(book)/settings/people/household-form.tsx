'use client';
import { useRouter } from 'next/navigation';
import { askWho } from '@/client/store/who';
import { type HouseholdForm as Form, householdForm } from '@/core/records/account-forms';
import { FormAlert } from '@/ui/forms/form-alert';
import { FormField, fieldState } from '@/ui/forms/form-field';
import { useCheckedForm } from '@/ui/forms/use-checked-form';

const FIELDS: { name: keyof Form; label: string; hint?: string }[] = [
  { name: 'householdName', label: 'Name', hint: 'A family, a workshop, a small fleet' },
  { name: 'currency', label: 'Currency', hint: 'Three letters, such as EUR. Sums are counted in it; a bill in another one stays as it was paid' },
  { name: 'zone', label: 'Time zone', hint: 'Such as Europe/Ljubljana. Each site keeps its own' },
];

/** Name, currency and zone of a household: the one there is, or a new one. @param then where to go afterwards */
export function HouseholdForm({
  url,
  method,
  household,
  button,
  then,
}: {
  url: string;
  method: 'PUT' | 'POST';
  household: Form;
  button: string;
  then?: string;
}) {
  const router = useRouter();
  const { register, submit, busy, message, rootMessage } = useCheckedForm(
    url,
    householdForm,
    household,
    async () => {
      await askWho();
      if (then) location.assign(then);
      else router.refresh();
    },
    method,
  );
  return (
    <form onSubmit={submit} noValidate>
      {FIELDS.map((f) => (
        <FormField key={f.name} id={`${method}-${f.name}`} label={f.label} error={message(f.name)} {...(f.hint ? { hint: f.hint } : {})}>
          <input type="text" autoComplete="off" {...register(f.name)} {...fieldState(`${method}-${f.name}`, message(f.name))} />
        </FormField>
      ))}
      <FormAlert message={rootMessage} />
      <button type="submit" className="plate" disabled={busy}>
        {button}
      </button>
    </form>
  );
}
