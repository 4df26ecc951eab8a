'use client';
import { useState } from 'react';
import { Sheet } from '@/ui/pads/sheet';
import { Milestone } from '@/ui/road/milestone';
import { AddPlaceSheet } from './add-place-sheet';
import type { Records, StallHands } from './use-stall';

/** Choosing the stall, or moving to another. */
export function StallSheet({
  records,
  siteId,
  chosen,
  currency,
  hands,
  onClose,
  onChoose,
}: {
  records: Records;
  siteId: string | null;
  chosen: string | null;
  currency: string;
  hands: StallHands;
  onClose: () => void;
  onChoose: (stallId: string, timeStamp: number) => void;
}) {
  const [adding, setAdding] = useState(false);
  const site = records.site.find((s) => s.id === siteId) ?? null;
  const stalls = records.stall.filter((s) => s.fields.siteId === siteId).sort((a, b) => a.fields.name.localeCompare(b.fields.name, 'en', { numeric: true }));
  if (adding && site)
    return (
      <AddPlaceSheet
        records={records}
        site={site}
        currency={currency}
        onClose={() => setAdding(false)}
        onAdd={async (items, ids) => {
          await hands.addRecords(items);
          onChoose(ids.stallId, performance.now());
        }}
      />
    );
  return (
    <Sheet title={chosen ? 'Which stall now?' : 'Which stall?'} onClose={onClose}>
      <ul className="grid grid-cols-3 gap-3">
        {stalls.map((s) => (
          <li key={s.id}>
            <button
              type="button"
              disabled={s.id === chosen}
              onClick={(e) => onChoose(s.id, e.timeStamp)}
              className="grid w-full justify-items-center rounded-lg bg-asphalt px-2 pb-2 pt-3 text-line disabled:opacity-50"
              aria-label={`Stall ${s.fields.name}, ${s.fields.ratedKW} kW ${s.fields.connector}`}
            >
              <Milestone text={s.fields.name} />
              <span className="num mt-1 text-[12px]">{s.fields.ratedKW} kW</span>
              <span className="text-[12px] text-line-2">{s.id === chosen ? 'here now' : s.fields.connector}</span>
            </button>
          </li>
        ))}
      </ul>
      {stalls.length === 0 ? <p className="mb-3 text-sm text-ink-2">No stall of this site is known yet.</p> : null}
      <button type="button" className="plate mt-3 !min-h-[52px] w-full" onClick={() => setAdding(true)}>
        Add a stall
      </button>
    </Sheet>
  );
}
