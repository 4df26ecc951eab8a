'use client';
import { useForm } from 'react-hook-form';
import { v7 } from 'uuid';
import { CONNECTORS } from '@/core/records/connector';
import { RECORDS, type RecordItem } from '@/core/records/record-schema';
import { FormField, fieldState } from '@/ui/forms/form-field';
import { Sheet } from '@/ui/pads/sheet';

type Form = { name: string; usableKWh: string; connector: string };

export function AddCarSheet({ onClose, onAdd }: { onClose: () => void; onAdd: (item: RecordItem) => Promise<void> }) {
  const {
    register,
    handleSubmit,
    setError,
    formState: { errors, isSubmitting },
  } = useForm<Form>({ defaultValues: { name: '', usableKWh: '', connector: 'CCS2' } });
  const submit = handleSubmit(async (form) => {
    const parsed = RECORDS.car.safeParse({ ...form, usableKWh: form.usableKWh.trim() === '' ? undefined : Number(form.usableKWh.replace(',', '.')) });
    if (parsed.success) return onAdd({ type: 'car', id: v7(), baseRev: 0, fields: parsed.data });
    for (const issue of parsed.error.issues) setError(issue.path[0] as keyof Form, { message: issue.message });
  });
  return (
    <Sheet title="A car" onClose={onClose}>
      <form onSubmit={submit} noValidate>
        <FormField id="name" label="Name" error={errors.name?.message}>
          <input {...register('name')} {...fieldState('name', errors.name?.message)} autoComplete="off" />
        </FormField>
        <FormField id="usableKWh" label="Usable kWh" error={errors.usableKWh?.message}>
          <input {...register('usableKWh')} {...fieldState('usableKWh', errors.usableKWh?.message)} inputMode="decimal" autoComplete="off" />
        </FormField>
        <FormField id="connector" label="Connector" error={errors.connector?.message}>
          <select {...register('connector')} {...fieldState('connector', errors.connector?.message)}>
            {CONNECTORS.map((c) => (
              <option key={c}>{c}</option>
            ))}
          </select>
        </FormField>
        <button type="submit" disabled={isSubmitting} className="plate plate-next !min-h-[56px] w-full text-[17px]">
          Add the car
        </button>
      </form>
    </Sheet>
  );
}
