// One part to fetch, right after the first load: the derivation, the running visit and the answers before it. What the
// parts below share with it is on the phone once, because they are asked for from here alone.
export { kmBetween } from '@/core/records/place-questions';
export { deriveVisit } from '@/core/visit/derive';
export { billDoubt } from '@/core/visit/sense-check';
export { FormField } from '@/ui/forms/form-field';
export { OneOf } from '@/ui/forms/one-of';
export { DigitPad } from '@/ui/pads/digit-pad';
export { Sheet } from '@/ui/pads/sheet';
export { FindOnPhone } from './find-on-phone';
export { LastVisits, OpenVisits } from './last-visits';
export { LiveScreen } from './live-screen';
export { StallChoice } from './stall-choice';
export { TrialCard } from './trial-card';
export const eventSheets = () => import('./sheets/event-sheets');
export const recordSheets = () => import('./sheets/record-sheets');
export const payloads = () => import('@/core/visit/payloads');
export const lastVisitsOnPhone = () => import('@/client/store/last-visits');
export const photos = () => import('@/client/photos/take-photo');
