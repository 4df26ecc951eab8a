import { setImmediate } from 'node:timers/promises';
import type { Steps } from '@/core/units/steps';

/** How long one piece of work goes on before others have their turn, ms. */
const TURN_MS = 15;

/** Does work step by step, so that whoever else asks the server something meanwhile gets an answer. */
export async function unhurried<T>(steps: Steps<T>): Promise<T> {
  for (let since = performance.now(); ; ) {
    const step = steps.next();
    if (step.done) return step.value;
    if (performance.now() - since < TURN_MS) continue;
    await setImmediate();
    since = performance.now();
  }
}
