'use client';
import * as Dialog from '@radix-ui/react-dialog';
import { useRouter } from 'next/navigation';
import { type ComponentType, useCallback, useEffect, useState } from 'react';
import type { Found } from '@/core/records/findables';
import type { FindProps } from '../find/find-dialog';
import { PLACES } from './places';
import { usePlaceKeys } from './use-place-keys';

/** Asked for by the find plate of the road. */
export const FIND_EVENT = 'mile:find';

const KEYS: [string, string][] = [
  ...PLACES.map((p): [string, string] => [p.key, p.name]),
  ['N', 'Pull in'],
  ['Ctrl K', 'Find'],
  ['J / K', 'Next or previous in the list'],
  ['?', 'This list'],
];

/** Single keys for the pages with data, and the list of them. @param Find the find box, which few open */
export function Keys({ Find }: { Find: ComponentType<FindProps> }) {
  const router = useRouter();
  const [open, setOpen] = useState(false);
  const go = useCallback((href: string) => (PLACES.some((p) => p.shell && p.href === href) ? location.assign(href) : router.push(href)), [router]);
  const more = useCallback((key: string) => {
    if (key === '?') setOpen(true);
    else if (key === 'j' || key === 'k') step(key === 'j' ? 1 : -1);
    else return false;
    return true;
  }, []);
  const [finding, setFinding] = useState(false);
  const find = useCallback(() => setFinding(true), []);
  usePlaceKeys(go, more, find);
  useEffect(() => {
    addEventListener(FIND_EVENT, find);
    return () => removeEventListener(FIND_EVENT, find);
  }, [find]);
  return (
    <>
      {finding ? (
        <Find
          search={searchServer}
          onClose={() => setFinding(false)}
          onOpen={(href) => {
            setFinding(false);
            go(href);
          }}
        />
      ) : null}
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
    </>
  );
}

async function searchServer(typed: string, signal: AbortSignal): Promise<Found[]> {
  const response = await fetch(`/api/v1/find?q=${encodeURIComponent(typed)}`, { signal });
  if (!response.ok) throw new Error('not answered');
  return (await response.json()).found;
}

/** Follows the link of the next or previous row of the ledger list. */
function step(by: 1 | -1) {
  const rows = [...document.querySelectorAll<HTMLAnchorElement>('[data-ledger-row]')];
  const at = rows.findIndex((r) => r.getAttribute('aria-current') === 'true');
  rows[at < 0 ? 0 : Math.min(rows.length - 1, Math.max(0, at + by))]?.click();
}
