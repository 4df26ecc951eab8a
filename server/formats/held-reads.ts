import { now } from '../clock';

/** Long enough for the next part to be asked for; what was recorded meanwhile is seen when it is read again. */
const HELD_MS = 5 * 60_000;
/** Of how many people at once: a large one takes some hundred megabytes. */
const MOST = 2;

/** What was read of a file, held for the requests that follow: of each person the last one, of a few people. */
export class HeldReads<T> {
  private readonly all = new Map<string, { keys: readonly string[]; at: number; what: T }>();

  of(personId: string, key: string): T | null {
    this.giveUp();
    const found = this.all.get(personId);
    return found?.keys.includes(key) ? found.what : null;
  }

  /** What nobody asked for in time. */
  private giveUp(): void {
    for (const [personId, { at }] of this.all) if (at + HELD_MS < now()) this.all.delete(personId);
  }

  keep(personId: string, keys: readonly string[], what: T): void {
    this.all.delete(personId);
    this.all.set(personId, { keys, at: now(), what });
    for (const oldest of [...this.all.keys()].slice(0, Math.max(0, this.all.size - MOST))) this.all.delete(oldest);
    // Whether or not somebody asks again.
    setTimeout(() => this.giveUp(), HELD_MS + 1).unref();
  }

  /** What was taken back can come in again: nothing that was read before says so. */
  forget(): void {
    this.all.clear();
  }
}
