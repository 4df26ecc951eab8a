'use client';
import type { ReactNode } from 'react';

/** Plates two in a row: each one press. */
export function PlateList({ children }: { children: ReactNode }) {
  return <div className="grid grid-cols-2 gap-2">{children}</div>;
}

export function Plate({ children, onPress, bad = false }: { children: ReactNode; onPress: (timeStamp: number) => void; bad?: boolean }) {
  return (
    <button type="button" className={`plate !min-h-[52px] ${bad ? 'plate-bad' : ''}`} onClick={(e) => onPress(e.timeStamp)}>
      {children}
    </button>
  );
}
