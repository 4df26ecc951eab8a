'use client';
import { useLayoutEffect } from 'react';

declare global {
  interface Window {
    /** Set by public/sheet.js: puts the chosen set of colours on the page. */
    mileSheet?: () => void;
  }
}

/** Where a page had to be made anew in the browser, the sheet chosen before the first paint is gone: it is put back. */
export function KeepSheet() {
  useLayoutEffect(() => {
    if (window.mileSheet) return window.mileSheet();
    const script = document.createElement('script');
    script.src = '/sheet.js';
    document.head.append(script);
  }, []);
  return null;
}
