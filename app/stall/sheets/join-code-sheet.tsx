'use client';
import type { Visit } from '@/core/visit/derive';
import { codeDigits, visitCode } from '@/core/visit/visit-code';
import { QrCode } from '@/ui/forms/qr-code';
import { Sheet } from '@/ui/pads/sheet';

/** The visit's code for a second phone of the household: typed in there, or its QR code read by that phone's camera. Needs no network. */
export function JoinCodeSheet({ visit, stallId, onClose }: { visit: Visit; stallId: string | null; onClose: () => void }) {
  const query = new URLSearchParams({ join: codeDigits(visit.id), ...(visit.siteId ? { site: visit.siteId } : {}), ...(stallId ? { stall: stallId } : {}) });
  return (
    <Sheet title="Another phone joins" onClose={onClose} hint="Somebody of this household, on a phone that has opened Mile Ledger before. It needs no network.">
      <p className="num text-center text-[44px] font-semibold leading-tight max-[360px]:text-[34px]">{visitCode(visit.id)}</p>
      <p className="mb-3 text-center text-[14px]">There: Stall, “Join by code”. What both record becomes one visit when both phones have reached the server.</p>
      <div className="grid place-items-center">
        <QrCode text={`${location.origin}/stall?${query}`} label={`The code ${visitCode(visit.id)} as a QR code`} />
      </div>
    </Sheet>
  );
}
