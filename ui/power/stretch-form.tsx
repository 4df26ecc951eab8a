/** Any stretch of the battery, asked by a form that needs no script: the page comes again with what it took. */
export function StretchForm({
  action,
  kept,
  from,
  to,
  wrong,
  problem,
}: {
  action: string;
  /** What else the address says. */
  kept: Readonly<Record<string, string>>;
  from: string;
  to: string;
  /** Fields whose level is none. */
  wrong: readonly string[];
  problem: string | null;
}) {
  const label = 'flex flex-col text-[12.5px] font-semibold';
  return (
    <form action={action} className="no-print mt-3" aria-label="A stretch of the battery">
      {Object.entries(kept).map(([name, value]) => (
        <input key={name} type="hidden" name={name} value={value} />
      ))}
      <div className="flex flex-wrap items-end gap-2">
        {[['from', from] as const, ['to', to] as const].map(([name, value]) => (
          <label key={name} className={label}>
            {name}, %
            <input name={name} inputMode="decimal" defaultValue={value} aria-invalid={wrong.includes(name)} className="field mt-0.5 !w-[76px]" />
          </label>
        ))}
        <button type="submit" className="plate !min-h-[44px]">
          What it took
        </button>
      </div>
      {problem ? (
        <p role="alert" className="mt-2 text-sm font-semibold text-fault">
          {problem}
        </p>
      ) : null}
    </form>
  );
}
