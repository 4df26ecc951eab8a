'use client';
import { type ComponentType, type ReactNode, useEffect, useState } from 'react';
import { fetchedLater } from '@/client/visit-session/fetched-later';

/**
 * A part that is fetched apart. Where it cannot be fetched the part says so and can be asked for again; what is around it,
 * a visit or a form half typed, stands.
 * @param meanwhile what holds its place
 * @param told whether it says so itself; of two that come together one is enough
 */
export function later<P extends object>(load: () => Promise<ComponentType<P>>, meanwhile: ReactNode = null, told = true) {
  let part: ComponentType<P> | null = null;
  const fetch = fetchedLater(async () => {
    part = await load();
    return part;
  });
  return Object.assign((props: P) => <Part fetch={fetch} here={part} meanwhile={meanwhile} told={told} given={props} />, { fetch });
}

type PartProps<P extends object> = { fetch: () => Promise<ComponentType<P>>; here: ComponentType<P> | null; meanwhile: ReactNode; told: boolean; given: P };
function Part<P extends object>({ fetch, here, meanwhile, told, given }: PartProps<P>) {
  const [Fetched, setFetched] = useState(() => here);
  const [failed, setFailed] = useState(false);
  const [tries, setTries] = useState(0);
  // biome-ignore lint/correctness/useExhaustiveDependencies: tried again when asked
  useEffect(() => {
    let gone = false;
    setFailed(false);
    fetch().then(
      (part) => {
        if (!gone) setFetched(() => part);
      },
      () => {
        if (!gone) setFailed(true);
      },
    );
    return () => {
      gone = true;
    };
  }, [fetch, tries]);
  if (Fetched) return <Fetched {...given} />;
  if (!failed || !told) return meanwhile;
  const onClose = 'onClose' in given && typeof given.onClose === 'function' ? (given.onClose as () => void) : null;
  return (
    <div role="alert" className={`border-2 border-fault bg-fault-card p-4 ${onClose ? 'fixed inset-x-0 bottom-0 z-50' : ''}`}>
      <p className="text-[15px]">
        This part is not on this device yet and could not be fetched: there is no network, or a newer version is at the server. What was recorded stands.
      </p>
      <div className="mt-2 flex gap-2">
        <button type="button" className="plate !min-h-[44px]" onClick={() => setTries((n) => n + 1)}>
          Try again
        </button>
        {onClose ? (
          <button type="button" className="plate !min-h-[44px]" onClick={onClose}>
            Close
          </button>
        ) : null}
      </div>
    </div>
  );
}
