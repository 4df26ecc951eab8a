import type { PhoneStore } from '../store/phone-store';
import { type SendOutcome, sendOutbox } from './send-outbox';

export type OutboxStatus = { waiting: number; refused: number; last: SendOutcome | null };

/** Seconds to the next try after a failure: doubling up to a minute. @param failures in a row, ≥ 1 */
export const backOffSeconds = (failures: number): number => Math.min(60, 2 ** (failures - 1));

/**
 * Keeps sending in the background: at once when woken, again with back-off while the server is away, and when
 * the phone says it is online or is looked at again.
 * @returns `wake` to send soon, `stop` to end
 */
export function startOutbox(store: PhoneStore, onStatus: (status: OutboxStatus) => void): { wake: () => Promise<void>; stop: () => void } {
  let running: Promise<void> | null = null;
  let again = false;
  let failures = 0;
  let timer: ReturnType<typeof setTimeout> | undefined;
  let stopped = false;

  const tell = async (last: SendOutcome | null) => {
    if (stopped) return;
    const refused = (await store.getAll('event')).filter((e) => e.state === 'refused').length;
    onStatus({ waiting: await store.count('outbox'), refused, last });
  };
  const run = async () => {
    do {
      again = false;
      const outcome = await sendOutbox(store);
      failures = outcome === 'unreachable' ? failures + 1 : 0;
      await tell(outcome);
      if (outcome === 'unreachable' && !stopped) timer = setTimeout(wake, backOffSeconds(failures) * 1000);
    } while (again && !stopped);
  };
  const wake = async (): Promise<void> => {
    clearTimeout(timer);
    if (stopped) return;
    await tell(null);
    if (running) {
      again = true;
      return running;
    }
    running = run().finally(() => {
      running = null;
    });
    return running;
  };
  const onLook = () => {
    if (document.visibilityState === 'visible') void wake();
  };
  const onOnline = () => void wake();
  addEventListener('online', onOnline);
  document.addEventListener('visibilitychange', onLook);
  void wake();
  return {
    wake,
    stop: () => {
      stopped = true;
      clearTimeout(timer);
      removeEventListener('online', onOnline);
      document.removeEventListener('visibilitychange', onLook);
    },
  };
}
