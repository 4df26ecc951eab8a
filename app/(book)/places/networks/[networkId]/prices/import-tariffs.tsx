'use client';
import { useState } from 'react';
import { JSON_WORDS } from '@/core/formats/breach-words';
import { printMoney, printPerKWh } from '@/core/units/money';
import { printCount } from '@/core/units/print';
import { printSeen } from '@/core/units/zoned';
import type { TariffChoice, TariffRow, TariffsPreview } from '@/server/formats/import-tariffs';
import { ChooseFile, refusedText, useFileWork } from '@/ui/forms/file-work';
import { LeftOut } from '@/ui/forms/left-out';
import { sendFile } from '@/ui/forms/send-file';

const REFUSED: Readonly<Record<string, string>> = {
  no_tariffs: 'It holds no OCPI Tariffs.',
  too_many: 'It holds more than 500 tariffs. Send it in parts.',
  ...JSON_WORDS,
};
type Choice = Omit<TariffChoice, 'pointer'>;
type Props = {
  networkId: string;
  network: string;
  sites: readonly { id: string; name: string }[];
  payers: readonly { id: string; name: string; is: 'plan' | 'provider' }[];
  today: string;
};

/** Chooses a file, shows what each tariff of it says, asks whom it is for and where, and keeps what is ticked. */
export function ImportTariffs({ networkId, network, sites, payers, today }: Props) {
  const [file, setFile] = useState<File | null>(null);
  const [seen, setSeen] = useState<TariffsPreview | null>(null);
  const [choices, setChoices] = useState<Readonly<Record<string, Choice>>>({});
  const [refused, setRefused] = useState<readonly { pointer: string; reason: string }[]>([]);
  const { busy, said, say, working, reading } = useFileWork('tariffs');
  const first = (r: TariffRow): Choice => ({ planId: null, providerId: null, siteId: null, from: r.from ?? today, until: r.until });

  const send = async (of: File, some: readonly TariffChoice[] | null): Promise<(TariffsPreview & { taken?: number; refused?: typeof refused }) | null> => {
    const { ok, body } = await sendFile(`/api/v1/import/tariffs?network=${networkId}`, of, { choices: some });
    if (ok) return body;
    say(refusedText(body, REFUSED));
    return null;
  };
  const read = (of: File) =>
    reading(of, async () => {
      const preview = await send(of, null);
      if (!preview) return;
      setSeen(preview);
      // One that is new can be meant alone; of several only the reader knows which are theirs.
      const fresh = preview.rows.filter((r) => !r.here);
      const [only] = fresh;
      if (only && fresh.length === 1) setChoices({ [only.pointer]: first(only) });
    });
  const takeIn = () =>
    working(async () => {
      if (!file || !seen) return;
      const all = Object.entries(choices).map(([pointer, c]) => ({ pointer, ...c }));
      const told = await send(file, all);
      if (!told) return;
      const [taken, failed] = [told.taken ?? 0, told.refused ?? []];
      setSeen(told);
      // What is done is no longer chosen; what was refused can be mended and sent again.
      setChoices((before) => Object.fromEntries(Object.entries(before).filter(([pointer]) => failed.some((f) => f.pointer === pointer))));
      setRefused(failed);
      say(`${printCount(taken, 'price')} kept${failed.length > 0 ? `, ${failed.length} refused` : taken < all.length ? ', the others were on file' : ''}.`);
    }, 'takes in');
  const choose = (pointer: string, c: Choice | null) => setChoices(({ [pointer]: _, ...others }) => (c === null ? others : { ...others, [pointer]: c }));
  const coming = Object.keys(choices).length;
  const odd = Object.values(choices).some((c) => c.from === '' || (c.until !== null && c.until < c.from));
  return (
    <>
      <ChooseFile
        label="The file, OCPI Tariffs"
        accept=".json,application/json"
        busy={busy}
        said={said}
        onChoose={(chosen) => {
          setFile(chosen);
          setSeen(null);
          setChoices({});
          setRefused([]);
          if (chosen) void read(chosen);
        }}
      />
      {seen ? (
        <>
          <LeftOut items={[...refused, ...seen.leftOut]} />
          <ul className="border-t-2 border-ink bg-card">
            {seen.rows.map((r) => (
              <Row
                key={r.pointer}
                row={r}
                choice={choices[r.pointer] ?? null}
                disabled={busy}
                network={network}
                sites={sites}
                payers={payers}
                onChoose={(c) => choose(r.pointer, c)}
                first={first(r)}
              />
            ))}
          </ul>
          {seen.rows.length === 0 ? <p className="text-[15px]">No tariff of it can be kept.</p> : null}
          <button type="button" className="plate plate-next mt-4 !min-h-[44px]" disabled={busy || coming === 0 || odd} onClick={() => void takeIn()}>
            Keep {printCount(coming, 'price')}
          </button>
          {odd ? <p className="mt-1 text-[13.5px]">A price needs its first day, and cannot end before it.</p> : null}
        </>
      ) : null}
    </>
  );
}

