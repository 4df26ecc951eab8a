import { printCount } from '../units/print';

/** That a look holds the newest visits alone, where there are more than it works through. */
export const olderWords = (beyond: number): string =>
  beyond > 0 ? `${printCount(beyond, 'older visit')} ${beyond === 1 ? 'is' : 'are'} not looked at here.` : '';
