// One part to fetch when idle: what advice and the cost so far need beyond the running visit, with their lines and the sheet.
export { AdviceLine } from './advice-line';
export { CostLine } from './cost-line';
export { AdviceSheet } from './sheets/advice-sheet';
