import { scaleLinear } from 'd3-scale';
import { evenStep, MINUTE_STEPS } from '@/core/units/even-step';
import { powerProfile } from '@/core/visit/power-profile';
import type { Segment } from '@/core/visit/tape';
import { type PdfSheet, WIDTH } from './pdf-sheet';

const HEIGHT = 78;
const ASPHALT = '#23292C';
const COLOR = { handshake: '#8FC4FF', fault: '#FF6A4D', energy: '#F6BC0A', idle: '#B99AE6' } as const;

/** Rows of words above the tape, and what of its width a letter takes. */
const WORD_ROWS = 3;
const ROW = 8.5;
const LETTER = 3.5;

/** The words that find room above the tape, each in the first row where none is in its way; what finds none is in the record. */
export function placedWords(marks: readonly { x: number; text: string }[]): { x: number; at: number; row: number; text: string }[] {
  const ends = Array<number>(WORD_ROWS).fill(Number.NEGATIVE_INFINITY);
  return [...marks]
    .sort((a, b) => a.x - b.x)
    .flatMap(({ x, text }) => {
      const width = text.length * LETTER;
      const at = Math.max(0, Math.min(x, WIDTH - width));
      const row = ends.findIndex((end) => end + 4 <= at);
      if (row < 0) return [];
      ends[row] = at + width;
      return [{ x, at, row, text }];
    });
}

/** The tape of a visit, as on its page: time to the right, the height of the yellow is kW; what hinders is hatched, so that it is told apart without colour. */
export function drawTape(sheet: PdfSheet, tape: readonly Segment[], marks: readonly { t: number; text: string }[]): void {
  const from = tape[0]?.from ?? 0;
  const to = Math.max(tape.at(-1)?.to ?? 1, from + 1);
  const x = scaleLinear([from, to], [0, WIDTH]);
  const top = Math.ceil(Math.max(50, ...tape.flatMap((s) => (s.kW ?? []).map((p) => p.kW))) / 50) * 50;
  const words = placedWords(marks.map((m) => ({ x: x(Math.min(to, Math.max(from, m.t))), text: m.text })));
  const above = words.length > 0 ? (1 + Math.max(...words.map((w) => w.row))) * ROW + 3 : 0;
  sheet.box(above + HEIGHT + 16, (doc, left, upper, label) => {
    const y = upper + above;
    const foot = (row: number) => y - 2 - row * ROW;
    for (const w of words)
      doc
        .moveTo(left + w.x, y)
        .lineTo(left + w.x, foot(w.row))
        .lineWidth(0.5)
        .strokeColor('#54625B')
        .stroke();
    // Words lie over the lines of those above them.
    for (const w of words) {
      doc.rect(left + w.at, foot(w.row) - ROW + 1, w.text.length * LETTER, ROW - 1).fill('#ffffff');
      label(w.text, left + w.at, foot(w.row) - ROW + 1, { size: 7 });
    }
    const up = (kW: number) => y + HEIGHT - (Math.min(kW, top) / top) * (HEIGHT - 6);
    doc.rect(left, y, WIDTH, HEIGHT).fill(ASPHALT);
    for (const s of tape) {
      const [a, width] = [left + x(s.from), Math.max(0.6, x(s.to) - x(s.from))];
      if (s.kind === 'bare' || s.kind === 'queue') continue;
      if (s.kind === 'energy') {
        const profile = powerProfile(s);
        if (profile.length === 0) doc.rect(a, y + HEIGHT / 2, width, HEIGHT / 2).fill(COLOR.energy);
        else {
          doc.moveTo(a, y + HEIGHT);
          for (const p of profile) doc.lineTo(left + x(p.t), up(p.kW));
          doc
            .lineTo(a + width, y + HEIGHT)
            .closePath()
            .fill(COLOR.energy);
        }
        continue;
      }
      doc.save();
      doc.rect(a, y, width, HEIGHT).clip();
      doc.rect(a, y, width, HEIGHT).fill(s.kind === 'handshake' ? COLOR.handshake : s.kind === 'fault' ? '#3A1A14' : ASPHALT);
      const lean = s.kind === 'fault' ? 1 : -1;
      if (s.kind !== 'handshake')
        for (let k = -HEIGHT; k < width + HEIGHT; k += s.kind === 'fault' ? 8 : 6)
          doc
            .moveTo(a + k, y + HEIGHT)
            .lineTo(a + k + lean * 30, y)
            .lineWidth(s.kind === 'fault' ? 3.5 : 1.6)
            .strokeColor(COLOR[s.kind])
            .stroke();
      doc.restore();
    }
    for (let kW = 50; kW < top; kW += top > 150 ? evenStep(top, 10, [100]) : 50)
      label(`${kW} kW`, left + WIDTH - 30, up(kW) - 4, { size: 6.5, color: '#ffffff' });
    const minutes = (to - from) / 60_000;
    const tick = evenStep(minutes, 8, MINUTE_STEPS);
    for (let m = 0; m <= minutes && x(from + m * 60_000) < WIDTH - 16; m += tick)
      label(`${m} min`, left + x(from + m * 60_000), y + HEIGHT + 3, { size: 7, color: '#54625B' });
  });
}
