'use client';
import { type RefObject, useEffect, useRef, useState } from 'react';

/** Width of an element as laid out; `initial` until it is known. */
export function useWidth<T extends HTMLElement>(initial: number): [RefObject<T | null>, number] {
  const ref = useRef<T>(null);
  const [width, setWidth] = useState(initial);
  useEffect(() => {
    const el = ref.current;
    if (!el) return;
    const observer = new ResizeObserver(() => setWidth(Math.max(200, Math.round(el.clientWidth))));
    observer.observe(el);
    return () => observer.disconnect();
  }, []);
  return [ref, width];
}
