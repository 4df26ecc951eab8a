import { type Connector, fitsInto } from '../records/connector';
import type { MileRecord } from '../records/record-schema';
import { printSeen } from '../units/zoned';
import type { Danger, Dangers } from '../visit/dangers';
import { meansHere } from './means-here';
import { type Limit, mostKW } from './most-kw';

type Rec<T extends MileRecord['type']> = Pick<MileRecord<T>, 'id' | 'fields' | 'archived'>;
export type Garage = { car: Rec<'car'>; adapters: readonly Rec<'adapter'>[]; means: readonly Rec<'means'>[]; enrolments: readonly Rec<'enrolment'>[] };
export type SiteStalls = { site: Rec<'site'>; stalls: readonly Rec<'stall'>[] /** Reported there and not cleared. */; dangers: Dangers };
/** Outcomes of the last attempts at each stall, newest first. */
export type Lately = Readonly<Record<string, readonly { outcome: 'power' | 'failed' | 'gave_up' | 'open'; on: string }[]>>;

export type ReasonCode =
  | 'danger'
  | 'hot'
  | 'connector'
  | 'volts'
  | 'amps'
  | 'adapter'
  | 'means'
  | 'derated'
  | 'closed'
  | 'not_yet_open'
  | 'failed_twice'
  | 'not_known';
export type Reason = { code: ReasonCode; text: string };
/** The plug that would be used, and the adapter in between. */
export type Way = { connector: Connector; adapterId: string | null; builtIn: boolean };
export type StallAnswer = {
  stallId: string;
  /** `doubtful`: it can be used, but something speaks against it. */
  use: 'yes' | 'doubtful' | 'no';
  /** At most so many kW, alone on its cabinet; `null` when it cannot be used. */
  kW: number | null;
  by: Limit | null;
  way: Way | null;
  /** The household's means that work there. */
  means: string[];
  /** Why not, or why doubtful; for a usable stall what to know. */
  reasons: Reason[];
  /** Day on which its state was last seen, `null` when never. */
  asSeen: string | null;
};

type Tried = { way: Way; kW: number; by: Limit; problem: null; notes: Reason[] } | { way: Way; problem: Reason };

/**
 * Which stalls of a site this car can use with these adapters and means, at which most kW, and why not the others.
 * An estimate from what was noted; the car's manual and the signs on the stall go before it.
 * @param today local calendar day at the site, `2025-10-15`
 */
export function compatibleStalls(garage: Garage, at: SiteStalls, lately: Lately, today: string): StallAnswer[] {
  return at.stalls.filter((s) => !s.archived).map((stall) => answer(garage, at.site, stall, lately[stall.id] ?? [], at.dangers[stall.id] ?? [], today));
}

function answer(garage: Garage, site: Rec<'site'>, stall: Rec<'stall'>, outcomes: Lately[string], dangers: readonly Danger[], today: string): StallAnswer {
  const f = stall.fields;
  const state = f.state;
  const asSeen = state?.seenOn ?? null;
  const reported = reportedReasons(dangers);
  const none = (reasons: Reason[], way: Way | null = null): StallAnswer => ({
    stallId: stall.id,
    use: 'no',
    kW: null,
    by: null,
    way,
    means: [],
    // What can hurt is said first, whether the stall can be used or not.
    reasons: [...reported, ...reasons],
    asSeen,
  });
  if (state?.is === 'closed') return none([{ code: 'closed', text: 'closed' }]);
  if (state?.is === 'not yet open') return none([{ code: 'not_yet_open', text: 'not yet open' }]);

  const tried = f.outlets.flatMap((outlet) => waysInto(garage, stall, outlet));
  const can = tried.filter((t) => t.problem === null).sort((a, b) => b.kW - a.kW || Number(a.way.adapterId !== null) - Number(b.way.adapterId !== null))[0];
  if (!can) {
    const problems = tried.flatMap((t) => (t.problem ? [t.problem] : []));
    const own = [...new Set(f.outlets.map((o) => o.connector))].join(', ');
    return none(
      problems.length > 0
        ? distinct(problems)
        : [{ code: 'connector', text: `${own} does not fit ${garage.car.fields.name}, and no adapter held goes between` }],
    );
  }
  const pay = meansHere(
    f.meansAccepted ?? site.fields.meansAccepted,
    garage.means,
    { networkId: site.fields.networkId, carId: garage.car.id, today },
    garage.enrolments,
  );
  if (pay.problem) return none([{ code: 'means', text: pay.problem }], can.way);

  const against: Reason[] = [...reported];
  if (state?.is === 'derated') against.push({ code: 'derated', text: `derated to ${state.kW} kW` });
  if (outcomes.length >= 2 && outcomes.slice(0, 2).every((o) => o.outcome === 'failed' || o.outcome === 'gave_up'))
    against.push({ code: 'failed_twice', text: 'the last two attempts failed' });
  const notes = [...can.notes];
  if (pay.unknown) notes.push({ code: 'not_known', text: 'what it takes for paying is not noted' });
  return {
    stallId: stall.id,
    use: against.length > 0 ? 'doubtful' : 'yes',
    kW: can.kW,
    by: can.by,
    way: can.way,
    means: pay.usable,
    reasons: [...against, ...notes],
    asSeen: latest(asSeen, against.some((r) => r.code === 'failed_twice') ? (outcomes[0]?.on ?? null) : null),
  };
}