function Row({
  row: r,
  choice,
  first,
  disabled,
  network,
  sites,
  payers,
  onChoose,
}: { row: TariffRow; choice: Choice | null; first: Choice; disabled: boolean; onChoose: (c: Choice | null) => void } & Pick<
  Props,
  'network' | 'sites' | 'payers'
>) {
  const start = Number(r.startFee) > 0 ? `, ${printMoney(r.startFee, r.currency)} per start` : '';
  const day = (iso: string) => `${printSeen(iso)} ${iso.slice(0, 4)}`;
  const days = `${r.from ? `, from ${day(r.from)}` : ''}${r.until ? `, until ${day(r.until)}` : ''}`;
  return (
    <li className="border-b border-rule-2 px-3 py-2">
      <label className="flex min-h-[44px] min-w-0 items-center gap-3">
        <input
          type="checkbox"
          className="size-5 shrink-0 accent-ink"
          disabled={disabled}
          checked={choice !== null}
          onChange={(e) => onChoose(e.target.checked ? first : null)}
        />
        <span className="min-w-0">
          <b className="block break-words font-semibold">{r.name}</b>
          <span className="break-words text-[13px] text-ink-2">
            {r.perKWh === null ? `no price of energy, ${r.currency}` : `${printPerKWh(r.perKWh, r.currency)} per kWh`}
            {start}
            {days}
            {r.here ? ', on file already' : ''}
          </span>
        </span>
      </label>
      {choice ? (
        <div className="grid gap-x-4 gap-y-2 pb-1 pl-8 text-[14px] sm:grid-cols-4">
          <label className="min-w-0">
            for whom
            <select
              className="field !min-h-[44px] w-full"
              disabled={disabled}
              aria-label={`For whom ${r.name} is`}
              value={choice.planId ?? choice.providerId ?? ''}
              onChange={(e) => {
                const payer = payers.find((p) => p.id === e.target.value);
                onChoose({ ...choice, planId: payer?.is === 'plan' ? payer.id : null, providerId: payer?.is === 'provider' ? payer.id : null });
              }}
            >
              <option value="">Guests</option>
              {payers.map((p) => (
                <option key={p.id} value={p.id}>
                  {p.name}
                </option>
              ))}
            </select>
          </label>
          <label className="min-w-0">
            where
            <select
              className="field !min-h-[44px] w-full"
              disabled={disabled}
              aria-label={`Where ${r.name} holds`}
              value={choice.siteId ?? ''}
              onChange={(e) => onChoose({ ...choice, siteId: e.target.value || null })}
            >
              <option value="">All of {network}</option>
              {sites.map((s) => (
                <option key={s.id} value={s.id}>
                  Only {s.name}
                </option>
              ))}
            </select>
          </label>
          <label className="min-w-0">
            from
            <input
              type="date"
              className="field !min-h-[44px] w-full"
              disabled={disabled}
              aria-label={`First day of ${r.name}`}
              value={choice.from}
              onChange={(e) => onChoose({ ...choice, from: e.target.value })}
            />
          </label>
          <label className="min-w-0">
            until
            <input
              type="date"
              className="field !min-h-[44px] w-full"
              disabled={disabled}
              aria-label={`Last day of ${r.name}`}
              value={choice.until ?? ''}
              onChange={(e) => onChoose({ ...choice, until: e.target.value || null })}
            />
          </label>
        </div>
      ) : null}
    </li>
  );
}
