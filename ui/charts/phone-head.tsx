import type { ReactNode } from 'react';

/** The head of a figure, beside it: on a phone a row of a wide table is a card, and each of its figures bears its own. */
export const PhoneHead = ({ children }: { children: ReactNode }) => (
  <span className="block font-sans text-[12px] font-normal text-ink-2 sm:hidden">{children}</span>
);
/** A table whose rows are cards on a phone, where so many columns would be cut. */
export const CARDS = {
  table: 'w-full max-sm:block',
  head: 'max-sm:sr-only',
  body: 'max-sm:block',
  /** With its number of columns beside it. */
  row: 'max-sm:grid max-sm:py-2',
  /** Of the whole row: its name, and what is words. */
  whole: 'max-sm:col-span-full max-sm:py-0.5',
  cell: 'max-sm:block max-sm:py-0.5 max-sm:text-left',
} as const;
