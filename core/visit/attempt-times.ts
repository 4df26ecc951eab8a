import { carIsMeans } from '../records/means-kind';
import type { Attempt, Show } from './attempts/attempt';
import { type Mark, noTiming, signedSpan, span, type Timing } from './timing';

/** Every time of one attempt that ends in the proof of power, and the two that do not. */
export type AttemptTimes = {
  handshake: Timing;
  authorisation: Timing;
  setUp: Timing;
  plugToPower: Timing;
  meansToPower: Timing;
  handsOn: Timing;
  /** Signed: positive when the plug came first. */
  plugCardGap: Timing;
  charging: Timing;
};
export type TimeName = keyof AttemptTimes;

/** What each time is, in words: shown beside the figure as its working. */
export const TIME_RULES: Record<TimeName, { label: string; rule: string }> = {
  handshake: {
    label: 'Handshake',
    rule: 'later of the last plugging in and the last showing of the means before it was accepted, to the first proof of power; where no means was noted at most plugging in to power',
  },
  authorisation: { label: 'Authorisation', rule: 'first showing of the means to its acceptance' },
  setUp: { label: 'Set-up', rule: 'later of plugging in and acceptance to the first proof of power' },
  plugToPower: { label: 'Plug to power', rule: 'last plugging in to the first proof of power' },
  meansToPower: { label: 'Means to power', rule: 'first showing of the means to the first proof of power' },
  handsOn: { label: 'Hands-on', rule: 'first act at the stall to the first proof of power' },
  plugCardGap: { label: 'Plug–card gap', rule: 'plugging in to the first showing of the means; negative when the card came first' },
  charging: {
    label: 'Charging',
    rule: 'first proof of power to power gone, else stop pressed, else the ending fault; pauses taken out, and a pause that never ended is the end',
  },
};

const laterOf = (a: Mark, b: Mark): Mark => (b.place >= a.place ? b : a);

/** The kind of means this attempt ran on: the accepted one, else the last shown. */
export const meansOf = (a: Attempt): Pick<Show, 'meansKind' | 'meansId'> | undefined => a.accepted ?? a.shows.at(-1) ?? a.refusals.at(-1);

/**
 * The driver's last required act before power, from which the handshake runs; or why it is not known.
 * Works while the attempt still waits, for the running clock.
 */
export function lastRequiredAct(a: Attempt): Mark | string {
  const before = a.accepted?.place ?? a.proof?.place ?? Number.POSITIVE_INFINITY;
  const shown = a.shows.filter((s) => s.place <= before).at(-1);
  const means = meansOf(a);
  const car = means !== undefined && carIsMeans(means.meansKind);
  if (a.pluggedEarlier && !a.plugged) {
    if (shown) return shown;
    return 'plugged in earlier, and no means was shown since';
  }
  if (!a.plugged) return 'plugging in was not recorded';
  if (car) return a.plugged;
  if (!shown) return means ? 'showing the means was not recorded' : 'the means was not recorded';
  return laterOf(a.plugged, shown);
}

/** Derives the times of one attempt. What cannot be had is unknown with its reason. */
export function attemptTimes(a: Attempt): AttemptTimes {
  const proof = a.proof;
  const toProof = (from: Mark | undefined, missing: string): Timing => {
    if (!proof) return noTiming('no power was seen');
    if (!from) return noTiming(missing);
    const d = span(from, proof);
    return d.known && proof.late ? { ...d, bound: 'at_most' } : d;
  };
  const act = lastRequiredAct(a);
  const firstShow = a.shows[0];
  const plug = a.plugged;
  const plugMissing = a.pluggedEarlier ? 'plugged earlier' : 'plugging in was not recorded';
  const first = [a.firstAct, a.adapterFitted, a.plugged, firstShow]
    .filter((m) => m !== undefined)
    .reduce<Mark | undefined>((x, m) => (x && x.place <= m.place ? x : m), undefined);
  const handshake = (): Timing => {
    if (typeof act !== 'string') return toProof(act, '');
    // The means was shown before power came, whenever that was: from the plug it is a bound.
    const most = plug && !firstShow ? toProof(plug, act) : noTiming(act);
    return proof && most.known ? { ...most, bound: 'at_most' } : noTiming(proof ? act : 'no power was seen');
  };
  return {
    handshake: handshake(),
    authorisation: !firstShow ? noTiming('no means was shown') : !a.accepted ? noTiming('acceptance was not recorded') : span(firstShow, a.accepted),
    setUp: toProof(a.accepted && plug ? laterOf(plug, a.accepted) : undefined, a.accepted ? plugMissing : 'acceptance was not recorded'),
    plugToPower: toProof(plug, plugMissing),
    meansToPower: toProof(firstShow, 'no means was shown'),
    handsOn: toProof(first, 'no act was recorded'),
    plugCardGap: plug && firstShow ? signedSpan(plug, firstShow) : noTiming(plug ? 'no means was shown' : plugMissing),
    charging: charging(a),
  };
}

/** Where the charging of a session ended, or `undefined` when that was not recorded. Where power had stopped before, it is there. */
export function chargingEnd(a: Attempt): Mark | undefined {
  if (!a.proof) return undefined;
  return a.paused ?? a.powerGone ?? a.stopAsked ?? (a.ended?.by === 'fault' || a.ended?.by === 'act_after_power' ? a.ended.at : undefined);
}

/** Seconds a running session has charged. @param now UTC ms */
export function chargingSoFar(a: Attempt, now: number): number {
  if (!a.proof) return 0;
  const paused = a.pauses.reduce((s, p) => s + (p.to.t - p.from.t), 0);
  return Math.max(0, ((a.paused?.t ?? now) - a.proof.t - paused) / 1000);
}

function charging(a: Attempt): Timing {
  if (!a.proof) return noTiming('no power was seen');
  const end = chargingEnd(a);
  if (!end) return noTiming(a.ended ? 'the end of the charge was not recorded' : 'still charging, or the end was not recorded');
  const whole = span(a.proof, end);
  if (!whole.known) return whole;
  let paused = 0;
  let pm_s = whole.pm_s;
  for (const p of a.pauses) {
    const d = span(p.from, p.to);
    if (!d.known) return d;
    paused += d.s;
    pm_s += d.pm_s;
  }
  const s = whole.s - paused;
  if (s < 0) return noTiming('the pauses are longer than the charge');
  const notBefore = a.powerGone?.notBefore;
  const low_s = notBefore === undefined ? undefined : Math.max(0, (notBefore - a.proof.t) / 1000 - paused);
  return { ...whole, s, pm_s, bound: a.proof.late ? 'at_least' : low_s === undefined ? 'exact' : 'at_most', ...(low_s === undefined ? {} : { low_s }) };
}
