import { grouped } from '../units/grouped';
import { quantile } from '../units/quantile';
import { minutesFor } from './expected';
import { limitsOf, type PowerCurve } from './limits';
import { curveKnown, isLearnt, learntCurve, type PastSession } from './past-sessions';
import { projectionRatio, spreadOf } from './projection-error';
import { canJudge, settingOf } from './setting-of';
import type { CarOutlook, Outlooks, SiteOutlook } from './stay-or-go';

/** A first attempt at a site, as the ledger counts it. */
export type StartThere = { siteId: string; networkId: string | null; good: boolean; handshake_s: number | null; lost_s: number | null; day: string };

/** Own attempts weigh against so many of the network's. A choice. */
const WEIGHT = 8;
/** Where nobody knows better: a minute and a half, and a quarter of an hour for a start that failed. A choice, no source. */
const UNKNOWN = { startShare: 0.9, handshake_min: 1.5, loss_min: 15 };

type Tally = { n: number; good: number; handshakes: number[]; lost: number[]; last: string | null };
const nothing = (): Tally => ({ n: 0, good: 0, handshakes: [], lost: [], last: null });
const mean = (values: readonly number[]): number | null => (values.length === 0 ? null : values.reduce((s, v) => s + v, 0) / values.length);
const shrunk = (own: number | null, n: number, others: number): number => (own === null ? others : (own * n + others * WEIGHT) / (n + WEIGHT));

function tally(starts: readonly StartThere[], key: (s: StartThere) => string | null): Map<string, Tally> {
  const out = new Map<string, Tally>();
  for (const s of starts) {
    const k = key(s);
    if (k === null) continue;
    const t = out.get(k) ?? nothing();
    out.set(k, t);
    t.n += 1;
    if (s.good) t.good += 1;
    if (s.handshake_s !== null) t.handshakes.push(s.handshake_s);
    if (!s.good && s.lost_s !== null) t.lost.push(s.lost_s);
    if (t.last === null || s.day > t.last) t.last = s.day;
  }
  return out;
}

/** Minutes expected by all limits over those it took, by session; at most what is expected and a tenth. */
function paces(past: readonly PastSession[], curveOf: (p: PastSession) => PowerCurve): Map<PastSession, number> {
  const out = new Map<PastSession, number>();
  for (const p of past) {
    const { stands, looks } = p;
    const curve = curveOf(p);
    if (!stands || looks.from === null || looks.to === null || looks.took_min === null || looks.to - looks.from < 10 || looks.took_min <= 0) continue;
    const { setting, battery } = settingOf({ ...stands, curve, paired: false, deratedKW: null });
    if (!canJudge(setting)) continue;
    const minutes = minutesFor(limitsOf(setting), looks.from, looks.to, battery);
    if (minutes !== null) out.set(p, Math.min(1.1, minutes / looks.took_min));
  }
  return out;
}

/** What the ledger knows of each site and car, for advice without a network: small, since it travels to every phone. */
export function outlooksOf(starts: readonly StartThere[], past: readonly PastSession[], siteNetworks: ReadonlyMap<string, string>): Outlooks {
  const [bySite, byNetwork] = [tally(starts, (s) => s.siteId), tally(starts, (s) => s.networkId)];
  const cars: Record<string, CarOutlook> = {};
  const curves = new Map<string, PowerCurve>();
  for (const carId of new Set(past.flatMap((p) => p.carId ?? []))) {
    const own = past.filter((p) => p.carId === carId);
    const learnt = learntCurve(own, 'usual');
    const typed = own.find((p) => p.stands)?.stands?.car.curve ?? [];
    const curve = curveKnown(learnt, typed);
    curves.set(carId, curve);
    const spread = (kind: 'dc' | 'ac') => spreadOf(projectionRatios(own, curve, kind));
    cars[carId] = { curve: isLearnt(learnt) ? curve : [], sessions: learnt.sessionsUsed.length, spread: spread('dc'), acSpread: spread('ac') };
  }
  const paced = paces(past, (p) => (p.carId && curves.get(p.carId)) || p.stands?.car.curve || []);
  const paceBy = (key: (p: PastSession) => string | null) => {
    const by = grouped([...paced], ([p]) => key(p));
    return new Map([...by].map(([k, of]) => [k, of.map(([, pace]) => pace)]));
  };
  const [paceOfSite, paceOfNetwork] = [paceBy((p) => p.siteId), paceBy((p) => p.networkId)];
  const sites: Record<string, SiteOutlook> = {};
  for (const [siteId, networkId] of siteNetworks) {
    const [own, others] = [bySite.get(siteId) ?? nothing(), byNetwork.get(networkId) ?? nothing()];
    const median = (t: Tally) => (t.handshakes.length === 0 ? null : quantile(t.handshakes, 0.5) / 60);
    const lost = (t: Tally) => (mean(t.lost) === null ? null : (mean(t.lost) as number) / 60);
    const share = (t: Tally) => (t.n === 0 ? null : t.good / t.n);
    const base = {
      startShare: shrunk(share(others), others.n, UNKNOWN.startShare),
      handshake_min: shrunk(median(others), others.handshakes.length, UNKNOWN.handshake_min),
      loss_min: shrunk(lost(others), others.lost.length, UNKNOWN.loss_min),
    };
    const [ownPace, networkPace] = [paceOfSite.get(siteId) ?? [], paceOfNetwork.get(networkId) ?? []];
    sites[siteId] = {
      n: own.n,
      startShare: round(shrunk(share(own), own.n, base.startShare)),
      handshake_min: round(shrunk(median(own), own.handshakes.length, base.handshake_min)),
      loss_min: round(shrunk(lost(own), own.lost.length, base.loss_min)),
      pace: networkPace.length === 0 ? null : round(shrunk(mean(ownPace), ownPace.length, mean(networkPace) as number)),
      paced: ownPace.length,
      lastSeen: own.last,
    };
  }
  return { sites, cars };
}
const round = (x: number): number => Math.round(x * 1000) / 1000;

/** How projections of a car's sessions of one kind held, in the order in which they came: alternating current hardly changes, and would make the other look surer. */
export function projectionRatios(past: readonly PastSession[], curve: PowerCurve, kind: 'dc' | 'ac'): number[] {
  return [...past]
    .sort((a, b) => a.at - b.at)
    .flatMap((p) => {
      if (!p.stands) return [];
      const { setting, battery } = settingOf({ ...p.stands, curve, paired: false, deratedKW: null });
      if (setting.stall.kind !== kind || (kind === 'dc' && curve.length === 0)) return [];
      return (
        projectionRatio(
          limitsOf(setting),
          battery,
          p.looks.looks.map(([s, socPct, kW]) => ({ min: s / 60, socPct, kW })),
        ) ?? []
      );
    });
}
