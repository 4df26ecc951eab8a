'use client';
import { useState } from 'react';
import { wholeCode } from '@/core/visit/visit-code';
import { Sheet } from '@/ui/pads/sheet';

/** The code of a visit that another phone records. */
export function JoinByCodeSheet({ onClose, onCode }: { onClose: () => void; onCode: (digits: string) => void }) {
  const [typed, setTyped] = useState('');
  const [problem, setProblem] = useState<string | null>(null);
  return (
    <Sheet title="Join by code" onClose={onClose} hint="On the phone that records: More, “Another phone joins”.">
      <form
        noValidate
        onSubmit={(e) => {
          e.preventDefault();
          const code = wholeCode(typed);
          if (code) onCode(code);
          else setProblem('Eight signs, 0 to 9 and A to F, such as 7C2F-09AB.');
        }}
      >
        <label htmlFor="join-code" className="mb-1 block text-sm font-semibold">
          Code of the visit
        </label>
        <input
          id="join-code"
          className="field num !text-[22px]"
          autoComplete="off"
          autoCapitalize="characters"
          value={typed}
          aria-invalid={problem ? true : undefined}
          aria-describedby={problem ? 'join-code-error' : undefined}
          onChange={(e) => {
            setTyped(e.target.value);
            setProblem(null);
          }}
        />
        {problem ? (
          <p id="join-code-error" role="alert" className="mt-1 text-[14px] font-semibold text-fault">
            {problem}
          </p>
        ) : null}
        <button type="submit" className="plate plate-next mt-3 !min-h-[52px] w-full">
          Join
        </button>
      </form>
    </Sheet>
  );
}
