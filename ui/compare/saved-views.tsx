'use client';
import * as Popover from '@radix-ui/react-popover';
import Link from 'next/link';
import { useRouter } from 'next/navigation';
import { useState } from 'react';
import { v7 } from 'uuid';
import type { SavedView } from '@/core/compare/saved-view';
import { Floating } from '../forms/floating';
import { FormAlert } from '../forms/form-alert';
import { FormField, fieldState } from '../forms/form-field';
import { postJson } from '../forms/post-json';
import { ForDrivers } from '../road/role';

/** Comparisons by name: those that were saved, and a way to save the one that is open. @param address of the one that is open */
export function SavedViews({ views, address }: { views: SavedView[]; address: string }) {
  const router = useRouter();
  const [open, setOpen] = useState(false);
  const [name, setName] = useState('');
  const [odd, setOdd] = useState<string | undefined>();
  const [problem, setProblem] = useState<string | null>(null);
  const send = async (body: object, method: 'POST' | 'DELETE') => {
    const answer = await postJson('/api/v1/views', body, method);
    setOdd(answer.ok ? undefined : answer.fields.name);
    setProblem(answer.ok || answer.fields.name ? null : (answer.error ?? 'The server did not take this.'));
    if (answer.ok) router.refresh();
    return answer.ok;
  };
  return (
    <Popover.Root open={open} onOpenChange={setOpen}>
      <Popover.Trigger className="no-print min-h-[36px] rounded-[5px] border border-lane bg-card px-2.5 text-[13px] font-semibold text-ink">
        {views.length > 0 ? `Saved: ${views.length}` : 'Save'}
      </Popover.Trigger>
      <Floating label="Saved comparisons" align="end" className="w-[min(360px,calc(100vw-24px))] p-4">
        {views.length > 0 ? (
          <ul className="mb-3">
            {views.map((v) => (
              <li key={v.id} className="flex items-center gap-2 border-b border-rule-2">
                <Link
                  prefetch={false}
                  href={`/compare${v.address}`}
                  onClick={() => setOpen(false)}
                  className={`flex min-h-[44px] min-w-0 grow items-center ${v.address === address ? 'font-bold' : ''}`}
                >
                  <span className="truncate">{v.name}</span>
                </Link>
                <ForDrivers>
                  <button
                    type="button"
                    className="min-h-[44px] px-1 text-[13px] font-semibold text-shake underline"
                    aria-label={`Remove ${v.name}`}
                    onClick={() => send({ id: v.id }, 'DELETE')}
                  >
                    Remove
                  </button>
                </ForDrivers>
              </li>
            ))}
          </ul>
        ) : null}
        <ForDrivers>
          <form
            noValidate
            onSubmit={async (e) => {
              e.preventDefault();
              if (name.trim() === '') return setOdd('A name by which it is found again');
              if (await send({ id: v7(), name, address }, 'POST')) setName('');
            }}
          >
            <FormField id="view-name" label="Save this comparison as" error={odd}>
              <input
                type="text"
                maxLength={60}
                autoComplete="off"
                value={name}
                {...fieldState('view-name', odd)}
                onChange={(e) => {
                  setName(e.target.value);
                  setOdd(undefined);
                }}
              />
            </FormField>
            <FormAlert message={problem} />
            <button type="submit" className="plate plate-next !min-h-[44px] w-full">
              Save
            </button>
          </form>
        </ForDrivers>
      </Floating>
    </Popover.Root>
  );
}
