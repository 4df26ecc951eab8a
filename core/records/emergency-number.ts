/**
 * The number for help in an emergency, by time zone. A phone takes 112 and 911 in every network and puts them through to what is
 * called there (3GPP TS 22.101, 10.1; ITU-T E.161.1: 112 and 911; both from memory): where nothing better is known it is 112. It is
 * a proposal: a site can note its own, and it is always shown with the words "or your local number".
 */
const BY_ZONE: readonly (readonly [RegExp, string])[] = [
  // 999 beside 112: the United Kingdom, Ireland says 112 first (common practice, no source).
  [/^Europe\/(London|Jersey|Guernsey|Isle_of_Man)$/, '999'],
  [/^(GB|GB-Eire)$/, '999'],
  [/^(Asia\/(Hong_Kong|Macau|Kuala_Lumpur|Kuching|Dubai)|Hongkong)$/, '999'],
  [/^Asia\/Singapore$|^Singapore$/, '995'],
  [/^Asia\/(Tokyo|Seoul|Taipei)$|^(Japan|ROK|ROC)$/, '119'],
  [/^Australia\//, '000'],
  [/^Pacific\/(Auckland|Chatham)$|^NZ(-CHAT)?$/, '111'],
  [/^America\/|^US\/|^Canada\/|^Mexico\/|^(Pacific\/(Honolulu|Guam|Saipan|Pago_Pago)|Atlantic\/Bermuda|Asia\/Manila)$/, '911'],
];

/** @param zone IANA name, such as Europe/Ljubljana */
export const emergencyNumber = (zone: string): string => BY_ZONE.find(([zones]) => zones.test(zone))?.[1] ?? '112';

/** What is called from a site: its own note, else what the person wishes for, else what its zone proposes. */
export const emergencyNumberAt = (site: { emergencyNumber?: string | null; zone: string } | null, zone: string, wished: string | null = null): string =>
  site?.emergencyNumber || wished || emergencyNumber(site?.zone ?? zone);
