'use client';
const every = (): string[] => (typeof Intl.supportedValuesOf === 'function' ? Intl.supportedValuesOf('currency') : []);

/** What the money that is typed is in: abroad it is not the household's. @param near those that are likely here, first */
export function CurrencyChoice({ value, near, onChange }: { value: string; near: readonly string[]; onChange: (currency: string) => void }) {
  const first = [...new Set([value, ...near])];
  return (
    <select aria-label="Currency" className="plate num !min-h-[44px] shrink-0 !px-2" value={value} onChange={(e) => onChange(e.target.value)}>
      {first.map((c) => (
        <option key={c}>{c}</option>
      ))}
      <optgroup label="All others">
        {every()
          .filter((c) => !first.includes(c))
          .map((c) => (
            <option key={c}>{c}</option>
          ))}
      </optgroup>
    </select>
  );
}
