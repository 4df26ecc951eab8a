import { type Fault, faultLabel, faultOf, type Side } from '../faults/fault-list';
import type { MeansKind } from '../records/means-kind';
import type { Placed } from './order';
import { type Mark, markOf } from './timing';

export type EndMark = 'A' | 'kW' | 'kWh';
export type Proof = Mark & { mark: EndMark; late: boolean };
export type Reading = {
  mark: Mark;
  screen: 'stall' | 'car';
  socPct?: number;
  kW?: number;
  kWh?: string;
  cost?: string;
  currency?: string;
  V?: number;
  A?: number;
};
export type AttemptFault = { mark: Mark; code: string; side: Side; ends: boolean };
export type Show = Mark & { meansKind: MeansKind; meansId?: string };
export type Refusal = Mark & { meansKind: MeansKind; meansId?: string; fault?: string };

export type Outcome =
  | { kind: 'power'; at: Mark }
  | { kind: 'failed'; at: Mark; reason: string; side: Side | null; code?: string }
  | { kind: 'gave_up'; at: Mark; reason: string; side: Side | null; code?: string }
  | { kind: 'open'; at: Mark; reason: string };

export type EndedBy = 'fault' | 'unplugged' | 'power_gone' | 'moved' | 'replug' | 'other_means' | 'act_after_power' | 'pulled_out';

/** One try to start charging. Numbers are derived, never stored. */
export type Attempt = {
  n: number;
  stallId: string | null;
  connectorId?: string;
  adapterId?: string;
  /** First act, or the fault itself for a stall found dead before any act. */
  opened: Mark;
  firstAct?: Mark;
  adapterFitted?: Mark;
  /** The last plugging in of this attempt. */
  plugged?: Mark;
  /** The plug was left in from an attempt before: plug to power is unknown. */
  pluggedEarlier: boolean;
  shows: Show[];
  accepted?: Show;
  refusals: Refusal[];
  claimed?: Mark;
  proof?: Proof;
  /** Power stopped and came back without an act of the driver. */
  pauses: { from: Mark; to: Mark }[];
  stopAsked?: Mark;
  powerGone?: Mark & { asked: boolean; notBefore?: number; why?: string };
  unplugged?: Mark;
  faults: AttemptFault[];
  readings: Reading[];
  ended?: { at: Mark; by: EndedBy };
  outcome: Outcome;
};

/** Numbers above zero on a screen are proof of power. Volts alone are not. */
function readingProof(e: Placed & { kind: 'reading' }): EndMark | null {
  if ((e.payload.kW ?? 0) > 0) return 'kW';
  if ((e.payload.A ?? 0) > 0) return 'A';
  if (Number(e.payload.kWh ?? 0) > 0) return 'kWh';
  return null;
}

const refusalSide = (code: string | undefined): Side => (code ? (faultOf(code)?.side ?? 'payment') : 'payment');

/** What an attempt with refusals failed of. */
function refusalOutcome(a: Attempt): { at: Mark; reason: string; side: Side; code?: string } | null {
  const last = a.refusals[a.refusals.length - 1];
  if (!last) return null;
  return { at: last, reason: last.fault ? faultLabel(last.fault) : 'Refused', side: refusalSide(last.fault), ...(last.fault ? { code: last.fault } : {}) };
}

type Draft = Omit<Attempt, 'n' | 'outcome'>;
const START_ACTS = new Set<string>(['first_act', 'adapter_fitted', 'plugged', 'means_shown']);

type State = {
  stallId: string | null;
  connectorId?: string;
  current: Draft | null;
  /** Last attempt opened since the stall was chosen: what comes after its end belongs to it. */
  here: Draft | null;
  plug: Mark | null;
  /** Power is gone unasked and may yet come back. */
  paused: Mark | null;
};

/**
 * Walks the ordered events of one visit and cuts them into attempts.
 * The rules of opening, ending, replugging, other means, pauses and dead stalls are those of docs/definitions.md.
 * @param line placed events in order, one visit
 */
