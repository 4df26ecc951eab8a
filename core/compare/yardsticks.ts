import { clopperPearson } from '../evidence/share-intervals';

/**
 * What rules ask of operators: a share of the time in which a port works, as metered over a year. A look on arrival is no meter: the two stand side by
 * side and are never said to be one.
 */
export const YARDSTICKS = [
  // National Electric Vehicle Infrastructure Standards and Requirements, 23 CFR 680.116(b): average annual uptime of each port greater than 97 %.
  { share: 0.97, label: '97 %', source: '23 CFR 680.116 (United States)' },
  // The Public Charge Point Regulations 2023 (SI 2023/1168), regulation 5: 99 % reliable over a year, rapid charge point networks.
  { share: 0.99, label: '99 %', source: 'Public Charge Point Regulations 2023 (United Kingdom), rapid networks' },
] as const;

export type AgainstYardstick = 'above' | 'below' | 'cannot_tell';

/**
 * Whether what was seen lies above or below a share, with 95 % confidence to that side, were every look by itself: 99 looks with none down are needed to
 * say 97 %, 299 to say 99 % (0.97^99 and 0.99^299 are below 0.05).
 * @param works looks at bays that worked @param n all looks at bays
 */
export function againstYardstick(works: number, n: number, share: number): AgainstYardstick {
  if (n === 0) return 'cannot_tell';
  const [lower, upper] = clopperPearson(works, n, 0.9);
  return lower >= share ? 'above' : upper < share ? 'below' : 'cannot_tell';
}
