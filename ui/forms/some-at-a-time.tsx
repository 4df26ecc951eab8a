'use client';
import { type ReactNode, useState } from 'react';
import { printCount } from '@/core/units/print';

const AT_A_TIME = 200;

/** The first rows of many, and a button for more: a page with tens of thousands stands still, on a phone it is ended. @param one of what they are, in words */
export function useSome<T>(all: readonly T[], one: string): { some: readonly T[]; more: ReactNode } {
  const [most, setMost] = useState(AT_A_TIME);
  const left = all.length - most;
  return {
    some: all.slice(0, most),
    more:
      left > 0 ? (
        <p className="mt-2 flex flex-wrap items-center gap-3 text-[14px]">
          {printCount(left, `more ${one}`)} not shown.
          <button type="button" className="plate !min-h-[44px]" onClick={() => setMost(most + AT_A_TIME)}>
            Show {Math.min(left, AT_A_TIME)} more
          </button>
        </p>
      ) : null,
  };
}
