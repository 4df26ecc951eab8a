import { printCount } from '../units/print';

/** That a look holds the newest visits alone, where there are `beyond` more than it works through. */
export const olderWords = (beyond: number): string => `${printCount(beyond, 'older visit')} ${beyond === 1 ? 'is' : 'are'} not looked at here.`;
