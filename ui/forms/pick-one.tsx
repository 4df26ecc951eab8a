'use client';
import * as Popover from '@radix-ui/react-popover';
import { Command } from 'cmdk';
import { ChevronDown } from 'lucide-react';
import { useState } from 'react';
import { findBest } from '@/core/records/find-text';
import { Floating } from './floating';

export type Pickable = { id: string; name: string };

/** Up to so many all are looked through at a glance: the browser's own list does. */
const AT_A_GLANCE = 12;
/** Shown at once of a long list; typing narrows it. */
const SHOWN = 60;

/**
 * One of a list that may be long: a few in the browser's own list, many with a field to type into.
 * @param none what choosing nothing is called; its value is empty @param name under which a form finds the value
 */
export function PickOne({
  id,
  name,
  label,
  none,
  list,
  value,
  className,
  onPick,
  ...state
}: {
  id: string;
  name?: string;
  /** Where no label stands beside it. */
  label?: string;
  none: string;
  list: readonly Pickable[];
  value: string;
  className: string;
  onPick: (id: string) => void;
  'aria-invalid'?: boolean | undefined;
  'aria-describedby'?: string | undefined;
}) {
  const [open, setOpen] = useState(false);
  const [typed, setTyped] = useState('');
  const called = label ? { 'aria-label': label } : {};
  if (list.length <= AT_A_GLANCE)
    return (
      <select id={id} name={name} {...called} {...state} className={className} value={value} onChange={(e) => onPick(e.target.value)}>
        <option value="">{none}</option>
        {list.map((r) => (
          <option key={r.id} value={r.id}>
            {r.name}
          </option>
        ))}
      </select>
    );
  const all = [{ id: '', name: none }, ...list];
  const fitting =
    typed.trim() === ''
      ? all
      : findBest(
          typed,
          list.map((r) => ({ ...r, text: r.name })),
          list.length,
        );
  const chosen = all.find((r) => r.id === value)?.name ?? none;
  const show = (is: boolean) => {
    setOpen(is);
    setTyped('');
  };
  return (
    <Popover.Root open={open} onOpenChange={show}>
      {name ? <input type="hidden" name={name} value={value} /> : null}
      <Popover.Trigger
        id={id}
        type="button"
        {...state}
        {...(label ? { 'aria-label': `${label}: ${chosen}` } : {})}
        className={`${className} flex items-center gap-1.5 text-left`}
      >
        <span className="line-clamp-2 min-w-0 grow wrap-anywhere">{chosen}</span>
        <ChevronDown size={14} aria-hidden="true" className="shrink-0" />
      </Popover.Trigger>
      <Floating label={label ?? 'Choose'} className="w-[min(320px,calc(100vw-24px))]">
        <Command
          shouldFilter={false}
          label={label ?? 'Choose'}
          defaultValue={value}
          className="flex max-h-[min(400px,calc(var(--radix-popover-content-available-height)-8px))] flex-col"
        >
          <Command.Input
            value={typed}
            onValueChange={setTyped}
            placeholder="Type to narrow the list"
            className="w-full border-b-2 border-ink bg-card px-3 py-2.5 text-[16px] outline-none"
          />
          <Command.List className="min-h-0 overflow-y-auto p-1.5" aria-label={label ?? 'Choose'}>
            <Command.Empty className="px-3 py-2.5 text-sm text-ink-2">Nothing of that name.</Command.Empty>
            {fitting.slice(0, SHOWN).map((r) => (
              <Command.Item
                key={r.id}
                value={r.id}
                onSelect={() => {
                  show(false);
                  onPick(r.id);
                }}
                className="flex min-h-[44px] cursor-pointer items-center px-3 py-1.5 text-[15px] data-[selected=true]:bg-picked"
              >
                <span className={r.id === value ? 'font-bold' : ''}>{r.name}</span>
              </Command.Item>
            ))}
            {fitting.length > SHOWN ? <p className="px-3 py-2 text-[13px] text-ink-2">{fitting.length - SHOWN} more: type part of the name.</p> : null}
          </Command.List>
        </Command>
      </Floating>
    </Popover.Root>
  );
}
