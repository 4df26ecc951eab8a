import PDFDocument from 'pdfkit';
import { type Face, fontRuns } from './fonts';

describe('letters on paper', () => {
  it.each([
    ['Lipa Barn 4', ['latin Lipa Barn 4']],
    ['Žleb', ['latin-ext Ž', 'latin leb']],
    ['Братислава 2', ['cyrillic Братислава', 'latin  2']],
    ['Ѓорче, Қарағанды', ['cyrillic Ѓорче', 'latin , ', 'cyrillic-ext Қ', 'cyrillic ара', 'cyrillic-ext ғ', 'cyrillic анды']],
    ['Đà Lạt', ['latin-ext Đ', 'latin à L', 'vietnamese ạ', 'latin t']],
    // Written in two, it is one letter.
    ['Z\u030cleb', ['latin-ext Ž', 'latin leb']],
    ['Αθήνα 3, Ἀθῆναι', ['greek Αθήνα', 'latin  3, ', 'greek-ext Ἀ', 'greek θ', 'greek-ext ῆ', 'greek ναι']],
    ['漢字', ['latin ??']],
    // The baht has no letter in either family.
    ['฿646.00', ['latin THB 646.00']],
  ])('%s is written in the fonts that have its letters', (text, want) => {
    const written = fontRuns(new PDFDocument());
    for (const face of ['words', 'bold', 'figures'] as const satisfies readonly Face[])
      expect(written(text, face).map((r) => `${r.font} ${r.text}`)).toEqual(want.map((w) => `${face} ${w}`));
  });
});
