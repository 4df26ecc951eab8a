import { SIDE_LETTERS, sideLabel } from '@/core/records/trial-schema';
import type { RoundRun } from '@/core/trials/trial-rounds';
import { roundNote, roundTime, trialDays, trialMethod, trialVerdict, trialWhen } from '@/core/trials/trial-words';
import { printDate, printTime } from '@/core/units/zoned';
import type { TrialFound } from '../trials/trial-visits';
import { PdfSheet, WIDTH } from './pdf-sheet';

const LANE = 13;
const LEFT = 52;
const ROOM_FOR_WORDS = 150;

/** A trial on paper: what it shows, each round one road, how it was done, every raw time. @param at when it is made */
export async function trialPdf({ trial, rounds, result, zone }: TrialFound, at: Date): Promise<Buffer> {
  const plan = trial.fields;
  const days = trialDays(rounds, zone);
  const sheet = new PdfSheet(plan.name, at);
  sheet.small(trialWhen(plan, days));
  sheet.text(`${plan.name}: who gives power sooner?`, { face: 'bold', size: 18 });
  sheet.text(trialVerdict(plan, result, days));
  lanes(sheet, rounds, plan.sides.length, (side) => sideLabel(plan, side));
  sheet.head('Method');
  sheet.table(
    [
      { head: '', of: 0.25 },
      { head: '', of: 0.75 },
    ],
    trialMethod(plan, result),
  );
  sheet.head('Every round');
  if (rounds.length === 0) sheet.small('No round was run yet.');
  else
    sheet.table(
      [
        { head: 'Round', of: 0.09, right: true },
        { head: 'Side', of: 0.27 },
        { head: 'Time', of: 0.2, right: true },
        { head: 'Observers', of: 0.12, right: true },
        { head: 'When', of: 0.18 },
        { head: '', of: 0.14 },
      ],
      rounds.map((r) => [
        String(r.round),
        sideLabel(plan, r.side),
        roundTime(r),
        String(r.observers),
        `${printDate(r.at, zone)} ${printTime(r.at, zone)}`,
        roundNote(r),
      ]),
    );
  return sheet.bytes();
}

/** Each round that counts one road, each side a lane as long as it waited, with what clocks and observers leave open. */
function lanes(sheet: PdfSheet, rounds: readonly RoundRun[], sides: number, labelOf: (side: string) => string): void {
  const shown = rounds.filter((r) => r.voided === null && !r.repeated && r.is !== 'open');
  if (shown.length === 0) return;
  sheet.head('Each round one road');
  const longest = Math.max(10, ...shown.map((r) => (r.s ?? 0) + r.pm_s));
  const x = (s: number) => LEFT + (Math.min(s, longest) / longest) * (WIDTH - LEFT - ROOM_FOR_WORDS);
  for (const n of [...new Set(shown.map((r) => r.round))].sort((a, b) => a - b))
    sheet.box(LANE * sides + 5, (doc, left, top, label) => {
      label(`Round ${n}`, left, top + (LANE * sides) / 2 - 5, { face: 'bold' });
      doc.rect(left + LEFT, top, WIDTH - LEFT, LANE * sides).fill('#23292C');
      for (const r of shown.filter((o) => o.round === n)) {
        const y = top + LANE * SIDE_LETTERS.indexOf(r.side as (typeof SIDE_LETTERS)[number]) + 3;
        const end = left + x(r.s ?? longest);
        doc.rect(left + LEFT, y, Math.max(1, end - left - LEFT), LANE - 6).fill('#8FC4FF');
        if (r.s !== null) {
          doc.rect(end - 2, y, 4, LANE - 6).fill('#F6BC0A');
          doc
            .moveTo(left + x(Math.max(0, r.s - r.pm_s)), y + (LANE - 6) / 2)
            .lineTo(left + x(r.s + r.pm_s), y + (LANE - 6) / 2)
            .lineWidth(1.4)
            .strokeColor('#ffffff')
            .stroke();
        }
        label(`${labelOf(r.side)}, ${r.s === null ? 'never' : roundTime(r)}`, end + 7, y - 1.5, { size: 7.5, color: '#ffffff' });
      }
    });
  sheet.small('White whisker: what clocks and observers leave open.');
}
