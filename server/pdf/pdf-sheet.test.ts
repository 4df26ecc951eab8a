import sharp from 'sharp';
import { PdfSheet } from './pdf-sheet';

/** How many pages a document says it has (ISO 32000: the count of its page tree). */
const pagesOf = (bytes: Buffer): number =>
  Number(/\/Type \/Pages\s*\/Count (\d+)/.exec(bytes.toString('latin1'))?.[1] ?? /\/Count (\d+)/.exec(bytes.toString('latin1'))?.[1]);

describe('a document on paper', () => {
  it('goes on over pages, breaks words that are too long, and writes what its letters have', async () => {
    const sheet = new PdfSheet('Žleb', new Date(0));
    sheet.text('x'.repeat(400));
    sheet.text('Račun št. 7, 漢字 →');
    sheet.head('A table');
    sheet.table(
      [
        { head: 'A', of: 0.5 },
        { head: 'B', of: 0.5, right: true },
      ],
      Array.from({ length: 120 }, (_, i) => [`row ${i} `.repeat((i % 9) + 1), `${i}.50`]),
    );
    sheet.facts([{ label: 'Attempts', value: '3', foot: 'a long word '.repeat(40) }]);
    const bytes = await sheet.bytes();
    expect(bytes.subarray(0, 5).toString()).toBe('%PDF-');
    expect(pagesOf(bytes)).toBeGreaterThan(3);
  });
  it('is the same for the same, and an empty one is a page', async () => {
    const made = async () => new PdfSheet('Nothing', new Date(0)).bytes();
    const [a, b] = [await made(), await made()];
    expect(pagesOf(a)).toBe(1);
    expect(a.length).toBe(b.length);
  });
  it('a picture that cannot be drawn costs its own page and no other', async () => {
    const sheet = new PdfSheet('Receipts', new Date(0));
    sheet.picture(Buffer.from('no picture'), 'one');
    sheet.picture(
      await sharp({ create: { width: 30, height: 60, channels: 3, background: '#246' } })
        .jpeg()
        .toBuffer(),
      'two',
    );
    expect(pagesOf(await sheet.bytes())).toBe(3);
  });
});
