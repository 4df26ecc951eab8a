import PDFDocument from 'pdfkit';
import { finish, type Steps } from '@/core/units/steps';
import { type Face, fontRuns } from './fonts';

/** A4 in points, and what is left free around. */
const PAPER = { width: 595.28, height: 841.89, side: 46, top: 46, bottom: 54 };
const INK = '#15201C';
const INK_2 = '#54625B';
const RULE = '#C9D0C9';
/** Lines of a paragraph that are not parted by the end of a page. */
const KEPT_TOGETHER = 4;
export const WIDTH = PAPER.width - 2 * PAPER.side;

export type Column = { head: string /** Share of the width. */; of: number; right?: boolean };
type Style = { face?: Face; size?: number; color?: string };
type Drawing = PDFKit.PDFDocument;

/** A document of ink on white: heads, sentences, tables that go on over pages, and a foot with the page's number on each. Text can be selected and searched. */
export class PdfSheet {
  readonly doc: Drawing;
  private readonly runs: ReturnType<typeof fontRuns>;
  private y = PAPER.top;

  /** @param at when it is made */
  constructor(
    private readonly title: string,
    at: Date,
  ) {
    this.doc = new PDFDocument({
      size: 'A4',
      margin: 0,
      bufferPages: true,
      autoFirstPage: true,
      info: { Title: title, Creator: 'Mile Ledger', CreationDate: at, ModDate: at },
      lang: 'en',
    });
    this.runs = fontRuns(this.doc);
  }

  /** Leaves so much free, or begins a page where it does not fit any more. */
  room(height: number): void {
    if (this.y + height <= PAPER.height - PAPER.bottom) return;
    this.doc.addPage();
    this.y = PAPER.top;
  }
  gap(height: number): void {
    this.y += height;
  }

  private widthOf(text: string, face: Face, size: number): number {
    return this.runs(text, face).reduce((w, r) => w + this.doc.font(r.font).fontSize(size).widthOfString(r.text), 0);
  }
  /** Lines of a text that fit into a width; a word that is too long is broken. */
  private lines(text: string, face: Face, size: number, width: number): string[] {
    const out: string[] = [];
    for (const paragraph of text.split('\n')) {
      let line = '';
      for (const word of paragraph.split(' ')) {
        const longer = line === '' ? word : `${line} ${word}`;
        if (this.widthOf(longer, face, size) <= width) {
          line = longer;
          continue;
        }
        if (line !== '') out.push(line);
        line = '';
        for (const letter of word) {
          if (line !== '' && this.widthOf(line + letter, face, size) > width) {
            out.push(line);
            line = '';
          }
          line += letter;
        }
      }
      out.push(line);
    }
    return out;
  }
  private write(text: string, x: number, y: number, face: Face, size: number, color: string): void {
    let at = x;
    for (const r of this.runs(text, face)) {
      this.doc.font(r.font).fontSize(size).fillColor(color).text(r.text, at, y, { lineBreak: false });
      at += this.doc.widthOfString(r.text);
    }
  }

  text(text: string, { face = 'words', size = 10, color = INK }: Style = {}): void {
    const height = size * 1.4;
    const lines = this.lines(text, face, size, WIDTH);
    // A few lines stand together.
    if (lines.length <= KEPT_TOGETHER) this.room(lines.length * height);
    for (const line of lines) {
      this.room(height);
      this.write(line, PAPER.side, this.y, face, size, color);
      this.y += height;
    }
  }
  small(text: string): void {
    this.text(text, { size: 8.5, color: INK_2 });
  }
  /** A heading that does not stand alone at a page's foot. */
  head(text: string, size = 13): void {
    this.room(size * 2 + 64);
    this.gap(size * 0.7);
    this.text(text, { face: 'bold', size });
  }
  rule(color = INK, weight = 1.2): void {
    this.doc
      .moveTo(PAPER.side, this.y)
      .lineTo(PAPER.side + WIDTH, this.y)
      .lineWidth(weight)
      .strokeColor(color)
      .stroke();
    this.y += 3;
  }
  /** Draws into a box of so much height, from its upper left corner. */
  box(height: number, draw: (doc: Drawing, x: number, y: number, label: (text: string, x: number, y: number, style?: Style) => void) => void): void {
    this.room(height);
    draw(this.doc, PAPER.side, this.y, (text, x, y, { face = 'words', size = 8, color = INK } = {}) => this.write(text, x, y, face, size, color));
    this.y += height;
  }