export function cutAttempts(line: readonly Placed[]): Attempt[] {
  const attempts: Draft[] = [];
  const s: State = { stallId: null, current: null, here: null, plug: null, paused: null };

  const open = (at: Mark, fields: Partial<Draft> = {}): Draft => {
    const a: Draft = {
      stallId: s.stallId,
      ...(s.connectorId ? { connectorId: s.connectorId } : {}),
      opened: at,
      pluggedEarlier: false,
      shows: [],
      refusals: [],
      pauses: [],
      faults: [],
      readings: [],
      ...fields,
    };
    attempts.push(a);
    s.current = a;
    s.here = a;
    return a;
  };
  const close = (a: Draft, at: Mark, by: EndedBy) => {
    a.ended = { at, by };
    s.current = null;
    s.paused = null;
  };
  /** The open attempt an act belongs to, opening one when there is none. */
  const forAct = (e: Placed): Draft => {
    const at = markOf(e);
    if (s.current && s.paused && START_ACTS.has(e.kind)) close(s.current, s.paused, 'act_after_power');
    if (s.current) return s.current;
    return open(at, s.plug && e.kind !== 'plugged' ? { pluggedEarlier: true } : {});
  };
  const prove = (a: Draft, e: Placed, mark: EndMark, late: boolean) => {
    if (!a.proof) a.proof = { ...markOf(e), mark, late };
    else if (s.paused) a.pauses.push({ from: s.paused, to: markOf(e) });
    if (s.paused) delete a.powerGone;
    s.paused = null;
  };

  for (const e of line) {
    const at = markOf(e);
    switch (e.kind) {
      case 'stall_chosen':
        if (e.payload.stallId !== s.stallId) {
          if (s.current) close(s.current, s.paused ?? at, s.paused ? 'power_gone' : 'moved');
          s.plug = null;
          s.here = null;
          delete s.connectorId;
        }
        s.stallId = e.payload.stallId;
        if (e.payload.connectorId) s.connectorId = e.payload.connectorId;
        break;
      case 'first_act': {
        const a = forAct(e);
        a.firstAct ??= at;
        break;
      }
      case 'adapter_fitted': {
        const a = forAct(e);
        a.adapterFitted ??= at;
        if (e.payload.adapterId) a.adapterId = e.payload.adapterId;
        break;
      }
      case 'plugged': {
        // A wet double touch on one phone: the first is kept.
        const again = s.plug;
        if (again && again.deviceId === at.deviceId && at.t - again.t <= 2000) break;
        if (s.plug && s.current) close(s.current, s.paused ?? at, s.paused ? 'act_after_power' : 'replug');
        const a = s.current ?? open(at);
        a.plugged = at;
        if (e.payload.connectorId) a.connectorId = e.payload.connectorId;
        s.plug = at;
        break;
      }
      case 'means_shown': {
        if (s.current) {
          const last = s.current.refusals.at(-1);
          const other = last && (last.meansKind !== e.payload.meansKind || last.meansId !== e.payload.meansId);
          const shownSince = last && s.current.shows.some((s) => s.place > last.place);
          if (last && other && !shownSince && !s.current.proof) close(s.current, last, 'other_means');
        }
        forAct(e).shows.push({ ...at, meansKind: e.payload.meansKind, ...(e.payload.meansId ? { meansId: e.payload.meansId } : {}) });
        break;
      }
      case 'means_accepted':
        if (s.current) s.current.accepted ??= { ...at, meansKind: e.payload.meansKind, ...(e.payload.meansId ? { meansId: e.payload.meansId } : {}) };
        break;
      case 'means_refused': {
        const a = s.current ?? s.here;
        a?.refusals.push({
          ...at,
          meansKind: e.payload.meansKind,
          ...(e.payload.meansId ? { meansId: e.payload.meansId } : {}),
          ...(e.payload.fault ? { fault: e.payload.fault } : {}),
        });
        break;
      }
      case 'claimed':
        forAct(e).claimed ??= at;
        break;
      case 'power_seen':
        prove(forAct(e), e, e.payload.mark, e.payload.late === true);
        break;
      case 'reading': {
        const a = s.current ?? attempts[attempts.length - 1];
        if (!a) break;
        const { screen, socPct, kW, kWh, cost, currency, meterStart, meterEnd, V, A } = e.payload;
        const metered = meterStart !== undefined && meterEnd !== undefined ? String(Number(meterEnd) - Number(meterStart)) : undefined;
        a.readings.push({
          mark: at,
          screen,
          ...(socPct === undefined ? {} : { socPct }),
          ...(kW === undefined ? {} : { kW }),
          ...(kWh !== undefined ? { kWh } : metered !== undefined ? { kWh: metered } : {}),
          ...(cost === undefined ? {} : { cost }),
          ...(currency === undefined ? {} : { currency }),
          ...(V === undefined ? {} : { V }),
          ...(A === undefined ? {} : { A }),
        });
        const mark = readingProof(e);
        // A figure read again after power went is the screen's memory unless power itself is on it.
        if (mark && a === s.current && (!s.paused || mark !== 'kWh')) prove(a, e, mark, false);
        break;
      }
      case 'change':
        if (s.current?.proof) {
          if (e.payload.what === 'paused') s.paused ??= at;
          else if (e.payload.what === 'resumed' && s.paused) {
            s.current.pauses.push({ from: s.paused, to: at });
            s.paused = null;
          }
        }
        break;
      case 'fault': {
        const known: Fault | undefined = faultOf(e.payload.code);
        const f: AttemptFault = { mark: at, code: e.payload.code, side: e.payload.side, ends: known?.ends ?? false };
        if (known?.refusal) {
          const a = s.current ?? s.here;
          const shown = a?.shows.at(-1);
          if (a && shown) a.refusals.push({ ...at, meansKind: shown.meansKind, ...(shown.meansId ? { meansId: shown.meansId } : {}), fault: f.code });
          else a?.faults.push(f);
        } else if (s.current) {
          s.current.faults.push(f);
          if (f.ends) close(s.current, s.paused ?? at, 'fault');
        } else if (s.here) s.here.faults.push(f);
        else if (f.ends && s.stallId) {
          const dead = open(at, { faults: [f] });
          close(dead, at, 'fault');
        }
        break;
      }
      case 'stop_asked':
        if (s.current) s.current.stopAsked ??= at;
        break;
      case 'power_gone': {
        const a = s.current;
        if (!a) break;
        const asked = a.stopAsked !== undefined || e.payload.why === 'asked';
        a.powerGone = {
          ...at,
          asked,
          ...(e.payload.notBefore === undefined ? {} : { notBefore: e.payload.notBefore }),
          ...(e.payload.why ? { why: e.payload.why } : {}),
        };
        if (asked) close(a, at, 'power_gone');
        else s.paused = at;
        break;
      }
      case 'unplugged':
        s.plug = null;
        if (s.current) {
          s.current.unplugged = at;
          close(s.current, s.paused ?? at, s.paused ? 'power_gone' : 'unplugged');
        } else if (s.here) s.here.unplugged ??= at;
        break;
      case 'pulled_out':
        s.plug = null;
        if (s.current) close(s.current, s.paused ?? at, s.paused ? 'power_gone' : 'pulled_out');
        break;
      default:
        break;
    }
  }
  const pulledOut = line.find((e): e is Placed & { kind: 'pulled_out' } => e.kind === 'pulled_out');
  return attempts.map((a, i) => ({ ...a, n: i + 1, outcome: outcomeOf(a, i === attempts.length - 1, pulledOut) }));
}

