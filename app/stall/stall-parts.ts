import { fetchedLater } from '@/client/visit-session/fetched-later';

/** What is no part of the first load: fetched once, right after it. */
export const laterParts = fetchedLater(() => import('./later-parts'));
