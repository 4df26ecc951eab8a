'use client';
import * as Dialog from '@radix-ui/react-dialog';
import { Command } from 'cmdk';
import { useEffect, useState } from 'react';
import { findBest } from '@/core/records/find-text';
import type { Found } from '@/core/records/findables';
import { ACTIONS, type FindAction } from './actions';

const WAIT_MS = 120;
const HEADS: [string, (f: Found) => boolean][] = [
  ['Places', (f) => f.kind === 'site' || f.kind === 'stall'],
  ['Garage', (f) => ['network', 'provider', 'car', 'adapter', 'means'].includes(f.kind)],
  ['Visits', (f) => f.kind === 'visit'],
];

export type FindProps = {
  search: (typed: string, signal: AbortSignal) => Promise<Found[]>;
  onOpen: (href: string, found: Found | null) => void;
  onClose: () => void;
};

/**
 * Finds sites, stalls, networks, the garage, visits by place and date, and what can be done.
 * @param search answers for what was typed; may be called again before it has answered
 */
export function FindDialog({ search, onOpen, onClose }: FindProps) {
  const [typed, setTyped] = useState('');
  const [found, setFound] = useState<Found[]>([]);
  const [state, setState] = useState<'idle' | 'looking' | 'failed'>('idle');
  useEffect(() => {
    if (typed.trim() === '') {
      setFound([]);
      setState('idle');
      return;
    }
    const stop = new AbortController();
    const timer = setTimeout(() => {
      setState('looking');
      search(typed, stop.signal).then(
        (answers) => {
          if (stop.signal.aborted) return;
          setFound(answers);
          setState('idle');
        },
        () => !stop.signal.aborted && setState('failed'),
      );
    }, WAIT_MS);
    return () => {
      clearTimeout(timer);
      stop.abort();
    };
  }, [typed, search]);
  const actions = typed.trim() === '' ? ACTIONS.slice(0, 6) : findBest(typed, ACTIONS, 6);
  return (
    <Dialog.Root open onOpenChange={(open) => !open && onClose()}>
      <Dialog.Portal>
        <div className="fixed inset-0 z-30 bg-black/50" aria-hidden="true" />
        <Dialog.Content
          aria-describedby={undefined}
          className="fixed left-1/2 top-[8dvh] z-40 flex max-h-[80dvh] w-[min(94vw,600px)] -translate-x-1/2 flex-col border-2 border-ink bg-card"
        >
          <Dialog.Title className="sr-only">Find</Dialog.Title>
          <Command shouldFilter={false} label="Find" className="flex min-h-0 flex-col">
            <Command.Input
              value={typed}
              onValueChange={setTyped}
              placeholder="A site, a stall, a network, a car, a visit: Vrba 4, 14 Oct"
              className="w-full border-b-2 border-ink bg-card px-4 py-3 text-[17px] outline-none"
            />
            <Command.List className="min-h-0 overflow-y-auto p-2" aria-label="Answers">
              {state === 'failed' ? (
                <p className="px-3 py-2 text-sm font-semibold text-fault">The ledger cannot be reached. What can be done is below.</p>
              ) : null}
              <Command.Empty className="px-3 py-3 text-sm text-ink-2">{state === 'looking' ? 'Looking …' : 'Nothing of that name.'}</Command.Empty>
              {HEADS.map(([head, is]) => {
                const part = found.filter(is);
                return part.length > 0 ? (
                  <Command.Group key={head} heading={head} className="find-group">
                    {part.map((f) => (
                      <Answer key={`${f.kind} ${f.id}`} value={`${f.kind} ${f.id}`} label={f.label} line={f.line} onSelect={() => onOpen(f.href, f)} />
                    ))}
                  </Command.Group>
                ) : null;
              })}
              {actions.length > 0 ? (
                <Command.Group heading="Do and open" className="find-group">
                  {actions.map((a: FindAction) => (
                    <Answer key={a.label} value={`action ${a.label}`} label={a.label} line={a.line} onSelect={() => onOpen(a.href, null)} />
                  ))}
                </Command.Group>
              ) : null}
            </Command.List>
          </Command>
        </Dialog.Content>
      </Dialog.Portal>
    </Dialog.Root>
  );
}

function Answer({ value, label, line, onSelect }: { value: string; label: string; line: string; onSelect: () => void }) {
  return (
    <Command.Item
      value={value}
      onSelect={onSelect}
      className="flex min-h-[44px] cursor-pointer items-baseline gap-3 px-3 py-2.5 text-[15px] data-[selected=true]:bg-picked"
    >
      <b className="line-clamp-2 min-w-0 grow wrap-anywhere">{label}</b>
      <span className="shrink-0 text-[13px] text-ink-2">{line}</span>
    </Command.Item>
  );
}
