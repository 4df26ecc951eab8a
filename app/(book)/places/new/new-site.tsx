'use client';
import { useRouter } from 'next/navigation';
import { keepAndSend } from '@/client/outbox/keep-and-send';
import { askAboutPlace, zoneAt } from '@/client/places/position';
import type { Position } from '@/core/records/place-questions';
import type { Names } from '@/ui/records/form-fields';
import { NewSiteForm } from '@/ui/records/new-site-form';

/** Adds a site with its stalls and opens its page. */
export function NewSite({ names, zone, others }: { names: Names; zone: string; others: Position[] }) {
  const router = useRouter();
  return (
    <NewSiteForm
      names={names}
      zone={zone}
      zoneAt={zoneAt}
      ask={(fields) => askAboutPlace(fields, others, zone)}
      onSave={async (items, siteId) => {
        const kept = await keepAndSend(items, []);
        if (kept.is === 'failed') return `This browser could not keep it: ${kept.why}`;
        if (kept.is === 'unsettled') return kept.unsettled.reason;
        if (kept.is === 'kept_here') return 'Kept on this device: it is sent when the server can be reached. The site is at hand at the Stall.';
        router.push(`/places/${siteId}`);
        router.refresh();
        return null;
      }}
    />
  );
}
