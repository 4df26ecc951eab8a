import type { OutboxStatus } from '@/client/outbox/outbox-loop';

/** The corner that says where the record is: on the phone, or sent. Nothing until that is known. */
export function KeptCorner({ outbox, signedOut }: { outbox: OutboxStatus | null; signedOut: boolean }) {
  return (
    <div className="ml-auto min-w-[62px] shrink-0 sm:ml-4 text-right text-[12px] leading-tight text-line-2" role="status">
      {outbox === null ? null : outbox.waiting > 0 ? (
        <>
          Kept on
          <br />
          phone {outbox.waiting}
        </>
      ) : (
        <>
          All
          <br />
          sent
        </>
      )}
      {outbox !== null && outbox.refused > 0 ? (
        <>
          <br />
          <b className="text-white">{outbox.refused} refused</b>
        </>
      ) : null}
      {signedOut ? (
        <>
          <br />
          <a href="/sign-in" className="font-bold text-white underline">
            Sign in
          </a>
        </>
      ) : null}
    </div>
  );
}
