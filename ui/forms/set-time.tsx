'use client';
import { useState } from 'react';
import { localInstants, localText } from '@/core/units/local-time';
import { FormField, fieldState } from './form-field';
import { ShiftTime } from './shift-time';

/** Setting a time: by plates, or typed with its date as it was at the site. */
export function SetTime({ at, original, zone, onChange }: { at: number; original: number; zone: string; onChange: (at: number) => void }) {
  const [problem, setProblem] = useState<string | undefined>();
  return (
    <div>
      <ShiftTime at={at} original={original} zone={zone} onChange={onChange} />
      <div className="mt-3">
        <FormField id="typed-time" label={`Or type it (${zone})`} error={problem}>
          <input
            {...fieldState('typed-time', problem)}
            type="datetime-local"
            step="1"
            value={localText(at, zone)}
            onChange={(e) => {
              const [day = '', time = ''] = e.target.value.split('T');
              // Of two at which the clock shows it, as it is put back, the one nearer to what was recorded.
              const typed = localInstants(day, time, zone).sort((a, b) => Math.abs(a - original) - Math.abs(b - original))[0];
              setProblem(typed === undefined ? 'A date and a time' : undefined);
              // A whole second keeps the part of it that was measured.
              if (typed !== undefined) onChange(typed + (((original % 1000) + 1000) % 1000));
            }}
          />
        </FormField>
      </div>
    </div>
  );
}
