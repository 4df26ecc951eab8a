// One part to fetch when idle: what advice and prices need beyond the running visit, with their lines and the sheet.
export { billCost, screenCost, tryPrice } from '@/core/tariff/expected-cost';
export { compiledOf } from '@/core/tariff/tariff-object';
export { AdviceLine } from './advice-line';
export { CostLine, PriceHere } from './cost-line';
export { AdviceSheet } from './sheets/advice-sheet';
