'use client';
import { useState } from 'react';
import { extraPricing, ocpiTariff } from '@/core/records/ocpi-tariff';
import type { PriceObject } from '@/core/tariff/price-draft';
import { ownWords } from '@/core/units/own-words';

/** The object as text: to read, to change, to paste one in. */
export function ObjectBehind({ object, onUse }: { object: PriceObject | null; onUse: (used: PriceObject) => void }) {
  const [text, setText] = useState(() =>
    object ? JSON.stringify({ tariff: object.tariff, ...(object.extra ? { x_pricing: object.extra } : {}) }, null, 1) : '',
  );
  const [problems, setProblems] = useState<string[]>([]);
  const use = () => {
    let read: unknown;
    try {
      read = JSON.parse(text);
    } catch {
      return setProblems(['This is not JSON.']);
    }
    // A tariff alone, as a network publishes it, or with what stands beside it.
    const whole = (typeof read === 'object' && read !== null ? read : {}) as Record<string, unknown>;
    const tariff = ocpiTariff.safeParse('elements' in whole ? whole : whole.tariff, { error: ownWords });
    const extra = 'elements' in whole || whole.x_pricing === undefined ? null : extraPricing.safeParse(whole.x_pricing, { error: ownWords });
    const found = [...(tariff.success ? [] : tariff.error.issues), ...(extra === null || extra.success ? [] : extra.error.issues)];
    if (found.length > 0) return setProblems(found.slice(0, 8).map((i) => `${i.path.join('.') || 'tariff'}: ${i.message}`));
    setProblems([]);
    if (tariff.success) onUse({ tariff: tariff.data, extra: extra?.success ? extra.data : null });
  };
  return (
    <details className="mb-4 mt-2">
      <summary className="inline-block min-h-[44px] cursor-pointer py-2.5 font-semibold text-shake">The object behind it, or paste one in</summary>
      <label htmlFor="object" className="mb-1 block text-sm font-semibold">
        Tariff by OCPI 2.2.1, with x_pricing beside it
      </label>
      <textarea
        id="object"
        className="field num min-h-[220px] w-full text-[12.5px]"
        spellCheck={false}
        value={text}
        onChange={(e) => setText(e.target.value)}
      />
      {problems.length > 0 ? (
        <ul role="alert" className="mt-1 text-[13px] font-semibold text-fault">
          {problems.map((p) => (
            <li key={p}>{p}</li>
          ))}
        </ul>
      ) : null}
      <button type="button" className="plate mt-2 !min-h-[44px]" onClick={use}>
        Use this object
      </button>
    </details>
  );
}
