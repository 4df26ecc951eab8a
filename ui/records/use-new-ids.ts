'use client';
import { useRef } from 'react';
import { v7 } from 'uuid';

/**
 * Ids for what a form makes, one for each part of it, the same however often it is pressed: where the server could not be reached it is kept
 * already, and what is typed then is a change of that and no second one.
 */
export function useNewIds(): (part: string) => string {
  const ids = useRef(new Map<string, string>());
  return (part) => {
    const id = ids.current.get(part) ?? v7();
    ids.current.set(part, id);
    return id;
  };
}
