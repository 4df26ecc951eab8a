'use client';
import { useState } from 'react';
import { TIME_RULES, type TimeName } from '@/core/visit/attempt-times';
import { DigitPad } from '@/ui/pads/digit-pad';
import { Sheet } from '@/ui/pads/sheet';
import type { Draft } from '../stall-state';

const OFFERED: TimeName[] = ['handshake', 'plugToPower', 'meansToPower', 'authorisation', 'setUp'];

/** A duration that somebody took with a stopwatch: kept beside the derived one, never mixed with it. */
export function StopwatchSheet({ openedAt, onClose, onAct }: { openedAt: number; onClose: () => void; onAct: (timeStamp: number, draft: Draft) => void }) {
  const [figure, setFigure] = useState<TimeName>('handshake');
  const [values, setValues] = useState<Record<string, string>>({});
  const [problem, setProblem] = useState<string | null>(null);
  return (
    <Sheet title="Stopwatch figure" onClose={onClose} hint={`From the ${TIME_RULES[figure].rule}.`}>
      <label className="mb-2 flex items-center gap-3">
        <span className="text-sm font-semibold">Figure</span>
        <select className="field !min-h-[44px] grow" value={figure} onChange={(e) => setFigure(e.target.value as TimeName)}>
          {OFFERED.map((f) => (
            <option key={f} value={f}>
              {TIME_RULES[f].label}
            </option>
          ))}
        </select>
      </label>
      <DigitPad
        fields={[
          { key: 'minutes', label: 'Minutes', unit: 'min', max: 600, decimals: 0 },
          { key: 'seconds', label: 'Seconds', unit: 's', max: 59.9, decimals: 1 },
        ]}
        values={values}
        onChange={(v) => {
          setValues(v);
          setProblem(null);
        }}
        problem={problem}
        saveLabel="Keep the figure"
        onSave={() => {
          if (!values.minutes && !values.seconds) return setProblem('Type the time that was taken.');
          onAct(openedAt, {
            kind: 'figure_given',
            payload: {
              figure,
              seconds: Number(values.minutes ?? 0) * 60 + Number(values.seconds ?? 0),
              plusMinus_s: 2,
              startMark: TIME_RULES[figure].label,
              endMark: 'kW',
            },
          });
        }}
      />
    </Sheet>
  );
}
