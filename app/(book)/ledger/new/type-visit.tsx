'use client';
import { useRouter } from 'next/navigation';
import { type ReactNode, useEffect, useState } from 'react';
import { useForm } from 'react-hook-form';
import { v7 } from 'uuid';
import { sendOutbox } from '@/client/outbox/send-outbox';
import { householdRecords } from '@/client/store/household-records';
import { eventsOfVisit, keepEvents } from '@/client/store/keep-event';
import { openOwnStore } from '@/client/store/phone-store';
import { noRecords } from '@/client/store/records-by-type';
import { askWho, readWho } from '@/client/store/who';
import { phoneNow } from '@/client/touch/touch-time';
import { FAULTS } from '@/core/faults/fault-list';
import { MEANS_KINDS, meansLabel } from '@/core/records/means-kind';
import { localInstants } from '@/core/units/local-time';
import { LEAVE_LABELS } from '@/core/visit/kinds/pulled-out';
import { typedVisit } from '@/core/visit/typed-visit';
import { readTypedVisit, type TypedTexts } from '@/core/visit/typed-visit-form';
import { FormField, fieldState } from '@/ui/forms/form-field';
import { PickOne } from '@/ui/forms/pick-one';
import { recordChoices } from '@/ui/forms/record-choices';
import { useDraft } from '@/ui/forms/use-draft';

import { ReadReceipt, type ReceiptTold } from './read-receipt';

const EMPTY: TypedTexts = {
  siteId: '',
  stallId: '',
  carId: '',
  drivenBy: '',
  day: '',
  pulledIn: '',
  plugged: '',
  powerSeen: '',
  stopped: '',
  pulledOut: '',
  means: '',
  handshake: '',
  socFrom: '',
  socTo: '',
  kWh: '',
  minutes: '',
  amount: '',
  currency: '',
  fault: '',
  charged: 'yes',
  reason: 'enough',
  note: '',
};
type Name = keyof TypedTexts;

