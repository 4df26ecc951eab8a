/** Work in steps, between which others can have their turn: a sheet of a hundred thousand rows takes seconds. */
export type Steps<T> = Generator<void, T>;

/** So many rows are one step. */
export const ROWS_A_STEP = 200;

/** Does something with each of many, in steps. */
export function* withEach<T>(all: Iterable<T>, work: (one: T) => void): Steps<void> {
  let n = 0;
  for (const one of all) {
    if (n % ROWS_A_STEP === 0) yield;
    n += 1;
    work(one);
  }
}

/** All steps at once. */
export function finish<T>(steps: Steps<T>): T {
  for (;;) {
    const step = steps.next();
    if (step.done) return step.value;
  }
}
