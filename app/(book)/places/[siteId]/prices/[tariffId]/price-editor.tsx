'use client';
import { useRouter } from 'next/navigation';
import { keepAndSend } from '@/client/outbox/keep-and-send';
import { PriceForm, type PriceFormProps } from '@/ui/prices/price-form';

/** The form of a price, kept by the same way as at the Stall. @param then where to go when it is kept */
export function PriceEditor({ then, ...props }: Omit<PriceFormProps, 'onSave'> & { then: string }) {
  const router = useRouter();
  return (
    <PriceForm
      {...props}
      onSave={async (item) => {
        const kept = await keepAndSend([item], props.record ? [props.record] : []);
        if (kept.is === 'failed') return { problem: `This browser could not keep it: ${kept.why}` };
        if (kept.is === 'unsettled')
          return { problem: kept.unsettled.theirs ? 'Somebody else changed this price meanwhile: load the page again.' : kept.unsettled.reason };
        if (kept.is === 'kept_here') return { said: 'Kept on this device: it is sent when the server can be reached.' };
        router.push(then);
        router.refresh();
        return null;
      }}
    />
  );
}
