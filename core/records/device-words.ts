const BROWSERS: [RegExp, string][] = [
  [/\bEdgA?\//, 'Edge'],
  [/\bOPR\//, 'Opera'],
  [/\b(Firefox|FxiOS)\//, 'Firefox'],
  [/\b(Chrome|CriOS|HeadlessChrome)\//, 'Chrome'],
  [/\bSafari\//, 'Safari'],
];
const SYSTEMS: [RegExp, string][] = [
  [/\bAndroid\b/, 'Android'],
  [/\biPhone\b/, 'an iPhone'],
  [/\biPad\b/, 'an iPad'],
  [/\bWindows\b/, 'Windows'],
  [/\bMac OS X\b/, 'a Mac'],
  [/\bCrOS\b/, 'ChromeOS'],
  [/\bLinux\b/, 'Linux'],
];
const first = (list: [RegExp, string][], text: string) => list.find(([pattern]) => pattern.test(text))?.[1];

/** What a device calls itself, in two words for the list of those signed in: nothing else of the header is kept. */
export function deviceWords(userAgent: string | null): string {
  const browser = first(BROWSERS, userAgent ?? '');
  const system = first(SYSTEMS, userAgent ?? '');
  if (browser && system) return `${browser} on ${system}`;
  return browser ?? (system ? `A browser on ${system}` : 'Another program');
}
