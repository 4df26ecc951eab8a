'use client';
import { useState } from 'react';
import type { SignedTold, SignedVerdict } from '@/core/formats/network-record';
import { printKWh } from '@/core/units/print';
import { printTime } from '@/core/units/zoned';
import { FormAlert } from '../forms/form-alert';
import { FormField, fieldState } from '../forms/form-field';
import { postJson } from '../forms/post-json';

const WORDS: Readonly<Record<SignedVerdict, string>> = {
  holds: 'the signature holds',
  differs: 'the signature does not hold by this key',
  no_key: 'no key came with it, so it is not checked',
  bad_key: 'what was given is no key that can be read',
  unknown: 'signed in a way that cannot be checked here',
};

/** The signed meter values of a network's record: whether they hold, by the key that came along or one that is typed from the meter. */
export function SignedValues({
  method,
  told: first,
  visitId,
  billId,
  zone,
}: {
  method: string;
  told: SignedTold;
  visitId: string;
  billId: string;
  zone: string;
}) {
  const [told, setTold] = useState(first);
  const [key, setKey] = useState('');
  const [odd, setOdd] = useState<string | undefined>();
  const [problem, setProblem] = useState<string | null>(null);
  const [busy, setBusy] = useState(false);
  const check = async () => {
    if (key.trim() === '') return setOdd('The key, as it stands on the meter');
    setBusy(true);
    const answer = await postJson('/api/v1/signed-values', { visitId, billId, key });
    setBusy(false);
    setOdd(answer.ok ? undefined : answer.fields.key);
    setProblem(answer.ok || answer.fields.key ? null : (answer.error ?? 'The server did not take this.'));
    if (answer.ok) setTold(answer.body as SignedTold);
  };
  return (
    <div className="mt-2 text-[13px]">
      <h4 className="text-[13px] font-semibold">Signed meter values, {method}</h4>
      <ul aria-live="polite" className="list-disc pl-5">
        {told.values.map((v, i) => (
          // biome-ignore lint/suspicious/noArrayIndexKey: two may be of one nature
          <li key={i}>
            {[v.nature, v.meter].filter(Boolean).join(', ')}: <b>{WORDS[v.verdict]}</b>
          </li>
        ))}
      </ul>
      {told.kWh === null ? null : (
        <p className="mt-1">
          By the signed registers {printKWh(told.kWh)}
          {told.from !== null && told.to !== null ? `, from ${printTime(told.from, zone)} to ${printTime(told.to, zone)}` : ''}.
        </p>
      )}
      <details className="no-print mt-1">
        <summary className="inline-block min-h-6 cursor-pointer py-1 font-semibold text-shake">Check with a key of your own</summary>
        <form
          noValidate
          className="mt-1"
          onSubmit={(e) => {
            e.preventDefault();
            void check();
          }}
        >
          <FormField
            id={`key-${billId}`}
            label="Public key of the meter"
            error={odd}
            hint="As it stands on the meter or is shown at the stall. It is held against the values on this server and goes nowhere else."
          >
            <textarea {...fieldState(`key-${billId}`, odd)} rows={3} spellCheck={false} value={key} onChange={(e) => setKey(e.target.value)} />
          </FormField>
          <FormAlert message={problem} />
          <button type="submit" disabled={busy} className="plate !min-h-[44px]">
            Check
          </button>
        </form>
      </details>
    </div>
  );
}
