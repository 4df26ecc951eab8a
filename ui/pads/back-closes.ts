'use client';
import { useEffect, useRef } from 'react';

/** The sheets that are open, the topmost last. */
const open: { close: () => void }[] = [];
const standsForSheet = (): boolean => (history.state as { sheet?: boolean } | null)?.sheet === true;
let atSheet = false;
let listening = false;

function stand(): void {
  if (!standsForSheet()) history.pushState({ ...history.state, sheet: true }, '');
  atSheet = true;
}

function onBack(): void {
  const left = atSheet && !standsForSheet();
  atSheet = standsForSheet();
  if (!left) return;
  const top = open.at(-1);
  // The entry of a sheet that was closed otherwise: Back means the page before it.
  if (top) {
    top.close();
    if (open.length > 1) stand();
  } else history.back();
}

/**
 * The Back of the phone closes the open sheet and nothing else. One entry of the history stands for whatever sheet is
 * open; it stays when the sheet is closed otherwise, for going back by ourselves would race the next touch.
 */
export function useBackCloses(close: () => void): void {
  const latest = useRef(close);
  latest.current = close;
  useEffect(() => {
    if (!listening) addEventListener('popstate', onBack);
    listening = true;
    const me = { close: () => latest.current() };
    open.push(me);
    stand();
    return () => {
      open.splice(open.indexOf(me), 1);
    };
  }, []);
}
