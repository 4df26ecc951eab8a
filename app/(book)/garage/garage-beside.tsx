import type { ReactNode } from 'react';
import { GARAGE_TYPES, type GarageType, garageRow } from '@/core/records/garage-row';
import type { MileRecord } from '@/core/records/record-schema';
import { localDay } from '@/core/units/zoned';
import type { SignedIn } from '@/server/accounts/sessions';
import { now } from '@/server/clock';
import { figuresOf } from '@/server/figures/refresh';
import { namesForForms } from '@/server/records/names-for-forms';
import { recordsOf } from '@/server/records/record-tables';
import { timesUsed } from '@/server/records/times-used';
import { GarageList } from '@/ui/records/garage-list';

export const isGarageType = (text: string): text is GarageType => (GARAGE_TYPES as readonly string[]).includes(text);

/** A list of the garage beside a page. @param children given the record that is used most, of those not archived */
export async function GarageBeside({
  who,
  type,
  selected,
  children,
}: {
  who: SignedIn;
  type: GarageType;
  selected: string | null;
  children: (first: MileRecord<GarageType> | null) => ReactNode;
}) {
  await figuresOf(who.householdId);
  const [records, names, used] = await Promise.all([
    recordsOf(who.householdId, type) as Promise<readonly MileRecord<GarageType>[]>,
    namesForForms(who.householdId),
    timesUsed(who.householdId, type),
  ]);
  const known = new Map(
    Object.values(names)
      .flat()
      .map((n) => [n.id, n.name]),
  );
  const today = localDay(now(), who.zone);
  const rows = records
    .map((r) => ({ ...garageRow(r, (id) => (id ? (known.get(id) ?? '') : ''), today, who.wishes.consumption), used: used.get(r.id) ?? 0 }))
    .sort((a, b) => b.used - a.used || a.name.localeCompare(b.name));
  const first = rows.find((r) => !r.archived);
  const record = records.find((r) => r.id === first?.id) ?? null;
  return (
    <div className="flex grow flex-col lg:flex-row">
      <div className={selected !== null ? 'hidden shrink-0 lg:flex' : 'flex min-w-0 grow lg:shrink-0 lg:grow-0'}>
        <GarageList type={type} rows={rows} selected={selected ?? record?.id ?? null} />
      </div>
      <div className={`min-w-0 grow relative lg:h-[calc(100dvh-52px)] lg:overflow-y-auto ${selected !== null ? '' : 'hidden lg:block'}`}>
        {children(record)}
      </div>
    </div>
  );
}
