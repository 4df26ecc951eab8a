'use client';
import { useMemo } from 'react';
import { phoneNow } from '@/client/touch/touch-time';
import { costSoFar } from '@/core/tariff/cost-so-far';
import { type CostAs, costWords } from '@/core/tariff/cost-words';
import { compiledOf } from '@/core/tariff/tariff-object';
import type { KeptTariff } from '@/core/tariff/tariff-on';
import type { Live, LiveFacts } from './live-facts';

/** How long a figure stands before the clock alone makes it anew. */
const STEP_MS = 10_000;

/** What the charge has cost by the whole of the tariff, and when its price changes. Nothing while too little is known to say so. */
export function CostLine({ visit, facts }: { visit: Live['visit']; facts: Pick<LiveFacts, 'charging' | 'tariff' | 'member'> }) {
  const now = Math.floor(phoneNow() / STEP_MS) * STEP_MS;
  const { charging, tariff, member } = facts;
  const said = useMemo(() => {
    const proof = charging?.proof;
    if (!charging || !proof) return null;
    const by = (t: KeptTariff | undefined, plan: string | null): CostAs[] => {
      const cost = t && costSoFar(compiledOf(t), visit, { ...charging, proof }, Math.max(now, proof.t));
      return cost?.known ? [{ cost: cost.value, plan }] : [];
    };
    return costWords([...by(tariff, null), ...by(member?.tariff, member?.name ?? null)], visit.zone);
  }, [visit, charging, tariff, member, now]);
  return said ? <p className="border-b border-rule bg-card px-4 py-1 text-[14px] font-semibold">{said}</p> : null;
}
