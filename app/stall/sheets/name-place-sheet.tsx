'use client';
import { useState } from 'react';
import { findScore } from '@/core/records/find-text';
import { kmBetween } from '@/core/records/place-questions';
import type { RecordItem } from '@/core/records/record-schema';
import { printDistance } from '@/core/units/print';
import { Sheet } from '@/ui/pads/sheet';
import type { Live } from '../live-facts';
import type { Draft, StallHands } from '../stall-state';
import { AddPlaceSheet } from './add-place-sheet';
import { Plate, PlateList } from './plate-list';

/** As near as this, a site on file may be the one stood at, km. */
const NEAR_KM = 1;
/** The stall stands in the record right after the arrival, whenever it is named, ms. */
const AFTER_ARRIVAL_MS = 1;

/** Naming the place that was pulled in at: one that is on file, or a new one with its stall, plate and price. */
export function NamePlaceSheet({ state, hands, onClose }: { state: Live; hands: StallHands; onClose: () => void }) {
  const { visit, records, who } = state;
  const [adding, setAdding] = useState(records.site.length === 0);
  const [find, setFind] = useState('');
  const arrival = visit.line.find((e) => e.kind === 'pulled_in');
  if (!arrival) return null;
  const { position } = arrival.payload;
  const km = (s: (typeof records.site)[number]) => {
    const { latitude, longitude } = s.fields;
    return position && latitude !== null && longitude !== null ? kmBetween(position, { latitude, longitude }) : null;
  };
  const known = records.site
    .map((site) => ({ site, km: km(site) }))
    .filter(({ site, km: d }) => (find.trim() === '' ? d !== null && d <= NEAR_KM : findScore(find, site.fields.name) > 0))
    .sort((a, b) => (a.km ?? Number.MAX_VALUE) - (b.km ?? Number.MAX_VALUE))
    .slice(0, 6);
  const name = async (timeStamp: number, siteId: string, stallId: string | null) => {
    const drafts: Draft[] = [{ kind: 'correction', payload: { target: arrival.id, set: { siteId } } }];
    if (stallId && !visit.line.some((e) => e.kind === 'stall_chosen')) {
      const [chosen] = await hands.act(timeStamp, { kind: 'stall_chosen', payload: { stallId } });
      // One stood there from the arrival on: what was done before it was named was done at it.
      if (chosen) drafts.push({ kind: 'correction', payload: { target: chosen, at: Math.round(arrival.t) + AFTER_ARRIVAL_MS } });
    }
    await hands.act(performance.now(), ...drafts);
    onClose();
  };
  if (adding)
    return (
      <AddPlaceSheet
        records={records}
        site={null}
        where={position ?? null}
        currency={who.currency}
        onClose={records.site.length === 0 ? onClose : () => setAdding(false)}
        onAdd={async (items: RecordItem[], ids) => {
          await hands.addRecords(items);
          await name(performance.now(), ids.siteId, ids.stallId);
        }}
      />
    );
  return (
    <Sheet title="Which place is this?" onClose={onClose} hint="What was recorded here belongs to it from the arrival on.">
      {known.length > 0 ? (
        <PlateList>
          {known.map(({ site, km: d }) => (
            <Plate key={site.id} onPress={(t) => void name(t, site.id, null)}>
              {site.fields.name}
              {d === null ? '' : `, ${printDistance(d, state.who.wishes.distance)}`}
            </Plate>
          ))}
        </PlateList>
      ) : null}
      <input
        type="search"
        className="field mt-3 w-full"
        placeholder="Find a site on file"
        aria-label="Find a site on file"
        value={find}
        onChange={(e) => setFind(e.target.value)}
      />
      {find.trim() !== '' && known.length === 0 ? <p className="mt-2 text-sm text-ink-2">No site of that name.</p> : null}
      <button type="button" className="plate plate-next mt-3 !min-h-[56px] w-full text-[17px]" onClick={() => setAdding(true)}>
        It is not on file: add it
      </button>
    </Sheet>
  );
}
