'use client';
import { useState } from 'react';
import { reportedReasons } from '@/core/power/compatible-stalls';
import { byPost, plateKW, plateText } from '@/core/records/stall-plate';
import { printKW } from '@/core/units/print';
import type { Dangers } from '@/core/visit/dangers';
import { Sheet } from '@/ui/pads/sheet';
import { Milestone } from '@/ui/road/milestone';
import { ForDrivers } from '@/ui/road/role';
import type { Records, StallHands } from '../stall-state';
import { AddPlaceSheet } from './add-place-sheet';
import { Plate, PlateList } from './plate-list';

/** Choosing the stall, or moving to another. */
export function StallSheet({
  records,
  siteId,
  dangers,
  chosen,
  currency,
  hands,
  onClose,
  onChoose,
}: {
  records: Records;
  siteId: string | null;
  /** Reported at stalls and not cleared. */
  dangers: Dangers;
  chosen: string | null;
  currency: string;
  hands: StallHands;
  onClose: () => void;
  onChoose: (stallId: string, timeStamp: number, connector?: string) => void;
}) {
  const [adding, setAdding] = useState(false);
  const [among, setAmong] = useState<{ id: string; at: number } | null>(null);
  const several = records.stall.find((s) => s.id === among?.id);
  const site = records.site.find((s) => s.id === siteId) ?? null;
  const stalls = records.stall.filter((s) => s.fields.siteId === siteId).sort(byPost);
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
  if (several && among)
    return (
      <Sheet title={`Stall ${several.fields.name}: which connector?`} onClose={onClose}>
        <PlateList>
          {several.fields.outlets.map((o) => (
            <Plate key={o.connector} onPress={() => onChoose(several.id, among.at, o.connector)}>
              {o.connector}, {printKW(o.ratedKW)}
            </Plate>
          ))}
          <Plate onPress={() => onChoose(several.id, among.at)}>Not known yet</Plate>
        </PlateList>
      </Sheet>
    );
  return (
    <Sheet title={chosen ? 'Which stall now?' : 'Which stall?'} onClose={onClose}>
      <ul className="grid grid-cols-3 gap-3">
        {stalls.map((s) => {
          const doubt = reportedReasons(dangers[s.id] ?? [])[0]?.text;
          return (
            <li key={s.id}>
              <button
                type="button"
                disabled={s.id === chosen && s.fields.outlets.length < 2}
                onClick={(e) => (s.fields.outlets.length > 1 ? setAmong({ id: s.id, at: e.timeStamp }) : onChoose(s.id, e.timeStamp))}
                className="grid w-full justify-items-center rounded-lg bg-asphalt px-2 pb-2 pt-3 text-line disabled:opacity-50"
                aria-label={`Stall ${s.fields.name}, ${plateText(s.fields)}${doubt ? `, doubtful: ${doubt}` : ''}`}
              >
                <Milestone text={s.fields.name} />
                <span className="num mt-1 text-[12px]">{printKW(plateKW(s.fields) ?? 0)}</span>
                <span className="text-[12px] text-line-2">{doubt ?? (s.id === chosen ? 'here now' : (s.fields.outlets[0]?.connector ?? ''))}</span>
              </button>
            </li>
          );
        })}
      </ul>
      {stalls.length === 0 ? <p className="mb-3 text-sm text-ink-2">No stall of this site is known yet.</p> : null}
      <ForDrivers>
        <button type="button" className="plate mt-3 !min-h-[52px] w-full" onClick={() => setAdding(true)}>
          Add a stall
        </button>
      </ForDrivers>
    </Sheet>
  );
}
