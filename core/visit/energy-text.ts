import { printKWh } from '../units/print';
import type { Energy } from './delivered';

/** Delivered energy in words: what was read too early is a least. */
export const energyText = (e: Pick<Energy, 'value' | 'atLeast'>): string => `${e.atLeast ? 'at least ' : ''}${printKWh(e.value)}`;
