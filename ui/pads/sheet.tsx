'use client';
import * as Dialog from '@radix-ui/react-dialog';
import { X } from 'lucide-react';
import type { ReactNode } from 'react';

/** A sheet that comes up over the pads; Escape, the cross or the ground behind closes it and records nothing. */
export function Sheet({ title, onClose, children, hint }: { title: string; onClose: () => void; children: ReactNode; hint?: string }) {
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
          className="fixed inset-x-0 bottom-0 z-40 mx-auto flex max-h-[88dvh] max-w-[560px] flex-col border-t-2 border-ink bg-card pb-[env(safe-area-inset-bottom)] sm:bottom-10 sm:border-2"
        >
          <div className="flex items-start gap-3 border-b border-rule px-4 py-3">
            <div className="grow">
              <Dialog.Title className="text-xl">{title}</Dialog.Title>
              {hint ? <p className="mt-1 text-sm text-ink-2">{hint}</p> : null}
            </div>
            <Dialog.Close className="plate !min-h-[44px] !w-[44px] shrink-0 !p-0" aria-label="Close">
              <X size={20} aria-hidden="true" />
            </Dialog.Close>
          </div>
          <div className="min-h-0 grow overflow-y-auto px-4 py-3">{children}</div>
        </Dialog.Content>
      </Dialog.Portal>
    </Dialog.Root>
  );
}
