import { v7 } from 'uuid';
import type { deriveVisit } from '@/core/visit/derive';
import type { PayloadCheck } from '@/core/visit/payloads';
import { startOutbox } from '../outbox/outbox-loop';
import { sendRecords } from '../outbox/send-outbox';
import { writePhoto } from '../photos/photo-outbox';
import type { takePhoto as TakePhoto } from '../photos/take-photo';
import { letNewVersionIn } from '../register-service-worker';
import { changesSince } from '../store/changes-from-server';
import type * as LastVisitsPart from '../store/last-visits';
import { openOwnStore, type PhoneStore } from '../store/phone-store';
import type { PhoneWho } from '../store/who';
import { takeAwake } from '../touch/page-life';
import { phoneNow, touchTime } from '../touch/touch-time';
import { lastVisits, visitEvents } from '../visits/from-server';

/** What a session of a visit needs of the world around it: here of a browser on a phone. */
export const phoneWays = {
  openStore: (who: PhoneWho): Promise<PhoneStore> => openOwnStore(who),
  startOutbox,
  changesSince,
  visitEvents,
  lastVisits,
  sendRecords,
  touchTime,
  takeAwake,
  /** UTC ms by the clock that events are timed by, and by the device's own. */
  now: phoneNow,
  wallNow: (): number => Date.now(),
  zone: (): string => Intl.DateTimeFormat().resolvedOptions().timeZone,
  newId: (): string => v7(),
  buzz: (pattern: number | number[]): void => void navigator.vibrate?.(pattern),
  newVersion: letNewVersionIn,
  writePhoto,
  /** The server no longer knows this device. */
  signedOut: (): void => {},
};

/** What is fetched apart from the page's first load: nothing is derived, checked or remembered before a store is open. */
export type SessionParts = {
  derivation: () => Promise<typeof deriveVisit>;
  payloadCheck: () => Promise<PayloadCheck>;
  lastVisitsPart: () => Promise<typeof LastVisitsPart>;
  takePhoto: typeof TakePhoto;
};
export type SessionWays = typeof phoneWays & SessionParts;
