/** So many are enough to see what is wrong with a file. */
const LISTED = 200;
/** What of a file is left out, each with its place in it; nothing where nothing is. @param unlisted of it that is not among the items */
export function LeftOut({ items, unlisted = 0 }: { items: readonly { pointer: string; reason: string }[]; unlisted?: number }) {
  if (items.length === 0) return null;
  const beyond = Math.max(0, items.length - LISTED) + unlisted;
  return (
    <section aria-label="What is left out" className="mb-4">
      <h2 className="mb-1 text-[16px]">What is left out</h2>
      <ul className="relative max-h-60 overflow-y-auto text-[14px]" tabIndex={0} aria-label="Reasons by place in the file">
        {[...new Map(items.slice(0, LISTED).map((b) => [`${b.pointer} ${b.reason}`, b]))].map(([key, b]) => (
          <li key={key} className="mb-1 break-words border-l-4 border-fault bg-fault-card px-3 py-1">
            <span className="num">{b.pointer || '/'}</span> {b.reason}
          </li>
        ))}
      </ul>
      {beyond > 0 ? <p className="mt-1 text-[14px] text-ink-2">{beyond} more are not listed.</p> : null}
    </section>
  );
}
