// One part to fetch when idle: what advice needs beyond the running visit, with its line and its sheet.
export { AdviceLine } from './advice-line';
export { AdviceSheet } from './sheets/advice-sheet';
