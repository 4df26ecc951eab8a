'use client';
import { useState } from 'react';
import { type DistanceUnit, toKm } from '@/core/units/distance';
import { correctableText } from '@/core/visit/correction-set';
import type { Visit } from '@/core/visit/derive';
import { fieldAt } from '@/core/visit/set-fields';
import { type DigitField, DigitPad } from '@/ui/pads/digit-pad';
import { Sheet } from '@/ui/pads/sheet';
import type { Draft } from '../stall-state';

const FIELDS: DigitField[] = [
  { key: 'seen.free', label: 'Free stalls', unit: '', max: 99, decimals: 0 },
  { key: 'seen.total', label: 'Stalls in all', unit: '', max: 99, decimals: 0 },
  { key: 'seen.outOfOrder', label: 'Out of order', unit: '', max: 99, decimals: 0 },
  { key: 'socPct', label: 'Battery', unit: '%', max: 100, decimals: 0 },
];
const ODOMETER = 'odometerKm';

/** Figures seen on arrival: they belong to pulling in, whose time they leave alone. */
export function ArrivalSheet({
  visit,
  distance,
  onClose,
  onAct,
}: {
  visit: Visit;
  distance: DistanceUnit;
  onClose: () => void;
  onAct: (timeStamp: number, draft: Draft) => void;
}) {
  const fields: DigitField[] = [...FIELDS, { key: ODOMETER, label: 'Odometer', unit: distance, max: 2_000_000, decimals: 0 }];
  const pulledIn = visit.line.find((e) => e.kind === 'pulled_in');
  const before = (pulledIn?.payload ?? {}) as Record<string, unknown>;
  const was = correctableText('pulled_in', before, distance);
  const [values, setValues] = useState<Record<string, string>>(was);
  const [warm, setWarm] = useState(fieldAt(before, 'preconditioned') === true);
  const [problem, setProblem] = useState<string | null>(null);
  const save = (timeStamp: number) => {
    if (!pulledIn) return setProblem('Pulling in was not recorded, so these figures have no place.');
    const set: Record<string, number | boolean | null> = {};
    for (const { key } of fields) {
      const text = values[key] ?? '';
      if (text !== was[key]) set[key] = text === '' ? null : key === ODOMETER ? toKm(Number(text), distance) : Number(text);
    }
    if (warm !== (fieldAt(before, 'preconditioned') === true)) set.preconditioned = warm;
    if (Object.keys(set).length === 0) return setProblem('Type at least one figure.');
    const [free, total] = [Number(values['seen.free'] || 0), Number(values['seen.total'] || 0)];
    if (values['seen.total'] && free + Number(values['seen.outOfOrder'] || 0) > total)
      return setProblem(`There are ${total} in all: more cannot be free or out of order.`);
    onAct(timeStamp, { kind: 'correction', payload: { target: pulledIn.id, set } });
  };
  return (
    <Sheet title="On arrival" onClose={onClose}>
      <button type="button" aria-pressed={warm} className="plate mb-3 !min-h-[44px] w-full" onClick={() => setWarm(!warm)}>
        Battery preconditioned on the way
      </button>
      <DigitPad
        fields={fields}
        values={values}
        onChange={(v) => {
          setValues(v);
          setProblem(null);
        }}
        onSave={save}
        saveLabel="Keep the figures"
        problem={problem}
      />
    </Sheet>
  );
}
