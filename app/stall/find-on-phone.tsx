'use client';
import { useCallback } from 'react';
import { findBest } from '@/core/records/find-text';
import { type Found, findables } from '@/core/records/findables';
import { FindDialog } from '@/ui/find/find-dialog';
import type { Records } from './stall-state';

/** The find box at the Stall: answers from the phone's own copy, with or without a network. A site or stall is chosen, not opened. */
export function FindOnPhone({
  records,
  onPlace,
  onClose,
}: {
  records: Records;
  onPlace: (siteId: string, stallId: string | null) => void;
  onClose: () => void;
}) {
  const search = useCallback(
    async (typed: string): Promise<Found[]> => {
      const named = (all: { id: string; fields: { name: string } }[]) => all.map((r) => ({ id: r.id, name: r.fields.name }));
      const all = findables({
        network: named(records.network),
        provider: named(records.provider),
        car: named(records.car),
        adapter: named(records.adapter),
        means: records.means.map((m) => ({ id: m.id, name: m.fields.label })),
        site: records.site.map((s) => ({ id: s.id, name: s.fields.name, networkId: s.fields.networkId })),
        stall: records.stall.map((s) => ({ id: s.id, name: s.fields.name, otherName: s.fields.otherName, siteId: s.fields.siteId })),
      });
      return findBest(typed, all, 12);
    },
    [records],
  );
  return (
    <FindDialog
      search={search}
      onClose={onClose}
      onOpen={(href, found) => {
        if (found?.kind === 'site') return onPlace(found.id, null);
        const stall = found?.kind === 'stall' ? records.stall.find((s) => s.id === found.id) : undefined;
        if (stall) return onPlace(stall.fields.siteId, stall.id);
        location.assign(href);
      }}
    />
  );
}
