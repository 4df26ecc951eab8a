import { v4 } from 'uuid';

/** This page life: `performance.now()` counts only within it. */
export const life = v4();

let hidden = false;
if (typeof document !== 'undefined') {
  document.addEventListener('visibilitychange', () => {
    if (document.visibilityState === 'hidden') hidden = true;
  });
}

/** True when the page was never hidden since the last call: asked once for each event made. */
export function takeAwake(): boolean {
  const awake = !hidden;
  hidden = typeof document !== 'undefined' && document.visibilityState === 'hidden';
  return awake;
}

const DEVICE = 'mile.device';
let unremembered: string | undefined;
/** This device, the same in every tab and after every reload; where nothing can be remembered, for this page life. */
export function deviceId(): string {
  try {
    const known = localStorage.getItem(DEVICE);
    if (known) return known;
    unremembered ??= v4();
    localStorage.setItem(DEVICE, unremembered);
  } catch {
    // A browser that refuses to remember still has its page life.
  }
  unremembered ??= v4();
  return unremembered;
}