/** A visit typed in afterwards, with only what is known. */
export function TypeVisit({
  whose,
  currency,
  site,
  people,
}: {
  /** Who types, in which household. */
  whose: string;
  currency: string;
  site: string;
  people: readonly { id: string; name: string }[];
}) {
  const router = useRouter();
  const [records, setRecords] = useState(noRecords);
  const [problems, setProblems] = useState<Partial<Record<Name, string>>>({});
  const [failed, setFailed] = useState<string | null>(null);
  /** The visit that is kept on this device and not sent yet. */
  const [kept, setKept] = useState<string | null>(null);
  const form = useForm<TypedTexts>({ defaultValues: { ...EMPTY, siteId: site, currency } });
  const { register, handleSubmit, watch, setValue, getValues, formState } = form;
  const [takenUp, drop] = useDraft(`typed visit ${whose} ${site}`, form);
  useEffect(() => void householdRecords(setRecords).catch(() => {}), []);
  // A list shows nothing chosen until what was chosen is on it.
  // biome-ignore lint/correctness/useExhaustiveDependencies: once the lists have come
  useEffect(() => {
    for (const name of ['carId', 'means'] as const) setValue(name, getValues(name));
  }, [records]);
  const [siteId, charged] = [watch('siteId'), watch('charged')];
  const zone = records.site.find((s) => s.id === siteId)?.fields.zone ?? Intl.DateTimeFormat().resolvedOptions().timeZone;
  const choices = recordChoices(records, siteId);

  const keep = async (texts: TypedTexts) => {
    const read = readTypedVisit(texts, (day, time) => localInstants(day, time, zone), phoneNow());
    setProblems(read.problems);
    setFailed(null);
    const first = Object.keys(read.problems)[0];
    if (first) document.getElementById(`typed-${first}`)?.focus();
    if (!read.visit) return;
    const told = typedVisit(read.visit);
    try {
      const asked = await askWho();
      const who = typeof asked === 'object' ? asked : readWho();
      if (!who || asked === 'signed_out') throw new Error('Sign in again, then repeat this.');
      const store = await openOwnStore(who);
      try {
        // Kept once, however often it has to be sent.
        const visitId = kept ?? v7();
        if (kept === null) {
          await keepEvents(
            store,
            who,
            told.map((e) => ({
              visitId,
              kind: e.kind,
              payload: e.payload,
              zone,
              touch: { at: e.at, mono: 0 },
              origin: 'typed' as const,
              precision: e.precision,
            })),
          );
          setKept(visitId);
          drop(false);
        }
        const outcome = await sendOutbox(store);
        const all = await eventsOfVisit(store, visitId);
        const refused = all.flatMap((k) => (k.state === 'refused' ? [`${k.path ?? ''} ${k.reason}`.trim()] : []));
        if (refused.length > 0 && refused.length === all.length) {
          // Of a visit that is nowhere all can be put right; of one that was taken in part there is a page.
          setKept(null);
          setFailed(`The server did not take it: ${refused[0]}`);
        } else if (outcome === 'sent') router.push(`/ledger/${visitId}`);
        else setFailed('The visit is kept on this device. It is sent, and has its page, once the server can be reached.');
      } finally {
        store.close();
      }
    } catch (error) {
      setFailed(error instanceof Error ? error.message : String(error));
    }
  };

  const field = (name: Name, label: string, control: (props: ReturnType<typeof fieldState> & ReturnType<typeof register>) => ReactNode, hint?: string) => (
    <FormField id={`typed-${name}`} label={label} error={problems[name]} {...(hint ? { hint } : {})}>
      {control({ ...register(name), ...fieldState(`typed-${name}`, problems[name]) })}
    </FormField>
  );
  const select = (name: Name, label: string, none: string | null, options: readonly (readonly [string, string])[]) =>
    field(name, label, (p) => (
      <select {...p}>
        {none === null ? null : <option value="">{none}</option>}
        {options.map(([value, text]) => (
          <option key={value} value={value}>
            {text}
          </option>
        ))}
      </select>
    ));
  const pick = (name: Name, label: string, none: string, list: readonly { id: string; name: string }[] | undefined) => (
    <FormField id={`typed-${name}`} label={label} error={problems[name]}>
      <PickOne
        none={none}
        list={list ?? []}
        value={watch(name) ?? ''}
        {...fieldState(`typed-${name}`, problems[name])}
        onPick={(id) => {
          setValue(name, id, { shouldDirty: true });
          // A stall is one of its site.
          if (name === 'siteId') setValue('stallId', '', { shouldDirty: true });
        }}
      />
    </FormField>
  );
  const time = (name: Name, label: string) => field(name, label, (p) => <input {...p} type="time" />);
  const figure = (name: Name, label: string, hint?: string) => field(name, label, (p) => <input {...p} inputMode="decimal" autoComplete="off" />, hint);
  const ids = (list: readonly { id: string; name: string }[] | undefined) => (list ?? []).map((r) => [r.id, r.name] as const);
  /** What a receipt tells, into what is empty. @returns how much */
  const fill = ({ kWh, minutes, amount, currency: of, date, siteId: there, battery }: ReceiptTold): number => {
    const now = watch();
    const level = (pct: number | null | undefined) => (pct == null || now.charged === 'no' ? null : String(pct));
    const levels = { socFrom: level(battery?.from), socTo: level(battery?.to) };
    const charge = now.charged === 'no' ? { kWh: null, minutes: null } : { kWh, minutes };
    const told: Partial<Record<Name, string | null>> = { ...charge, amount, day: date, siteId: there, ...levels };
    let filled = 0;
    for (const [name, value] of Object.entries(told) as [Name, string | null][])
      if (value !== null && now[name].trim() === '') {
        setValue(name, value, { shouldDirty: true });
        filled += 1;
      }
    // The currency is the household's from the start: it is the receipt's where the amount is.
    if (of !== null && filled > 0 && amount !== null && now.amount.trim() === '') setValue('currency', of, { shouldDirty: true });
    return filled;
  };
  return (
    <form onSubmit={(e) => void handleSubmit(keep)(e)} noValidate>
      {takenUp && kept === null ? (
        <p role="status" className="mb-3 border-l-[6px] border-paint bg-card px-3 py-2 text-sm">
          Taken up where you left off.{' '}
          <button type="button" className="min-h-[28px] font-semibold text-shake underline" onClick={() => drop(true)}>
            Start afresh
          </button>
        </p>
      ) : null}
      <fieldset disabled={kept !== null} className="disabled:opacity-70">
        <ReadReceipt onFill={fill} />
        <Part title="Where and when">
          {pick('siteId', 'Site', 'choose', choices.site)}
          {pick('stallId', 'Stall', 'not known', choices.stall)}
          {select('carId', 'Car', 'not known', ids(choices.car))}
          {people.length > 0 ? select('drivenBy', 'Who drove', 'I did', ids(people)) : null}
          {field('day', 'Day', (p) => (
            <input {...p} type="date" />
          ))}
        </Part>
        <Part title="Times, as far as they are known">
          {time('pulledIn', 'Pulled in')}
          {charged === 'no' ? null : (
            <>
              {time('plugged', 'Plugged in')}
              {time('powerSeen', 'Power seen')}
              {time('stopped', 'Stopped')}
            </>
          )}
          {time('pulledOut', 'Pulled out')}
        </Part>
        <Part title="How it went">
          {select('charged', 'Did it charge?', null, [
            ['yes', 'Yes'],
            ['no', 'No'],
          ])}
          {select(
            'fault',
            'Fault',
            'none',
            FAULTS.map((f) => [f.code, f.label] as const),
          )}
          {select('reason', 'Why you left', null, Object.entries(LEAVE_LABELS))}
          {charged === 'no' ? null : (
            <>
              {select('means', 'Paid with', 'not known', [
                ...records.means.map((m) => [`${m.fields.kind} ${m.id}`, `${meansLabel(m.fields.kind)}: ${m.fields.label}`] as const),
                ...MEANS_KINDS.map((m) => [m.kind, m.label] as const),
              ])}
              {figure('handshake', 'Handshake by stopwatch', 'Seconds, or 1:05. ± 2 s is taken')}
            </>
          )}
        </Part>
        <Part title="Figures">
          {figure('socFrom', 'Battery on arrival, %')}
          {charged === 'no' ? null : (
            <>
              {figure('socTo', 'Battery at the end, %')}
              {figure('kWh', 'Delivered, kWh')}
              {figure('minutes', 'Charged for, minutes')}
            </>
          )}
          {figure('amount', 'Amount paid')}
          {figure('currency', 'Currency')}
        </Part>
        {field('note', 'Note', (p) => (
          <textarea {...p} rows={3} />
        ))}
      </fieldset>
      {failed ? (
        <p role="alert" className={`mb-3 text-sm font-semibold ${kept === null ? 'text-fault' : ''}`}>
          {failed}
        </p>
      ) : null}
      <button type="submit" className="plate plate-next !min-h-[52px]" disabled={formState.isSubmitting}>
        {kept === null ? 'Keep the visit' : 'Send it'}
      </button>
      {kept === null ? null : (
        <button
          type="button"
          className="plate ml-2 !min-h-[52px]"
          onClick={() => {
            drop(true);
            setKept(null);
            setFailed(null);
          }}
        >
          Type in another
        </button>
      )}
    </form>
  );
}

function Part({ title, children }: { title: string; children: ReactNode }) {
  return (
    <fieldset className="mb-4 border-t-2 border-ink pt-2">
      <legend className="pr-3 text-[15px] font-bold">{title}</legend>
      <div className="grid gap-x-4 sm:grid-cols-2 xl:grid-cols-3">{children}</div>
    </fieldset>
  );
}
