import type { AttemptChoice } from '@/core/visit/billed';

/** Which attempts of the visit a bill is for. None ticked: for the whole visit. */
export function AttemptsBilled({
  attempts,
  named,
  onChange,
}: {
  attempts: readonly AttemptChoice[];
  named: readonly string[];
  onChange: (named: string[]) => void;
}) {
  return (
    <fieldset className="mb-3">
      <legend className="text-sm font-semibold">For which attempts</legend>
      {attempts.map((a) => {
        const others = named.filter((id) => !a.events.includes(id));
        return (
          <label key={a.id} className="flex min-h-[44px] items-center gap-2.5 text-[15px]">
            <input
              type="checkbox"
              className="size-5 shrink-0 accent-ink"
              checked={others.length < named.length}
              onChange={(e) => onChange(e.target.checked ? [...others, a.id] : others)}
            />
            {a.name}
          </label>
        );
      })}
      <p className="text-[13px] text-ink-2">None ticked: for the whole visit.</p>
    </fieldset>
  );
}
