'use client';
import { TapePaint } from '@/ui/tape/paint';
import { LiveScreen } from './live-screen';
import { PullInScreen } from './pull-in-screen';
import { useStall } from './use-stall';

export function StallScreen() {
  const { state, hands } = useStall();
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
          {state.is === 'opening' ? (
            <p className="mt-3 text-ink-2" role="status">
              Opening what is kept on this phone …
            </p>
          ) : null}
          {state.is === 'nobody' ? (
            <>
              <p className="mt-3">Sign in once on this phone. After that the Stall opens and records without a network too.</p>
              <a className="plate plate-next mt-5" href="/sign-in">
                Sign in
              </a>
            </>
          ) : null}
          {state.is === 'no_store' ? (
            <div role="alert" className="mt-3 border-l-4 border-fault bg-fault-card p-3">
              <p className="font-bold">This browser does not let the page keep anything, so nothing can be recorded safely.</p>
              <p className="mt-1 text-sm">Leave private browsing, or allow this site to store data, then open the Stall again. ({state.why})</p>
            </div>
          ) : null}
        </main>
      )}
    </>
  );
}
