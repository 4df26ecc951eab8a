'use client';
import { useState } from 'react';
import { useForm } from 'react-hook-form';
import { v7 } from 'uuid';
import { zoneAt } from '@/client/places/position';
import { phoneNow } from '@/client/touch/touch-time';
import { CONNECTORS } from '@/core/records/connector';
import type { Position } from '@/core/records/place-questions';
import { RECORDS, type RecordItem } from '@/core/records/record-schema';
import { localDay } from '@/core/units/zoned';
import { FormField, fieldState } from '@/ui/forms/form-field';
import { Sheet } from '@/ui/pads/sheet';
import { whereIAm } from '@/ui/places/where-i-am';
import { CurrencyChoice } from '../currency-choice';
import { currenciesOf } from '../money-field';
import type { Records } from '../stall-state';

type Form = { site: string; network: string; stall: string; kW: string; connector: string; perKWh: string };

/** A site made on the spot, or another stall of one. Records of one form are kept together, in the order they refer to each other. */
export function AddPlaceSheet({
  records,
  site,
  where = null,
  currency: usual,
  onClose,
  onAdd,
}: {
  records: Records;
  site: Records['site'][number] | null;
  /** Where it is, when that was noted before. */
  where?: Position | null;
  currency: string;
  onClose: () => void;
  onAdd: (items: RecordItem[], ids: { siteId: string; stallId: string }) => Promise<void>;
}) {
  const {
    register,
    handleSubmit,
    setError,
    formState: { errors, isSubmitting },
  } = useForm<Form>({ defaultValues: { site: '', network: '', stall: '', kW: '', connector: 'CCS2', perKWh: '' } });
  const [here, setHere] = useState<(Position & { zone: string | null }) | null>(where && { ...where, zone: null });
  const [currency, setCurrency] = useState(usual);
  const [trouble, setTrouble] = useState<string | null>(null);
  const noteWhere = async () => {
    setTrouble(null);
    try {
      const p = await whereIAm();
      // Five decimals are a metre.
      const [latitude, longitude] = [Number(p.latitude.toFixed(5)), Number(p.longitude.toFixed(5))];
      const found = { latitude, longitude, zone: null };
      setHere(found);
      const zone = await zoneAt(latitude, longitude).catch(() => null);
      // Taken away again, or another, while it was asked about.
      setHere((now) => (now === found ? { ...found, zone } : now));
    } catch (error) {
      setTrouble(error instanceof Error ? error.message : String(error));
    }
  };
  const submit = handleSubmit(async (form) => {
    const items: RecordItem[] = [];
    let bad = false;
    const add = <T extends keyof typeof RECORDS>(type: T, id: string, fields: unknown, at: Partial<Record<string, keyof Form>>) => {
      const parsed = RECORDS[type].safeParse(fields);
      if (parsed.success) return void items.push({ type, id, baseRev: 0, fields: parsed.data } as RecordItem);
      bad = true;
      for (const issue of parsed.error.issues) setError(at[String(issue.path[0])] ?? 'root', { message: issue.message });
    };
    const known = records.network.find((n) => n.fields.name.toLowerCase() === form.network.trim().toLowerCase());
    const networkId = site?.fields.networkId ?? known?.id ?? v7();
    const siteId = site?.id ?? v7();
    // A position that was noted on the spot was noted without its zone.
    const there = here && here.zone === null ? await zoneAt(here.latitude, here.longitude).catch(() => null) : here?.zone;
    const zone = site?.fields.zone ?? there ?? Intl.DateTimeFormat().resolvedOptions().timeZone;
    const stallId = v7();
    if (!site) {
      if (!known) add('network', networkId, { name: form.network }, { name: 'network' });
      const position = here ? { latitude: here.latitude, longitude: here.longitude } : {};
      add('site', siteId, { networkId, name: form.site, zone, ...position }, { name: 'site' });
    }
    add(
      'stall',
      stallId,
      { siteId, name: form.stall, outlets: [{ connector: form.connector, ratedKW: form.kW.trim() === '' ? undefined : Number(form.kW.replace(',', '.')) }] },
      { name: 'stall', outlets: 'kW' },
    );
    if (form.perKWh.trim() !== '')
      // What stands on one post is this site's price, from the day it was read.
      add(
        'tariff',
        v7(),
        { networkId, siteId, currency, perKWh: form.perKWh.trim().replace(',', '.'), startFee: '0', validFrom: localDay(phoneNow(), zone) },
        { perKWh: 'perKWh' },
      );
    if (!bad) await onAdd(items, { siteId, stallId });
  });
  return (
    <Sheet
      title={site ? `A stall at ${site.fields.name}` : 'A site and its stall'}
      onClose={onClose}
      hint="As the post and the sign say. Card and contract numbers are never kept."
      beside={site ? null : <CurrencyChoice value={currency} near={currenciesOf(usual, records)} onChange={setCurrency} />}
    >
      <form onSubmit={submit} noValidate>
        {site ? null : (
          <>
            <FormField id="site" label="Site" error={errors.site?.message}>
              <input {...register('site')} {...fieldState('site', errors.site?.message)} autoComplete="off" />
            </FormField>
            <FormField id="network" label="Network" error={errors.network?.message}>
              <input {...register('network')} {...fieldState('network', errors.network?.message)} list="known-networks" autoComplete="off" />
              <datalist id="known-networks">
                {records.network.map((n) => (
                  <option key={n.id} value={n.fields.name} />
                ))}
              </datalist>
            </FormField>
            <button type="button" className="plate mb-3 !min-h-[44px]" aria-pressed={here !== null} onClick={() => (here ? setHere(null) : void noteWhere())}>
              {here ? (
                <span className="num text-[14px]">
                  {here.latitude.toFixed(5)}, {here.longitude.toFixed(5)}
                </span>
              ) : (
                'It is where I am now'
              )}
            </button>
            {trouble ? (
              <p role="alert" className="mb-2 text-sm font-semibold text-fault">
                {trouble}
              </p>
            ) : null}
          </>
        )}
        <div className="grid grid-cols-2 gap-3">
          <FormField id="stall" label="Stall number or name" error={errors.stall?.message}>
            <input {...register('stall')} {...fieldState('stall', errors.stall?.message)} autoComplete="off" />
          </FormField>
          <FormField id="kW" label="Rated kW on the plate" error={errors.kW?.message}>
            <input {...register('kW')} {...fieldState('kW', errors.kW?.message)} inputMode="decimal" autoComplete="off" />
          </FormField>
          <FormField id="connector" label="Connector" error={errors.connector?.message}>
            <select {...register('connector')} {...fieldState('connector', errors.connector?.message)}>
              {CONNECTORS.map((c) => (
                <option key={c}>{c}</option>
              ))}
            </select>
          </FormField>
          {site ? null : (
            <FormField id="perKWh" label={`Price, ${currency} per kWh`} error={errors.perKWh?.message} hint="If shown">
              <input {...register('perKWh')} {...fieldState('perKWh', errors.perKWh?.message)} inputMode="decimal" autoComplete="off" />
            </FormField>
          )}
        </div>
        {errors.root?.message ? (
          <p role="alert" className="mb-2 text-sm font-semibold text-fault">
            {errors.root.message}
          </p>
        ) : null}
        <button type="submit" disabled={isSubmitting} className="plate plate-next !min-h-[56px] w-full text-[17px]">
          Add and choose
        </button>
      </form>
    </Sheet>
  );
}
