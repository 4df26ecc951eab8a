import { setTimeout } from 'node:timers/promises';
import type { Steps } from '@/core/units/steps';

/** How long one piece of work goes on before others have their turn, ms. */
const TURN_MS = 15;
/** And how long the turn of others is at least, ms: an answer takes some dozen hops between here and the database. */
const OTHERS_MS = 1;

/** Does work step by step, so that whoever else asks the server something meanwhile gets an answer. */
export async function unhurried<T>(steps: Steps<T>): Promise<T> {
  for (let since = performance.now(); ; ) {
    const step = steps.next();
    if (step.done) return step.value;
    if (performance.now() - since < TURN_MS) continue;
    await setTimeout(OTHERS_MS);
    since = performance.now();
  }
}
