'use client';
import { useState } from 'react';
import { compatibleStalls } from '@/core/power/compatible-stalls';
import { Sheet } from '@/ui/pads/sheet';
import type { Draft, Records } from '../stall-state';
import { ADAPTER, Caution } from './cautions';

type Rec<T extends 'stall' | 'car'> = Records[T][number] | undefined;

/** Which adapter was fitted. One that must not go between this stall and this car is refused with the reason. */
export function AdapterSheet({
  records,
  stall,
  car,
  openedAt,
  onClose,
  onAct,
}: {
  records: Records;
  stall: Rec<'stall'>;
  car: Rec<'car'>;
  openedAt: number;
  onClose: () => void;
  onAct: (timeStamp: number, draft: Draft) => void;
}) {
  const [why, setWhy] = useState<string | null>(null);
  const site = records.site.find((s) => s.id === stall?.fields.siteId);
  /** What speaks against an adapter here, as the same answer says it before pulling in. */
  const against = (adapter: Records['adapter'][number]): string | null => {
    if (stall?.fields.builtInAdapter) return `The stall has an adapter to ${stall.fields.builtInAdapter} built in: never two in a row.`;
    if (!stall || !car || !site) return null;
    if (!stall.fields.outlets.some((o) => o.connector === adapter.fields.from))
      return `${adapter.fields.name} goes on ${adapter.fields.from}, and this stall has ${stall.fields.outlets.map((o) => o.connector).join(', ')}.`;
    const [answer] = compatibleStalls({ car, adapters: [adapter], means: [], enrolments: [] }, { site, stalls: [stall], dangers: {} }, {}, '');
    const problem = answer?.way?.adapterId === adapter.id ? null : answer?.reasons.find((r) => r.code !== 'means' && r.code !== 'not_known');
    return problem ? `${problem.text}.` : null;
  };
  return (
    <Sheet title="Adapter fitted" onClose={onClose} hint="Fit it before you plug in or pay: some stalls bill from the authorisation.">
      <Caution>{ADAPTER}</Caution>
      <ul className="grid grid-cols-1 gap-2">
        {records.adapter.map((a) => {
          const { from, to, maxA, maxV } = a.fields;
          const rated = [maxA === null ? null : `${maxA} A`, maxV === null ? null : `${maxV} V`].filter(Boolean).join(', ');
          const most = stall?.fields.outlets.find((o) => o.connector === from);
          const there = [most?.maxA ? `${most.maxA} A` : null, most?.maxV ? `${most.maxV} V` : null].filter(Boolean).join(', ');
          return (
            <li key={a.id}>
              <button
                type="button"
                className="plate !min-h-[60px] w-full wrap-anywhere"
                onClick={() => {
                  const problem = against(a);
                  if (problem) setWhy(`${a.fields.name} must not be used here. ${problem} Take it off.`);
                  else onAct(openedAt, { kind: 'adapter_fitted', payload: { adapterId: a.id } });
                }}
              >
                <span>
                  {a.fields.name}
                  <small className="block text-[12.5px] font-medium">
                    {from} to {to}
                    {rated ? `, rated ${rated}` : ', rating not noted'}
                    {there ? `; the stall gives up to ${there}` : ''}
                  </small>
                </span>
              </button>
            </li>
          );
        })}
      </ul>
      {records.adapter.length === 0 ? <p className="text-[15px]">No adapter is in the garage. One that is not yours:</p> : null}
      <button type="button" className="plate mt-3 !min-h-[52px] w-full" onClick={() => onAct(openedAt, { kind: 'adapter_fitted', payload: {} })}>
        Another adapter
      </button>
      {why ? (
        <p role="alert" className="mt-3 border-l-4 border-fault bg-fault-card px-3 py-2 text-[15px] font-semibold">
          {why}
        </p>
      ) : null}
    </Sheet>
  );
}
