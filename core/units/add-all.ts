/** Adds each of many to a list. As arguments of one call to `push` more than some hundred thousand are more than the stack takes. */
export function addAll<T>(to: T[], more: Iterable<T>): void {
  for (const one of more) to.push(one);
}
