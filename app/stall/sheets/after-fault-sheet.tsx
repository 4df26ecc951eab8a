'use client';
import { useState } from 'react';
import { type Fault, SIDES, type Side } from '@/core/faults/fault-list';
import { privateNumber } from '@/core/records/private-number';
import { FormField, fieldState } from '@/ui/forms/form-field';
import { OneOf } from '@/ui/forms/one-of';
import { Sheet } from '@/ui/pads/sheet';
import type { Plain } from '../open-sheet';
import { Caution, cautionFor } from './cautions';
import { PhotoButton } from './photo-button';
import { Plate } from './plate-list';

/** After a fault that is no danger: what next. Whose side it seems, what was shown and a photo can be added; nothing of it must be. */
export function AfterFaultSheet({
  fault,
  connectors,
  onAgain,
  onConnector,
  onClose,
  onGo,
  onSet,
  onPhoto,
}: {
  fault: Fault;
  /** The other connectors of the stall. */
  connectors: readonly string[];
  /** The same stall once more. */
  onAgain: (timeStamp: number) => void;
  onConnector: (timeStamp: number, connector: string) => void;
  onClose: () => void;
  onGo: (sheet: Plain) => void;
  /** Adds to the event just recorded; its time stays. */
  onSet: (set: Record<string, string | number>) => void;
  onPhoto: (file: Blob) => Promise<string>;
}) {
  const [side, setSide] = useState<Side>(fault.side);
  const [text, setText] = useState('');
  const [kept, setKept] = useState('');
  const why = privateNumber(text) ?? undefined;
  const caution = cautionFor(fault.code);
  const keepText = () => {
    const said = text.trim();
    if (said === '' || said === kept || why) return;
    onSet({ text: said });
    setKept(said);
  };
  const leaveTo = (go: () => void) => () => {
    keepText();
    go();
  };
  return (
    <Sheet title={fault.label} onClose={leaveTo(onClose)} hint="Recorded. What next?">
      {caution ? <Caution>{caution}</Caution> : null}
      <div className="grid grid-cols-2 gap-2">
        <Plate
          onPress={(t) => {
            keepText();
            onAgain(t);
          }}
        >
          Same stall again
        </Plate>
        <Plate onPress={leaveTo(() => onGo('stall'))}>Another stall</Plate>
        {connectors.map((c) => (
          <Plate
            key={c}
            onPress={(t) => {
              keepText();
              onConnector(t, c);
            }}
          >
            {c} here
          </Plate>
        ))}
        <Plate onPress={leaveTo(() => onGo('means'))}>Other means</Plate>
        <Plate onPress={leaveTo(() => onGo('help'))}>Helpline</Plate>
        <Plate onPress={leaveTo(() => onGo('leave'))}>Leave</Plate>
      </div>
      {fault.refusal ? null : (
        <OneOf
          label="Whose side it seems"
          value={side}
          choices={SIDES.map((s) => [s, s] as const)}
          onChoose={(s) => {
            setSide(s);
            onSet({ side: s });
          }}
        />
      )}
      {fault.refusal ? null : (
        <div className="mt-4">
          <FormField id="fault-text" label="What it said" error={why}>
            <input
              {...fieldState('fault-text', why)}
              value={text}
              maxLength={500}
              autoComplete="off"
              onChange={(e) => setText(e.target.value)}
              onBlur={keepText}
            />
          </FormField>
          <PhotoButton
            onPhoto={onPhoto}
            onKept={(photo, at) => onSet({ photo, ...(at ? { 'takenAt.latitude': at.latitude, 'takenAt.longitude': at.longitude } : {}) })}
          />
        </div>
      )}
    </Sheet>
  );
}
