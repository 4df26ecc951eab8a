'use client';
import * as Popover from '@radix-ui/react-popover';
import type { ReactNode } from 'react';

/** What a popover shows, above the page and within it. @param className its width, its room, the size of its text */
export function Floating({ label, align = 'start', className, children }: { label: string; align?: 'start' | 'end'; className: string; children: ReactNode }) {
  return (
    <Popover.Portal>
      <Popover.Content
        align={align}
        sideOffset={4}
        collisionPadding={12}
        aria-label={label}
        className={`z-40 max-h-[var(--radix-popover-content-available-height)] overflow-y-auto border-2 border-ink bg-card ${className}`}
      >
        {children}
      </Popover.Content>
    </Popover.Portal>
  );
}
