import type { Page } from '@playwright/test';

/** Drops a file onto a page, beside every field. @returns whether the page kept it from the browser, which would open the file in its place */
export const dropFile = (page: Page, name: string, text: string): Promise<boolean> =>
  page.evaluate(
    ([as, of]) => {
      const dataTransfer = new DataTransfer();
      dataTransfer.items.add(new File([of], as));
      const on = document.querySelector('h1') as HTMLElement;
      return ['dragover', 'drop'].every((type) => !on.dispatchEvent(new DragEvent(type, { dataTransfer, bubbles: true, cancelable: true })));
    },
    [name, text] as const,
  );