/** What was reported at a stall, in words: the newest report of each kind, the graver first. */
export function reportedReasons(dangers: readonly Danger[]): Reason[] {
  const danger = dangers.find((d) => d.is === 'danger');
  const hot = dangers.find((d) => d.is === 'hot');
  const out: Reason[] = [];
  if (danger) out.push({ code: 'danger', text: `danger reported on ${printSeen(danger.on)}` });
  if (hot) out.push({ code: 'hot', text: `hot cable reported on ${printSeen(hot.on)}` });
  return out;
}

/** Every way from one outlet into the car: the plug itself, the stall's built-in adapter, one adapter held. Never two in a row. */
function waysInto(garage: Garage, stall: Rec<'stall'>, outlet: Rec<'stall'>['fields']['outlets'][number]): Tried[] {
  const f = stall.fields;
  const car = garage.car.fields;
  const fits = fitsInto(car.connectors);
  const around = { deratedKW: f.state?.is === 'derated' ? f.state.kW : null, cabinetKW: f.sharing === 'own' ? null : f.cabinetKW };
  const attempt = (way: Way, adapter: Rec<'adapter'> | null): Tried => {
    if (adapter?.fields.approved === false) return { way, problem: { code: 'adapter', text: `${adapter.fields.name} is not approved by the car’s maker` } };
    const most = mostKW(car, outlet, { ...around, adapter: adapter ? { maxA: adapter.fields.maxA, maxV: adapter.fields.maxV } : null });
    if (!most.can) return { way, problem: { code: most.why, text: most.text } };
    const notes: Reason[] = [];
    if (adapter?.fields.approved === null) notes.push({ code: 'adapter', text: `whether the car’s maker approves ${adapter.fields.name} is not noted` });
    return { way, kW: most.kW, by: most.by, problem: null, notes };
  };
  const direct = fits.has(outlet.connector) ? [attempt({ connector: outlet.connector, adapterId: null, builtIn: false }, null)] : [];
  if (direct.length > 0) return direct;
  if (f.builtInAdapter !== null && fits.has(f.builtInAdapter)) return [attempt({ connector: outlet.connector, adapterId: null, builtIn: true }, null)];
  const held = garage.adapters.filter((a) => !a.archived && fits.has(a.fields.to));
  if (f.builtInAdapter !== null && held.some((a) => a.fields.from === f.builtInAdapter))
    return [
      {
        way: { connector: outlet.connector, adapterId: null, builtIn: true },
        problem: { code: 'adapter', text: `the stall has an adapter to ${f.builtInAdapter} already: never two in a row` },
      },
    ];
  return held.filter((a) => a.fields.from === outlet.connector).map((a) => attempt({ connector: outlet.connector, adapterId: a.id, builtIn: false }, a));
}

const distinct = (reasons: Reason[]) => reasons.filter((r, i) => reasons.findIndex((o) => o.text === r.text) === i);
const latest = (a: string | null, b: string | null) => (a === null || (b !== null && b > a) ? b : a);

/** Those usable without doubt at the greatest kW of the site; none where the stalls do not differ. */
export function bestStalls(answers: readonly StallAnswer[]): string[] {
  const good = answers.filter((a) => a.use === 'yes' && a.kW !== null);
  const most = Math.max(...good.map((a) => a.kW as number));
  const best = good.filter((a) => a.kW === most);
  return best.length === answers.length ? [] : best.map((a) => a.stallId);
}

/** What the best may be called: without any start at these stalls only their plates speak. */
export const bestWords = (answers: readonly StallAnswer[], lately: Lately): string =>
  answers.some((a) => (lately[a.stallId] ?? []).length > 0) ? 'likely best' : 'most kW by the plates';
