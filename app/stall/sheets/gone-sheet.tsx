'use client';
import { GONE_LABELS } from '@/core/visit/kinds/power-gone';
import type { Payload } from '@/core/visit/payloads';
import { Sheet } from '@/ui/pads/sheet';
import type { Draft } from '../stall-state';
import { Caution, STUCK } from './cautions';
import { Plate, PlateList } from './plate-list';

type Props = { openedAt: number } & Acts;
type Acts = { onClose: () => void; onAct: (timeStamp: number, draft: Draft) => void };

/** Power is gone, since the touch that opened this: why, as far as it can be seen. */
export function GoneSheet({ openedAt, onClose, onAct }: Props) {
  return (
    <Sheet title="Power gone" onClose={onClose} hint="Why, as far as you can see? It may still come back.">
      <PlateList>
        {(Object.entries(GONE_LABELS) as [NonNullable<Payload<'power_gone'>['why']>, string][]).map(([why, label]) => (
          <Plate key={why} onPress={() => onAct(openedAt, { kind: 'power_gone', payload: { why } })}>
            {label}
          </Plate>
        ))}
      </PlateList>
    </Sheet>
  );
}

export function StuckSheet({ onClose, onAct }: Acts) {
  return (
    <Sheet title="Handle stuck" onClose={onClose} hint="At which end?">
      <Caution>{STUCK}</Caution>
      <PlateList>
        <Plate onPress={(t) => onAct(t, { kind: 'stuck', payload: { end: 'car' } })}>At the car</Plate>
        <Plate onPress={(t) => onAct(t, { kind: 'stuck', payload: { end: 'post' } })}>At the post</Plate>
      </PlateList>
    </Sheet>
  );
}
