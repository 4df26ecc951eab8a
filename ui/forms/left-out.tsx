/** What of a file is left out, each with its place in it; nothing where nothing is. */
export function LeftOut({ items }: { items: readonly { pointer: string; reason: string }[] }) {
  if (items.length === 0) return null;
  return (
    <section aria-label="What is left out" className="mb-4">
      <h2 className="mb-1 text-[16px]">What is left out</h2>
      <ul className="relative max-h-60 overflow-y-auto text-[14px]" tabIndex={0} aria-label="Reasons by place in the file">
        {items.map((b) => (
          <li key={`${b.pointer} ${b.reason}`} className="mb-1 break-words border-l-4 border-fault bg-fault-card px-3 py-1">
            <span className="num">{b.pointer || '/'}</span> {b.reason}
          </li>
        ))}
      </ul>
    </section>
  );
}
