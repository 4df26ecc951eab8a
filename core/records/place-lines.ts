import type { RecordFields } from './record-schema';

type Site = RecordFields<'site'>;

/** What to know on arrival, a line each; what is not noted is left out. @param networkHelpline used when the post has none */
export function arrivalLines(s: Site, networkHelpline: string | null): string[] {
  const lines = [
    [s.entrance, s.direction].filter(Boolean).join('; ') || null,
    s.openingHours && `Open ${s.openingHours}`,
    s.barrier && `Barrier: ${s.barrier}`,
    s.heightLimit_m !== null && `Height limit ${s.heightLimit_m} m`,
    s.orderThatWorks && `Order that works: ${s.orderThatWorks}`,
    s.maxStay_min !== null && `Stay at most ${s.maxStay_min} min`,
    s.overstay && `Overstay: ${s.overstay}`,
    s.idle && `Idle: ${s.idle}`,
    s.helpline ? `Helpline on the post: ${s.helpline}` : networkHelpline ? `Helpline of the network: ${networkHelpline}` : null,
  ];
  return lines.filter((l): l is string => typeof l === 'string' && l !== '');
}

const yesNo = (v: boolean | null): string | null => (v === null ? null : v ? 'yes' : 'no');
/** What is around, label and words; what is not noted is left out. */
export function aroundLines(s: Site): [string, string][] {
  const rows: [string, string | null][] = [
    ['Shelter', s.shelter],
    ['Light', s.light],
    ['Safe at night', s.safeAtNight],
    ['Toilets', s.toilets],
    ['Food', s.food],
    ['Shop', s.shop],
    ['Bins', yesNo(s.bins)],
    ['Squeegee', yesNo(s.squeegee)],
  ];
  return rows.filter((r): r is [string, string] => r[1] !== null);
}

/** What to know of one bay, in the order in which it is needed. */
export function bayLines(f: RecordFields<'stall'>): string[] {
  const lines = [
    f.otherName && `“${f.otherName}” in the app`,
    f.model,
    ...f.outlets.flatMap((o) => (o.appKW !== null && o.appKW !== o.ratedKW ? [`${o.connector}: plate ${o.ratedKW} kW, app ${o.appKW} kW`] : [])),
    ...f.outlets.flatMap((o) => (o.cable === 'own cable' ? [`${o.connector}: bring your own cable`] : [])),
    f.builtInAdapter && `Built-in adapter to ${f.builtInAdapter}`,
    f.portsReached && `Cable reaches ports at ${f.portsReached.join(', ')}`,
    f.cableReach_m !== null && `Cable reach ${f.cableReach_m} m`,
    f.pullThrough && 'Pull-through bay',
    f.trailer && 'Room for a trailer',
    f.stepFree && 'Step-free',
    f.screenHeight_cm !== null && `Screen at ${f.screenHeight_cm} cm`,
    f.maxStay_min !== null && `Stay at most ${f.maxStay_min} min`,
    f.orderThatWorks && `Order that works: ${f.orderThatWorks}`,
    f.note,
  ];
  return lines.filter((l): l is string => typeof l === 'string' && l !== '');
}
