/** What is made of an object is made once for as long as that very object is held: an index of a list, a price made ready. */
export function onceOf<Of extends object, T>(work: (of: Of) => T): (of: Of) => T {
  const done = new WeakMap<Of, { made: T }>();
  return (of) => {
    const found = done.get(of) ?? { made: work(of) };
    done.set(of, found);
    return found.made;
  };
}
