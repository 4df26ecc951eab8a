/** A list in the order of its ids, which is that in which things were made. */
export const byId = <T extends { id: string }>(all: readonly T[]): T[] => [...all].sort((a, b) => (a.id < b.id ? -1 : 1));
