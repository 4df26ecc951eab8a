/** Same frame as the list, so that nothing shifts when it comes. */
export default function LoadingLedger() {
  return (
    <div className="flex grow">
      <div className="grow bg-card p-4 lg:w-[392px] lg:grow-0 lg:border-r lg:border-rule" role="status">
        <p className="text-xl font-extrabold">Ledger</p>
        <p className="mt-3 text-sm text-ink-2">Reading the ledger …</p>
      </div>
      <div className="hidden grow lg:block" />
    </div>
  );
}