  /** A table; its heads stand on every page that it reaches. A column in which nothing stands is left out, and its width is the others'. */
  table(columns: readonly Column[], rows: readonly (readonly string[])[], size = 8.5): void {
    finish(this.longTable(columns, rows, size));
  }
  /** The same in steps, for a year of bills. */
  *longTable(all: readonly Column[], rows: readonly (readonly string[])[], size = 8.5): Steps<void> {
    const filled = all.map((_, i) => rows.some((row) => (row[i] ?? '') !== ''));
    const columns = all.filter((_, i) => filled[i]);
    const whole = columns.reduce((sum, c) => sum + c.of, 0);
    const widths = columns.map((c) => (c.of / whole) * WIDTH);
    const lefts = widths.map((_, i) => PAPER.side + widths.slice(0, i).reduce((a, b) => a + b, 0));
    const line = size * 1.35;
    const headed = columns.some((c) => c.head !== '');
    const heads = () => {
      if (!headed) return this.rule();
      this.row(
        columns.map((c) => c.head),
        columns,
        widths,
        lefts,
        line,
        { face: 'bold', size, color: INK_2 },
      );
      this.rule();
    };
    this.room(line * 4);
    heads();
    for (const row of rows) {
      const cells = row.filter((_, i) => filled[i]).map((cell, i) => this.lines(cell, faceOf(columns[i]), size, (widths[i] ?? 0) - 6));
      const height = Math.max(1, ...cells.map((c) => c.length)) * line + 4;
      if (this.y + height > PAPER.height - PAPER.bottom) {
        this.room(PAPER.height);
        heads();
      }
      const top = this.y;
      for (const [i, cell] of cells.entries())
        for (const [k, text] of cell.entries())
          this.cell(text, columns[i], widths[i] ?? 0, lefts[i] ?? 0, top + k * line, { face: faceOf(columns[i]), size, color: INK });
      this.y = top + height - 2;
      this.rule(RULE, 0.5);
      yield;
    }
  }
  private row(
    cells: readonly string[],
    columns: readonly Column[],
    widths: readonly number[],
    lefts: readonly number[],
    line: number,
    style: Required<Style>,
  ): void {
    for (const [i, text] of cells.entries()) this.cell(text, columns[i], widths[i] ?? 0, lefts[i] ?? 0, this.y, style);
    this.y += line + 1;
  }
  private cell(text: string, column: Column | undefined, width: number, left: number, y: number, { face, size, color }: Required<Style>): void {
    const x = column?.right ? left + width - 6 - this.widthOf(text, face, size) : left;
    this.write(text, x, y, face, size, color);
  }

  /** Names and their figures, three beside each other. */
  facts(facts: readonly { label: string; value: string; foot: string }[]): void {
    const width = WIDTH / 3;
    for (let i = 0; i < facts.length; i += 3) {
      this.room(52);
      for (const [k, f] of facts.slice(i, i + 3).entries()) {
        const x = PAPER.side + k * width;
        this.write(f.label, x, this.y + 4, 'words', 8.5, INK_2);
        this.write(f.value, x, this.y + 15, 'figures', 14, INK);
        for (const [n, text] of this.lines(f.foot, 'words', 7.5, width - 8)
          .slice(0, 2)
          .entries())
          this.write(text, x, this.y + 33 + n * 9, 'words', 7.5, INK_2);
      }
      this.y += 52;
      this.rule(RULE, 0.5);
    }
  }

  /** A picture on a page of its own, with what it is. */
  picture(bytes: Buffer, words: string): void {
    this.doc.addPage();
    this.y = PAPER.top;
    this.text(words, { face: 'bold', size: 11 });
    this.gap(6);
    try {
      this.doc.image(bytes, PAPER.side, this.y, { fit: [WIDTH, PAPER.height - PAPER.bottom - this.y] });
    } catch {
      // One picture that cannot be drawn costs its own page and no other.
      this.small('This picture cannot be drawn here.');
    }
    this.y = PAPER.height - PAPER.bottom;
  }

  /** Closes the document. @returns its bytes */
  async bytes(): Promise<Buffer> {
    const { start, count } = this.doc.bufferedPageRange();
    for (let i = 0; i < count; i++) {
      this.doc.switchToPage(start + i);
      const foot = `${this.title}, page ${i + 1} of ${count}`;
      this.write(foot, PAPER.side + WIDTH - this.widthOf(foot, 'words', 8), PAPER.height - 36, 'words', 8, INK_2);
      this.write('Mile Ledger', PAPER.side, PAPER.height - 36, 'words', 8, INK_2);
    }
    const parts: Buffer[] = [];
    const done = new Promise<Buffer>((resolve, reject) => {
      this.doc.on('data', (part: Buffer) => parts.push(part));
      this.doc.on('end', () => resolve(Buffer.concat(parts)));
      this.doc.on('error', reject);
    });
    this.doc.end();
    return done;
  }
}

/** Figures align on the right, by digits of one width. */
const faceOf = (column: Column | undefined): Face => (column?.right ? 'figures' : 'words');
