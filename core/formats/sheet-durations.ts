import type { Figure } from './sheet-figures';
import { figureOf, MOST_FIGURE } from './sheet-figures';

/** A duration as written: settled in minutes, by a colon alone (h:mm or m:ss), or a figure, whose decimal mark is open still and its unit too where none is written. */
export type Duration = { minutes: number } | { colon: readonly [number, number] } | { figure: Figure; unit: 'h' | 'min' | 's' | null };

/** What programs and people in Europe call them, whole and short. Common practice, no source. */
const UNITS = {
  h: 'hours|hour|hrs|hr|h|stunden|stunde|std|ure|uri|ura|ur|uren|uur|u|heures|heure|horas|hora|ore|ora|timer|timmar|timme|tim|godziny|godzin|godzina|godz|hodiny|hodin|hodina|hod|óra|sati|sata|sat|tuntia|tunti',
  min: 'minutes|minute|minuten|minuut|mins|min|m|minuti|minuto|minutos|minuter|minutter|minut|minuty|minuta|minuttia|minuutti|perc',
  s: 'seconds|second|secs|sec|s|sekunden|sekunde|sek|secondes|seconde|segundos|secondi|sekunder|sekund|sekundy|sekundi|sekuntia|másodperc|mp',
} as const;
const AND = '[,\\s]*(?:(?:and|und|et|y|e|og|och|in|i|en|és|ja)\\s+)?';
const PARTS = new RegExp(
  `^(?:(\\d+)\\s*(?:${UNITS.h})\\.?)?${AND}(?:(\\d+)\\s*(?:${UNITS.min})\\.?)?${AND}(?:([0-5]?\\d(?:[.,]\\d+)?)\\s*(?:${UNITS.s})\\.?)?$`,
  'iu',
);
const ONE = new RegExp(`^(.*?)\\s*(?:(${UNITS.h})|(${UNITS.min})|(${UNITS.s}))\\.?$`, 'iu');
const num = (text: string) => Number(text.replace(',', '.'));

/** Hours, minutes and seconds by their units, two of them at least; the lesser under sixty. */
function inParts(text: string): number | null {
  const [, h, min, s] = PARTS.exec(text) ?? [];
  if ([h, min, s].filter((x) => x !== undefined).length < 2 || (h !== undefined && Number(min ?? 0) > 59)) return null;
  return Number(h ?? 0) * 60 + Number(min ?? 0) + num(s ?? '0') / 60;
}

/** Reads a duration; `null` where it is none. */
export function durationOf(cell: string): Duration | null {
  if (cell.length > MOST_FIGURE) return null;
  const text = cell.normalize('NFKC').trim();
  const iso = /^P(?:(\d+)D)?T(?=\d)(?:(\d+)H)?(?:(\d+)M)?(?:(\d+(?:[.,]\d+)?)S)?$/i.exec(text);
  if (iso) return { minutes: Number(iso[1] ?? 0) * 1440 + Number(iso[2] ?? 0) * 60 + Number(iso[3] ?? 0) + num(iso[4] ?? '0') / 60 };
  // As programs write them, with their days before: "0 days 00:41:12.000", "1.00:41:12".
  const hms = /^(?:(\d+)(?:\.| days?,? ))?(\d+):([0-5]\d):([0-5]\d(?:[.,]\d+)?)$/i.exec(text);
  if (hms) return { minutes: Number(hms[1] ?? 0) * 1440 + Number(hms[2]) * 60 + Number(hms[3]) + num(hms[4] as string) / 60 };
  const hm = /^(\d+)\s*(?:hours|hour|hr|h|std|ur|u)\.?\s*([0-5]?\d)\.?$/i.exec(text);
  if (hm) return { minutes: Number(hm[1]) * 60 + Number(hm[2]) };
  const parts = inParts(text);
  if (parts !== null) return { minutes: parts };
  const colon = /^(\d+):(\d\d)(?:\s*(h|hr|std|ur|u|min))?$/i.exec(text);
  if (colon) {
    const [a, b] = [Number(colon[1]), Number(colon[2])];
    if (b > 59) return null;
    const unit = colon[3]?.toLowerCase();
    return unit === undefined ? { colon: [a, b] } : { minutes: unit === 'min' ? a + b / 60 : a * 60 + b };
  }
  const united = ONE.exec(text);
  if (united) {
    const figure = figureOf(united[1] ?? '', 'time');
    return figure && { figure, unit: united[2] ? 'h' : united[3] ? 'min' : 's' };
  }
  const figure = figureOf(text, 'time');
  return figure && { figure, unit: null };
}

export type DurationForm = 'h:mm' | 'm:ss' | 'min' | 'h' | 's';
/** Minutes of a duration whose form was settled. @param value of a bare figure */
export function inForm(d: Duration, form: DurationForm, value: number | null): number {
  if ('minutes' in d) return d.minutes;
  if ('colon' in d) return form === 'm:ss' ? d.colon[0] + d.colon[1] / 60 : d.colon[0] * 60 + d.colon[1];
  const n = value ?? 0;
  return form === 'h' ? n * 60 : form === 's' ? n / 60 : n;
}
