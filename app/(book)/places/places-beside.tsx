import type { ReactNode } from 'react';
import { isId } from '@/core/units/id';
import { localDay } from '@/core/units/zoned';
import type { SignedIn } from '@/server/accounts/sessions';
import { now } from '@/server/clock';
import { siteList, siteListFor } from '@/server/places/site-list';
import { recordsOf } from '@/server/records/record-tables';
import { PlaceList } from '@/ui/places/place-list';

/**
 * The list and the sketch beside a page. On a phone the list stands alone, and so does the page.
 * @param selected the site or form that was asked for; `null` shows `children` beside the list only where there is room
 * @param open the site that `children` shows all the same
 */
export async function PlacesBeside({
  who,
  car,
  selected,
  open = selected,
  children,
}: {
  who: SignedIn;
  car: string | undefined;
  selected: string | null;
  open?: string | null;
  children: ReactNode;
}) {
  const [cars, forCar] = await Promise.all([recordsOf(who.householdId, 'car'), isId(car) ? siteListFor(who, car, localDay(now(), who.zone)) : null]);
  const rows = forCar ?? (await siteList(who));
  return (
    <div className="flex grow flex-col lg:flex-row">
      <div className={selected !== null ? 'hidden shrink-0 lg:flex' : 'flex min-w-0 grow lg:shrink-0 lg:grow-0'}>
        <PlaceList
          rows={rows}
          selected={open}
          distance={who.wishes.distance}
          cars={cars.filter((c) => !c.archived).map((c) => ({ id: c.id, name: c.fields.name }))}
        />
      </div>
      <div className={`min-w-0 grow relative lg:h-[calc(100dvh-52px)] lg:overflow-y-auto ${selected !== null ? '' : 'hidden lg:block'}`}>{children}</div>
    </div>
  );
}
