import { end, pause } from '../attempts/walk';
import { choice, optionsOf } from '../correctable-field';
import type { Payload } from '../payloads';
import { markOf } from '../timing';
import type { KindFile } from './kind';

export const GONE_LABELS: Readonly<Record<NonNullable<Payload<'power_gone'>['why']>, string>> = {
  asked: 'I asked it to',
  car_target: 'The car’s target',
  site_cap: 'A limit of the site',
  time_limit: 'A time limit',
  hold_used_up: 'The hold was used up',
  load_management: 'Load management',
  fault: 'A fault',
  power_cut: 'A power cut',
  emergency: 'Emergency stop',
  unplugged_by_other: 'Unplugged by somebody',
  unknown: 'Not known',
};

export const powerGone: KindFile<'power_gone'> = {
  label: 'Power gone',
  detail: ({ why }) => [why ? GONE_LABELS[why] : null],
  fields: [choice('why', 'Why', optionsOf(GONE_LABELS))],
  seenByMany: true,
  attempt: (w, e) => {
    const a = w.current;
    if (!a || (e.onlySeen && a.powerGone)) return;
    const at = markOf(e);
    const { why, notBefore } = e.payload;
    const asked = a.stopAsked !== undefined || why === 'asked';
    a.powerGone = { ...at, asked, ...(notBefore === undefined ? {} : { notBefore }), ...(why ? { why } : {}) };
    if (!asked) pause(a, at);
    else if (!e.onlySeen) end(w, at, 'power_gone');
  },
};
