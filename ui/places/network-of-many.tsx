'use client';
import { useState } from 'react';

/** One network for all sites that have none yet: of hundreds nobody types each. The names that are here are those of the page's list `networks-here`. */
export function NetworkOfMany({ disabled = false, onFill }: { disabled?: boolean; onFill: (network: string) => void }) {
  const [network, setNetwork] = useState('');
  return (
    <div className="mt-2 flex flex-wrap items-center gap-2">
      <label className="flex min-w-0 flex-wrap items-center gap-2 text-[14px]">
        Network of those that have none
        <input
          type="text"
          list="networks-here"
          maxLength={80}
          className="field !min-h-[44px] min-w-0 sm:!w-[220px]"
          value={network}
          onChange={(e) => setNetwork(e.target.value)}
        />
      </label>
      <button type="button" className="plate !min-h-[44px]" disabled={disabled || network.trim() === ''} onClick={() => onFill(network.trim())}>
        Fill it in
      </button>
    </div>
  );
}
