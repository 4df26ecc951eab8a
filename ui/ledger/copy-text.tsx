'use client';
import { useState } from 'react';

/** A plate that copies a text, and says that it did. */
export function CopyText({ text, label }: { text: string; label: string }) {
  const [said, setSaid] = useState('');
  return (
    <p className="mt-2 flex flex-wrap items-center gap-3">
      <button
        type="button"
        className="plate !min-h-[44px]"
        onClick={() =>
          navigator.clipboard.writeText(text).then(
            () => setSaid('Copied.'),
            () => setSaid('That did not work here. Select the text instead.'),
          )
        }
      >
        {label}
      </button>
      <span role="status" className="text-[13px] text-ink-2">
        {said}
      </span>
    </p>
  );
}
