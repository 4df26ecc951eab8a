import { EVENT_VERSION, type StoredEvent } from './event';

/** What is said of an event that stands beside the line: one of a newer version, or a change of something that has not arrived. */
export function asideLabel(e: StoredEvent): string {
  if (e.kind === 'correction' && e.v <= EVENT_VERSION) return 'a correction of something that is not here yet';
  if (e.kind === 'withdrawal' && e.v <= EVENT_VERSION) return 'the taking back of something that is not here yet';
  return `“${e.kind.replaceAll('_', ' ')}” of a newer version`;
}
