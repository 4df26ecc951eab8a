import { now } from '../clock';

/** Long enough for the next part to be asked for; what was recorded meanwhile is seen when it is read again. */
const HELD_MS = 5 * 60_000;
/** Of how many people at once: a large one takes some hundred megabytes. */
const MOST = 2;

/** What was read of a file, held for the requests that follow: of each person the last one, of a few people. */
export class HeldReads<T> {
  private readonly all = new Map<string, { keys: readonly string[]; at: number; what: T }>();

  of(personId: string, key: string): T | null {
    const found = this.all.get(personId);
    if (!found || found.at + HELD_MS < now()) {
      this.all.delete(personId);
      return null;
    }
    return found.keys.includes(key) ? found.what : null;
  }

  keep(personId: string, keys: readonly string[], what: T): void {
    this.all.delete(personId);
    this.all.set(personId, { keys, at: now(), what });
    for (const oldest of [...this.all.keys()].slice(0, Math.max(0, this.all.size - MOST))) this.all.delete(oldest);
  }

  /** What was taken back can come in again: nothing that was read before says so. */
  forget(): void {
    this.all.clear();
  }
}
