'use client';
import { useRouter, useSearchParams } from 'next/navigation';

/** For which car the site is asked about. */
export function CarChoice({ cars, carId }: { cars: { id: string; name: string }[]; carId: string | null }) {
  const router = useRouter();
  const query = useSearchParams();
  if (cars.length < 2) return <span>{cars[0]?.name}</span>;
  return (
    <label className="text-[13px]">
      for{' '}
      <select
        className="rounded-[5px] border-2 border-ink bg-card px-2 py-1 text-[14px] font-bold text-ink"
        value={carId ?? ''}
        onChange={(e) => {
          const q = new URLSearchParams(query);
          q.set('for', e.target.value);
          router.replace(`?${q}`, { scroll: false });
        }}
      >
        {cars.map((c) => (
          <option key={c.id} value={c.id}>
            {c.name}
          </option>
        ))}
      </select>
    </label>
  );
}
