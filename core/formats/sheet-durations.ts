import type { Figure } from './sheet-figures';
import { figureOf } from './sheet-figures';

/** A duration as written: settled in minutes, by a colon alone (h:mm or m:ss), or a figure, whose decimal mark is open still and its unit too where none is written. */
export type Duration = { minutes: number } | { colon: readonly [number, number] } | { figure: Figure; unit: 'h' | 'min' | 's' | null };

const num = (text: string) => Number(text.replace(',', '.'));
/** Reads a duration; `null` where it is none. */
export function durationOf(cell: string): Duration | null {
  const text = cell.normalize('NFKC').trim();
  const iso = /^PT(?=\d)(?:(\d+)H)?(?:(\d+)M)?(?:(\d+(?:[.,]\d+)?)S)?$/i.exec(text);
  if (iso) return { minutes: Number(iso[1] ?? 0) * 60 + Number(iso[2] ?? 0) + num(iso[3] ?? '0') / 60 };
  const hms = /^(\d+):([0-5]\d):([0-5]\d)$/.exec(text);
  if (hms) return { minutes: Number(hms[1]) * 60 + Number(hms[2]) + Number(hms[3]) / 60 };
  const hm = /^(\d+)\s*(?:hours|hour|hr|h|std|ur|u)\.?\s*([0-5]?\d)\s*(?:min|m)?\.?$/i.exec(text);
  if (hm) return { minutes: Number(hm[1]) * 60 + Number(hm[2]) };
  const ms = /^(\d+)\s*min\.?\s*([0-5]?\d)\s*(?:s|sec)\.?$/i.exec(text);
  if (ms) return { minutes: Number(ms[1]) + Number(ms[2]) / 60 };
  const colon = /^(\d+):(\d\d)(?:\s*(h|hr|std|ur|u|min))?$/i.exec(text);
  if (colon) {
    const [a, b] = [Number(colon[1]), Number(colon[2])];
    if (b > 59) return null;
    const unit = colon[3]?.toLowerCase();
    return unit === undefined ? { colon: [a, b] } : { minutes: unit === 'min' ? a + b / 60 : a * 60 + b };
  }
  const united = /^(.*?)\s*(hours|hour|hr|h|std|ur|u|minutes|minuten|minute|mins|min|sec|s)\.?$/i.exec(text);
  if (united) {
    const figure = figureOf(united[1] ?? '', 'time');
    const unit = (united[2] ?? '').toLowerCase();
    return figure && { figure, unit: /^(h|hr|hour|hours|std|ur|u)$/.test(unit) ? 'h' : unit.startsWith('m') ? 'min' : 's' };
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
