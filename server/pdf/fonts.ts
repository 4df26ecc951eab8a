import { readFileSync } from 'node:fs';
import path from 'node:path';
import { currencySymbol } from '@/core/units/money';

/** The faces of the application, as its packages ship them. */
export type Face = 'words' | 'bold' | 'figures';
const FILES: Readonly<Record<Face, readonly [family: string, weight: number]>> = {
  words: ['overpass', 400],
  bold: ['overpass', 700],
  figures: ['overpass-mono', 400],
};
/** Letters come in files of their own: those of Western Europe first, since most texts need no other. */
const OWN_SETS = ['latin', 'latin-ext', 'cyrillic', 'cyrillic-ext', 'vietnamese'] as const;
/** Letters that our faces lack, from a family that has them: better in another hand than lost. */
const OTHER_SETS = ['greek', 'greek-ext'] as const;
const OTHER_FAMILY = 'noto-sans';
const SETS = [...OWN_SETS, ...OTHER_SETS] as const;

type Covering = { hasGlyphForCodePoint(code: number): boolean };
type WithFonts = { registerFont(name: string, src: Buffer): unknown; font(name: string): unknown };

const nameOf = (face: Face, set: (typeof SETS)[number]): string => `${face} ${set}`;

let codes: ReadonlyMap<string, string> | null = null;
/** What is written for a letter that no font has: a currency's code for its sign, else a question mark. */
function insteadOf(letter: string): string {
  codes ??= new Map(Intl.supportedValuesOf('currency').map((code) => [currencySymbol(code), `${code} `]));
  return codes.get(letter) ?? '?';
}

/** Gives a document the faces. @returns in which font each stretch of a text is written */
export function fontRuns(doc: PDFKit.PDFDocument): (text: string, face: Face) => { font: string; text: string }[] {
  const covers = new Map<string, Covering>();
  /** A file is read when the first letter comes that those before it do not have. */
  const covering = (face: Face, set: (typeof SETS)[number]): Covering => {
    const name = nameOf(face, set);
    const there = covers.get(name);
    if (there) return there;
    const [own, weight] = FILES[face];
    const family = (OTHER_SETS as readonly string[]).includes(set) ? OTHER_FAMILY : own;
    (doc as WithFonts).registerFont(
      name,
      readFileSync(path.join(process.cwd(), 'node_modules', '@fontsource', family, 'files', `${family}-${set}-${weight}-normal.woff`)),
    );
    doc.font(name);
    const { font } = (doc as unknown as { _font: { font: Covering } })._font;
    covers.set(name, font);
    return font;
  };
  for (const face of Object.keys(FILES) as Face[]) covering(face, 'latin');
  return (text, face) => {
    const out: { font: string; text: string }[] = [];
    for (const letter of text.normalize('NFC')) {
      const code = letter.codePointAt(0) as number;
      const set = SETS.find((s) => covering(face, s).hasGlyphForCodePoint(code));
      const font = nameOf(face, set ?? 'latin');
      const last = out.at(-1);
      const own = set ? letter : insteadOf(letter);
      if (last?.font === font) last.text += own;
      else out.push({ font, text: own });
    }
    return out;
  };
}
