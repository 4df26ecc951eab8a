'use client';
import * as Dialog from '@radix-ui/react-dialog';
import { useRouter } from 'next/navigation';
import { useEffect, useState } from 'react';
import { PLACES } from './places';

export const KEYS_STORE = 'mile.keys';
const KEYS: [string, string][] = [
  ...PLACES.map((p): [string, string] => [p.key, p.name]),
  ['N', 'Pull in'],
  ['J / K', 'Next or previous visit in the ledger'],
  ['?', 'This list'],
];

/** True while keys belong to what has the focus: a field, a button, a dialog (WCAG 2.1.4). */
function keysRest(target: EventTarget | null): boolean {
  if (!(target instanceof HTMLElement)) return false;
  return target.closest('input, textarea, select, [role=dialog], [contenteditable]') !== null;
}

/** Single keys for the places. Can be switched off in the settings. */
export function Keys() {
  const router = useRouter();
  const [open, setOpen] = useState(false);
  useEffect(() => {
    const onKey = (e: KeyboardEvent) => {
      if (e.ctrlKey || e.metaKey || e.altKey || keysRest(e.target) || localStorage.getItem(KEYS_STORE) === 'off') return;
      const place = PLACES.find((p) => p.key === e.key);
      if (place?.shell || e.key === 'n') location.assign('/stall');
      else if (place) router.push(place.href);
      else if (e.key === '?') setOpen(true);
      else if (e.key === 'j' || e.key === 'k') step(e.key === 'j' ? 1 : -1);
      else return;
      e.preventDefault();
    };
    addEventListener('keydown', onKey);
    return () => removeEventListener('keydown', onKey);
  }, [router]);
  return (
    <Dialog.Root open={open} onOpenChange={setOpen}>
      <Dialog.Portal>
        <div className="fixed inset-0 z-30 bg-black/50" />
        <Dialog.Content
          className="fixed left-1/2 top-24 z-40 w-[min(92vw,420px)] -translate-x-1/2 border-2 border-ink bg-card p-5"
          aria-describedby={undefined}
        >
          <Dialog.Title className="text-lg">Keys</Dialog.Title>
          <dl className="mt-3 grid grid-cols-[80px_1fr] gap-y-1.5 text-sm">
            {KEYS.map(([key, what]) => (
              <div key={key} className="contents">
                <dt className="num font-bold">{key}</dt>
                <dd>{what}</dd>
              </div>
            ))}
          </dl>
          <p className="mt-3 text-sm text-ink-2">Single keys can be switched off in the settings.</p>
          <Dialog.Close className="plate mt-4">Close</Dialog.Close>
        </Dialog.Content>
      </Dialog.Portal>
    </Dialog.Root>
  );
}

/** Follows the link of the next or previous row of the ledger list. */
function step(by: 1 | -1) {
  const rows = [...document.querySelectorAll<HTMLAnchorElement>('[data-ledger-row]')];
  const at = rows.findIndex((r) => r.getAttribute('aria-current') === 'true');
  rows[at < 0 ? 0 : Math.min(rows.length - 1, Math.max(0, at + by))]?.click();
}
