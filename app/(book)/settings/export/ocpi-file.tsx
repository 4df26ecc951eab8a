'use client';
import { useState } from 'react';
import type { LeftOut } from '@/core/formats/ocpi-out';
import { printCount } from '@/core/units/print';
import { saveFile } from '@/ui/forms/save-file';

/** Why something could not be said in the standard, after its number. */
const WHY: Readonly<Record<LeftOut['why'], string>> = {
  no_power: 'without power',
  no_attempt: 'of which no attempt was noted',
  no_energy: 'of which nobody knows the kWh',
  no_cost: 'without a bill',
  currencies: 'billed in two currencies',
  still_charging: 'still charging',
  day_only: 'known to the day alone',
  no_stall: 'without a stall',
  no_position: 'at sites of which the position is not known',
  put_away: 'put away',
  connector: 'with a plug that it does not name',
};
type Document = { data: unknown[]; x_mile_ledger: { left_out: LeftOut[] } };

/** How many of each kind a document leaves out; nothing where it leaves out none. */
function leftOutWords({ x_mile_ledger: { left_out } }: Document): string {
  const kinds = (Object.keys(WHY) as LeftOut['why'][]).map((why) => [left_out.filter((l) => l.why === why).length, WHY[why]] as const);
  const said = kinds.filter(([n]) => n > 0).map(([n, what]) => `${n} ${what}`);
  return said.length > 0 ? ` Not in it, as the standard cannot say it: ${said.join(', ')}. The file names each.` : '';
}

/** Saves a document of OCPI and says how much is in it and what is not. Without script it is a link to the file. */
export function OcpiFile({ name, label, one }: { name: string; label: string; one: string }) {
  const [said, setSaid] = useState('');
  const [busy, setBusy] = useState(false);
  const href = `/api/v1/export/${name}`;
  const save = async () => {
    setBusy(true);
    setSaid('Writing …');
    try {
      const answer = await fetch(href);
      if (!answer.ok) throw new Error();
      const text = await answer.text();
      const document = JSON.parse(text) as Document;
      saveFile(new Blob([text], { type: 'application/json' }), `mile-ledger-${name}`);
      setSaid(`${printCount(document.data.length, one)} saved.${leftOutWords(document)}`);
    } catch {
      setSaid('The server could not be reached. Nothing was saved.');
    } finally {
      setBusy(false);
    }
  };
  return (
    <>
      <a
        href={href}
        download
        aria-disabled={busy}
        className="plate !min-h-[44px]"
        onClick={(e) => {
          e.preventDefault();
          if (!busy) void save();
        }}
      >
        JSON
        <span className="sr-only"> of {label}</span>
      </a>
      <p role="status" className={said ? 'basis-full text-[13.5px] font-semibold' : 'sr-only'}>
        {said}
      </p>
    </>
  );
}
