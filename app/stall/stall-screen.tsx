import { useEffect } from 'react';
import { fetchAllNow } from '@/client/visit-session/fetched-later';
import { RoleHere } from '@/ui/road/role';
import { TapePaint } from '@/ui/tape/paint';
import { later } from '../later';
import { Opening } from './opening';
import { PullInScreen } from './pull-in-screen';
import { laterParts } from './stall-parts';
import { useStall } from './use-stall';

const LiveScreen = later(async () => (await laterParts()).LiveScreen, <Opening />);

export function StallScreen() {
  const stall = useStall();
  const { state } = stall;
  // At hand before it is needed: nobody waits for it with a cable in the other hand.
  useEffect(() => {
    void LiveScreen.fetch().then(fetchAllNow, () => {});
  }, []);
  return (
    <>
      <TapePaint />
      {stall.hands ? (
        <RoleHere value={stall.state.who.role}>
          {stall.state.visit && stall.state.visitId ? (
            <LiveScreen state={{ ...stall.state, visit: stall.state.visit, visitId: stall.state.visitId }} hands={stall.hands} />
          ) : (
            <PullInScreen state={stall.state} hands={stall.hands} />
          )}
        </RoleHere>
      ) : (
        <main className="mx-auto max-w-md p-6">
          <h1 className="text-2xl">Stall</h1>
          {state.is === 'opening' ? <Opening /> : null}
          {state.is === 'nobody' ? (
            <>
              <p className="mt-3">Sign in once on this phone. After that the Stall opens and records without a network too.</p>
              <a className="plate plate-next mt-5 !min-h-[44px]" href="/sign-in?to=%2Fstall">
                Sign in
              </a>
            </>
          ) : null}
        </main>
      )}
    </>
  );
}
