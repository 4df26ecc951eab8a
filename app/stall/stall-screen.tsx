'use client';
import { useEffect } from 'react';
import { TapePaint } from '@/ui/tape/paint';
import { fetchAllNow } from './fetched-later';
import { later } from './later';
import { PullInScreen } from './pull-in-screen';
import { useStall } from './use-stall';

const LiveScreen = later(() => import('./live-screen').then((m) => m.LiveScreen), <Opening />);

export function StallScreen() {
  const { state, hands } = useStall();
  // At hand before it is needed: nobody waits for it with a cable in the other hand.
  useEffect(() => {
    void LiveScreen.fetch().then(fetchAllNow, () => {});
  }, []);
  return (
    <>
      <TapePaint />
      {state.is === 'ready' ? (
        state.visit && state.visitId ? (
          <LiveScreen state={{ ...state, visit: state.visit, visitId: state.visitId }} hands={hands} />
        ) : (
          <PullInScreen state={state} hands={hands} />
        )
      ) : (
        <main className="mx-auto max-w-md p-6">
          <h1 className="text-2xl">Stall</h1>
          {state.is === 'opening' ? <Opening /> : null}
          {state.is === 'nobody' ? (
            <>
              <p className="mt-3">Sign in once on this phone. After that the Stall opens and records without a network too.</p>
              <a className="plate plate-next mt-5" href="/sign-in">
                Sign in
              </a>
            </>
          ) : null}
        </main>
      )}
    </>
  );
}

function Opening() {
  return (
    <p className="mt-3 text-ink-2" role="status">
      Opening what is kept on this phone …
    </p>
  );
}
