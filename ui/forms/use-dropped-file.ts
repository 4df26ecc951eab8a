'use client';
import { type RefObject, useEffect } from 'react';

const isFileField = (target: EventTarget | null): boolean => target instanceof HTMLInputElement && target.type === 'file';

/**
 * A file dropped anywhere on the page is chosen, as if it was dropped onto its field: a browser would leave the page for it otherwise, and what
 * is typed there would be gone. Of several the first.
 * @param input the field; what is folded away around it is opened
 */
export function useDroppedFile(input: RefObject<HTMLInputElement | null>): void {
  useEffect(() => {
    const isOurs = (e: DragEvent): boolean => (e.dataTransfer?.types.includes('Files') ?? false) && (e.target === input.current || !isFileField(e.target));
    const over = (e: DragEvent) => {
      if (isOurs(e)) e.preventDefault();
    };
    const drop = (e: DragEvent) => {
      if (!isOurs(e)) return;
      e.preventDefault();
      const [own, file] = [input.current, e.dataTransfer?.files[0]];
      if (!own || own.disabled || !file) return;
      const alone = new DataTransfer();
      alone.items.add(file);
      own.closest('details')?.setAttribute('open', '');
      own.files = alone.files;
      own.dispatchEvent(new Event('change', { bubbles: true }));
    };
    addEventListener('dragover', over);
    addEventListener('drop', drop);
    return () => {
      removeEventListener('dragover', over);
      removeEventListener('drop', drop);
    };
  }, [input]);
}
