// One part to fetch: the schemas and forms of places and garage are on the phone once.
export { AddPlaceSheet } from './add-place-sheet';
export { ChangeRecordSheet } from './change-record-sheet';
export { EnrolmentSheet } from './enrolment-sheet';
export { GarageSheet } from './garage-sheet';
export { HelplineSheet } from './helpline-sheet';
export { JoinByCodeSheet } from './join-by-code-sheet';
export { NamePlaceSheet } from './name-place-sheet';
export { PricesSheet } from './prices-sheet';
export { SettleSheet } from './settle-sheet';
export { StallSheet } from './stall-sheet';
