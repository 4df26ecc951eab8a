import type { ReactNode } from 'react';
import type { UsualStop } from '@/core/tariff/same-stop';
import type { DistanceUnit } from '@/core/units/distance';

const NAMES = ['Sunday', 'Monday', 'Tuesday', 'Wednesday', 'Thursday', 'Friday', 'Saturday'];

/** The stop that is priced: in the address, by a plain form that also works before any script has run. */
export function StopChoice({
  stop,
  car,
  cars,
  sites,
  from,
  within,
  distance,
  children,
}: {
  stop: UsualStop;
  car: string | null;
  cars: readonly { id: string; name: string }[];
  /** From which distances are counted, and how far around it one looks. */
  sites: readonly { id: string; name: string }[];
  from: string | null;
  within: number | null;
  distance: DistanceUnit;
  /** Beside the button. */
  children: ReactNode;
}) {
  const label = 'flex flex-col text-[13px] font-semibold';
  return (
    <form action="/compare/same-stop" className="mb-3 flex flex-wrap items-end gap-2">
      <label className={label}>
        kWh
        <input name="kwh" inputMode="decimal" defaultValue={String(stop.kWh)} className="field mt-0.5 !w-[84px]" />
      </label>
      <label className={label}>
        or from %
        <input name="from_pct" inputMode="decimal" defaultValue={stop.levels?.fromPct ?? ''} className="field mt-0.5 !w-[84px]" />
      </label>
      <label className={label}>
        to %
        <input name="to_pct" inputMode="decimal" defaultValue={stop.levels?.toPct ?? ''} className="field mt-0.5 !w-[84px]" />
      </label>
      <label className={label}>
        on
        <select name="day" defaultValue={stop.weekday} className="field mt-0.5 !w-[132px]">
          {[1, 2, 3, 4, 5, 6, 0].map((d) => (
            <option key={d} value={d}>
              {NAMES[d]}
            </option>
          ))}
        </select>
      </label>
      <label className={label}>
        at
        <input name="time" type="time" defaultValue={stop.time} className="field mt-0.5 !w-[142px]" />
      </label>
      <label className={label}>
        at least, min
        <input name="minutes" inputMode="numeric" defaultValue={stop.minutes ?? ''} className="field mt-0.5 !w-[84px]" />
      </label>
      <label className={label}>
        then parked, min
        <input name="parked" inputMode="numeric" defaultValue={String(stop.parkedMin)} className="field mt-0.5 !w-[84px]" />
      </label>
      {cars.length > 0 ? (
        <label className={label}>
          in
          <select name="car" defaultValue={car ?? ''} className="field mt-0.5 !w-[150px]">
            {cars.map((c) => (
              <option key={c.id} value={c.id}>
                {c.name}
              </option>
            ))}
          </select>
        </label>
      ) : null}
      {sites.length > 1 ? (
        <>
          <label className={label}>
            within, {distance}
            <input name="within" inputMode="numeric" defaultValue={within ?? ''} className="field mt-0.5 !w-[84px]" />
          </label>
          <label className={label}>
            of
            <select name="from" defaultValue={from ?? ''} className="field mt-0.5 !w-[180px]">
              {sites.map((s) => (
                <option key={s.id} value={s.id}>
                  {s.name}
                </option>
              ))}
            </select>
          </label>
        </>
      ) : null}
      <button type="submit" className="plate !min-h-[44px]">
        Price it
      </button>
      {children}
    </form>
  );
}
