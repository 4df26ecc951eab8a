'use client';
import * as Popover from '@radix-ui/react-popover';
import { type ReactNode, useRef, useState } from 'react';
import { Floating } from '../forms/floating';
import { saveFile } from '../forms/save-file';
import { pngOf, svgText } from './svg-file';

/** A name that every file system takes: letters of any script, short enough. */
const fileName = (name: string) =>
  [
    ...name
      .normalize('NFC')
      .toLowerCase()
      .replace(/[^\p{L}\p{N}]+/gu, '-'),
  ]
    .slice(0, 60)
    .join('')
    .replace(/^-|-$/g, '') || 'figure';

/**
 * A figure of a page, and a way to take it along: its numbers as CSV, copied or saved, and its drawing as SVG or PNG where it has one.
 * @param csv its numbers @param drawn whether the first drawing inside is the figure
 */
export function KeepFigure({ name, csv, drawn = false, children }: { name: string; csv: string; drawn?: boolean; children: ReactNode }) {
  const inside = useRef<HTMLDivElement>(null);
  const [said, setSaid] = useState('');
  const [open, setOpen] = useState(false);
  const show = (is: boolean) => {
    setOpen(is);
    setSaid('');
  };
  const file = fileName(name);
  const taken = async (work: () => Promise<void> | void, done: string) => {
    try {
      await work();
      setSaid(done);
    } catch {
      setSaid('That did not work here. Save it instead.');
    }
  };
  const drawing = () => {
    const svg = inside.current?.querySelector('svg');
    if (!svg) throw new Error('no drawing');
    return svgText(svg, name);
  };
  const acts: [label: string, act: () => void][] = [
    ['Copy as CSV', () => taken(() => navigator.clipboard.writeText(csv), 'Copied.')],
    ['Save as CSV', () => taken(() => saveFile(new Blob([csv], { type: 'text/csv;charset=utf-8' }), `${file}.csv`), 'Saved.')],
    ...(drawn
      ? ([
          ['Save as SVG', () => taken(() => saveFile(new Blob([drawing().text], { type: 'image/svg+xml' }), `${file}.svg`), 'Saved.')],
          ['Save as PNG', () => taken(async () => saveFile(await pngOf(drawing()), `${file}.png`), 'Saved.')],
        ] as [string, () => void][])
      : []),
    ['Print the page', () => window.print()],
  ];
  return (
    <div>
      <div ref={inside}>{children}</div>
      <div className="no-print mt-1 flex justify-end">
        <Popover.Root open={open} onOpenChange={show}>
          <Popover.Trigger className="min-h-[32px] px-1 text-[13px] font-semibold text-shake underline" aria-label={`Copy or save: ${name}`}>
            Copy or save
          </Popover.Trigger>
          <Floating label={`Copy or save: ${name}`} align="end" className="w-[220px] p-1.5">
            {acts.map(([label, act]) => (
              <button key={label} type="button" onClick={act} className="block min-h-[44px] w-full px-3 text-left text-[15px] hover:bg-picked">
                {label}
              </button>
            ))}
            <p role="status" className="px-3 pb-1 text-[13px] text-ink-2">
              {said}
            </p>
          </Floating>
        </Popover.Root>
      </div>
    </div>
  );
}
