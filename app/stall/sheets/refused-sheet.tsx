'use client';
import { useEffect, useState } from 'react';
import type { KeptEvent } from '@/client/store/phone-store';
import { readWho } from '@/client/store/who';
import { printClock, printDay } from '@/core/units/zoned';
import { correctableText, correctionSet } from '@/core/visit/correction-set';
import type { VisitEvent } from '@/core/visit/event';
import { correctableFields, eventLabel, isKind } from '@/core/visit/kinds/registry';
import { setFields } from '@/core/visit/set-fields';
import { CorrectFields } from '@/ui/forms/correct-fields';
import { SetTime } from '@/ui/forms/set-time';
import { Sheet } from '@/ui/pads/sheet';
import type { StallHands } from '../stall-state';

/** What the server did not take, of whichever visit, with its reasons. Nothing here is lost: each can be mended and sent. */
export function RefusedSheet({ hands, count, onClose }: { hands: StallHands; count: number; onClose: () => void }) {
  const [events, setEvents] = useState<KeptEvent[] | null>(null);
  const [mending, setMending] = useState<KeptEvent | null>(null);
  const { refused } = hands;
  // biome-ignore lint/correctness/useExhaustiveDependencies: read again whenever their number changes under the sheet
  useEffect(() => void refused().then(setEvents), [refused, count]);
  if (mending)
    return (
      <Mend
        kept={mending}
        onClose={() => setMending(null)}
        onSend={async (mended) => {
          await hands.sendMended(mending.event.id, mended);
          onClose();
        }}
      />
    );
  return (
    <Sheet title="Refused by the server" onClose={onClose} hint="Kept on this phone with the reason. Mend it, or send it again as it is.">
      <ul>
        {events?.map((k) => (
          <li key={k.event.id} className="flex items-center gap-3 border-b border-rule-2 py-2 text-[14px]">
            <span className="grow">
              <b>{labelOf(k)}</b>{' '}
              <span className="num text-ink-2">
                {printDay(k.event.at, k.event.zone)} {printClock(k.event.at, k.event.zone)}
              </span>
              <span className="block text-fault">
                {k.path ? `${k.path}: ` : ''}
                {k.reason}
              </span>
            </span>
            {isKind(k.event.kind) ? (
              <button type="button" className="plate !min-h-[44px]" aria-label={`Mend ${labelOf(k)}`} onClick={() => setMending(k)}>
                Mend
              </button>
            ) : null}
          </li>
        ))}
      </ul>
      <button
        type="button"
        className="plate mt-3 !min-h-[56px] w-full"
        onClick={() => {
          onClose();
          void hands.sendRefusedAgain();
        }}
      >
        Send them again
      </button>
    </Sheet>
  );
}

const labelOf = (k: KeptEvent): string => (isKind(k.event.kind) ? eventLabel(k.event as VisitEvent) : k.event.kind);

function Mend({
  kept,
  onClose,
  onSend,
}: {
  kept: KeptEvent;
  onClose: () => void;
  onSend: (mended: { at: number; payload: Record<string, unknown> }) => Promise<void>;
}) {
  const event = kept.event as VisitEvent;
  const payload = event.payload as Record<string, unknown>;
  const distance = readWho()?.wishes.distance ?? 'km';
  const [at, setAt] = useState(event.at);
  const [values, setValues] = useState(() => correctableText(event.kind, payload, distance));
  const { set, problems } = correctionSet(event.kind, payload, values, distance);
  const field = kept.path?.startsWith('payload.') ? kept.path.slice('payload.'.length) : null;
  return (
    <Sheet title={`Mend: ${labelOf(kept)}`} onClose={onClose} hint={`${kept.path ? `${kept.path}: ` : ''}${kept.reason ?? ''}`}>
      <SetTime at={at} original={event.at} zone={event.zone} onChange={setAt} />
      <div className="mt-4">
        <CorrectFields
          fields={correctableFields(event.kind, payload)}
          values={values}
          problems={{ ...(field && kept.reason && !(field in set) ? { [field]: kept.reason } : {}), ...problems }}
          choices={{}}
          distance={distance}
          onChange={setValues}
        />
      </div>
      <button
        type="button"
        className="plate plate-next !min-h-[56px] w-full"
        disabled={Object.keys(problems).length > 0}
        onClick={() => void onSend({ at, payload: setFields(payload, set) })}
      >
        Send it mended
      </button>
    </Sheet>
  );
}
