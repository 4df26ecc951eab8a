'use client';
import * as Dialog from '@radix-ui/react-dialog';
import { X } from 'lucide-react';
import type { ReactNode } from 'react';
import { useBackCloses } from './back-closes';

/** What had the focus before the first sheet opened; a sheet that gives way to another keeps it. */
let home: HTMLElement | null = null;

/**
 * Keys work in the sheet from its first moment: where there are digits to type, they have the focus, else the cross. Never a
 * choice, which letters typed too early would change.
 */
function onOpen(e: Event): void {
  const before = document.activeElement;
  if (before instanceof HTMLElement && before !== document.body && !before.closest('[role=dialog]')) home = before;
  const sheet = e.currentTarget as HTMLElement;
  const keys = sheet.querySelector<HTMLElement>('[data-takes-keys]') ?? sheet.querySelector<HTMLElement>('[data-closes]');
  if (!keys) return;
  e.preventDefault();
  keys.focus();
}

/** The focus goes back to the pad that was pressed; where a touch left none, to the first of the page. */
function onClosed(e: Event): void {
  e.preventDefault();
  if (document.querySelector('[role=dialog]')) return;
  const to = home?.isConnected ? home : document.querySelector<HTMLElement>('[data-home]');
  home = null;
  to?.focus({ preventScroll: true });
}

/** A sheet that comes up over the pads; Escape, Back, the cross or the ground behind closes it and records nothing. */
export function Sheet({
  title,
  onClose,
  children,
  hint,
  beside,
}: {
  title: string;
  onClose: () => void;
  children: ReactNode;
  hint?: string;
  /** What is chosen for all of it, beside its title. */
  beside?: ReactNode;
}) {
  useBackCloses(onClose);
  return (
    <Dialog.Root
      open
      onOpenChange={(open) => {
        if (!open) onClose();
      }}
    >
      <Dialog.Portal>
        <div className="fixed inset-0 z-30 bg-black/55" aria-hidden="true" />
        <Dialog.Content
          aria-describedby={undefined}
          onOpenAutoFocus={onOpen}
          onCloseAutoFocus={onClosed}
          className="fixed inset-x-0 bottom-0 z-40 mx-auto flex max-h-[88dvh] short:max-h-[97dvh] flat:max-w-[760px] max-w-[560px] flex-col border-t-2 border-ink bg-card pb-[env(safe-area-inset-bottom)] sm:bottom-10 sm:border-2 short:sm:bottom-0"
        >
          <div className="flex items-start gap-3 border-b border-rule px-4 py-3 short:py-1">
            <div className="grow">
              <Dialog.Title className="text-xl">{title}</Dialog.Title>
              {hint ? <p className="mt-1 text-sm text-ink-2">{hint}</p> : null}
            </div>
            {beside}
            <Dialog.Close className="plate !min-h-[44px] !w-[44px] shrink-0 !p-0" aria-label="Close" data-closes>
              <X size={20} aria-hidden="true" />
            </Dialog.Close>
          </div>
          <div className="relative min-h-0 grow overflow-y-auto px-4 py-3 short:py-2">{children}</div>
        </Dialog.Content>
      </Dialog.Portal>
    </Dialog.Root>
  );
}
