import type { Attempt } from './attempts/attempt';

export type StartOrder = 'pay_first' | 'plug_first';
const PAY = /\b(start|pay|card|tap|app|tag|rfid|swipe|phone|code)\b/i;
const PLUG = /\b(plug|cable|connect)\w*/i;

/** The order that a note such as "start, then card" or "card, then plug" names; `null` when it names none. */
export function orderInWords(note: string | null): StartOrder | null {
  if (note === null) return null;
  const pay = note.search(PAY);
  const plug = note.search(PLUG);
  if (pay < 0 && plug < 0) return null;
  // "Start, then card" leaves the plug out: it is done when the stall asks for it, before the card.
  if (plug < 0) return /^\s*start\b/i.test(note) ? 'plug_first' : 'pay_first';
  return pay >= 0 && pay < plug ? 'pay_first' : 'plug_first';
}

/** The order in which an attempt got power; `null` when it did not or one of the acts is not recorded. */
export function orderOf(a: Pick<Attempt, 'plugged' | 'shows' | 'proof' | 'pluggedEarlier'>): StartOrder | null {
  const show = a.shows[0];
  if (!a.proof || !a.plugged || !show || a.pluggedEarlier) return null;
  return show.place < a.plugged.place ? 'pay_first' : 'plug_first';
}