const LEFT_BECAUSE: Record<string, string> = {
  gave_up: 'gave up',
  queue: 'left for the queue',
  price: 'left for the price',
  unsafe: 'left as unsafe',
  closed: 'closed',
};

function outcomeOf(a: Draft, isLast: boolean, pulledOut: (Placed & { kind: 'pulled_out' }) | undefined): Outcome {
  if (a.proof) return { kind: 'power', at: a.proof };
  const refused = refusalOutcome(a as Attempt);
  const end = a.ended;
  if (!end) return { kind: 'open', at: a.opened, reason: 'still running, or the end was not recorded' };
  switch (end.by) {
    case 'fault': {
      const f = [...a.faults].reverse().find((x) => x.ends);
      return { kind: 'failed', at: end.at, reason: f ? faultLabel(f.code) : 'Fault', side: f?.side ?? null, ...(f ? { code: f.code } : {}) };
    }
    case 'other_means':
      return { kind: 'failed', ...(refused ?? { at: end.at, reason: 'Refused', side: 'payment' as const }) };
    case 'moved':
      return { kind: 'failed', ...(refused ?? { at: end.at, reason: 'Moved to another stall', side: null }) };
    case 'replug':
      return { kind: 'failed', ...(refused ?? { at: end.at, reason: 'Plugged in anew', side: null }) };
    case 'power_gone':
    case 'act_after_power':
      return { kind: 'open', at: end.at, reason: 'power went without having been seen' };
    case 'unplugged':
    case 'pulled_out': {
      if (refused && !(isLast && pulledOut)) return { kind: 'failed', ...refused };
      if (!isLast || !pulledOut) return { kind: 'failed', at: end.at, reason: 'Unplugged without power', side: null };
      const why = LEFT_BECAUSE[pulledOut.payload.reason];
      if (why)
        return {
          kind: 'gave_up',
          at: end.at,
          reason: refused ? `${why}: ${refused.reason}` : why,
          side: refused?.side ?? null,
          ...(refused?.code ? { code: refused.code } : {}),
        };
      return refused
        ? { kind: 'failed', ...refused }
        : { kind: 'open', at: end.at, reason: pulledOut.payload.reason === 'called_away' ? 'called away' : 'power was not recorded' };
    }
  }
}
