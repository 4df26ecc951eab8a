// What is read of drawn receipts: straight, turned by three degrees, and under a lamp. Prints counts; asserts nothing. Run by bin/bench.
import { readFileSync } from 'node:fs';
import sharp from 'sharp';
import { readReceipt } from '@/core/formats/receipt-text';
import { readText } from '../photos/read-text';

type Case = { id: string; text: string; expected: { proposal: Record<string, string | number | null> } };
const { cases, sites, now } = JSON.parse(readFileSync('core/formats/fixtures/receipts.json', 'utf8')) as { cases: Case[]; sites: string[]; now: string };
const KINDS = ['straight', 'turned by 3°', 'under a lamp'] as const;
const WIDTH = 1000;
const escaped = (text: string) => text.replaceAll('&', '&amp;').replaceAll('<', '&lt;');

/** A receipt on a table, drawn. */
async function drawn(text: string, kind: (typeof KINDS)[number]): Promise<Buffer> {
  const lines = text.trimEnd().split('\n');
  const height = 140 + lines.length * 56;
  const words = lines
    .map((l, i) => `<text x="70" y="${110 + i * 56}" font-family="monospace" font-size="32" xml:space="preserve">${escaped(l)}</text>`)
    .join('');
  const paper = `<g${kind === 'turned by 3°' ? ` transform="rotate(3 ${WIDTH / 2} ${height / 2})"` : ''}><rect x="40" y="40" width="${WIDTH - 80}" height="${height - 80}" fill="#fdfcf8"/>${words}</g>`;
  const lamp =
    kind === 'under a lamp'
      ? '<radialGradient id="l" cx=".7" cy=".35" r=".35"><stop offset="0" stop-color="#fff" stop-opacity=".75"/><stop offset="1" stop-color="#fff" stop-opacity="0"/></radialGradient><rect width="100%" height="100%" fill="url(#l)"/>'
      : '';
  const svg = `<svg xmlns="http://www.w3.org/2000/svg" width="${WIDTH}" height="${height}"><rect width="100%" height="100%" fill="#6b5b4a"/>${paper}${lamp}</svg>`;
  return sharp(Buffer.from(svg)).jpeg({ quality: 80 }).toBuffer();
}

for (const kind of KINDS) {
  const count = { right: 0, empty: 0, wrong: 0, of: 0 };
  for (const c of cases) {
    const read = await readText(await drawn(c.text, kind));
    const { proposal } = readReceipt(read.ok ? read.text : '', sites, Date.parse(now));
    for (const [field, expected] of Object.entries(c.expected.proposal)) {
      const got = proposal[field as keyof typeof proposal];
      const same = got === expected || (got !== null && expected !== null && Number(got) === Number(expected));
      count.of += 1;
      count[same ? 'right' : got === null ? 'empty' : 'wrong'] += 1;
    }
  }
  console.log(
    `${`figures of ten drawn receipts, ${kind}`.padEnd(64)} ${count.right} of ${count.of} as they are, ${count.empty} not told, ${count.wrong} wrong`,
  );
}
