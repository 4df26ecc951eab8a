import { phoneNow } from '@/client/touch/touch-time';
import { carIsMeans, meansAgain, meansLabel, meansPad } from '@/core/records/means-kind';
import { printTime } from '@/core/units/zoned';
import { isPlugged, type NextAct } from '@/core/visit/next-act';
import type { Live, LiveFacts } from './live-facts';
import { lastReading } from './live-words';
import type { Open } from './open-sheet';
import type { Draft, StallHands } from './stall-state';
import type { Pricing } from './use-pricing';

export type PadAct = { text: string; hint: string; press: (timeStamp: number) => void };
type Ways = { act: (timeStamp: number, ...drafts: Draft[]) => void; open: (open: Open) => void; hands: StallHands; pricing: Pricing | null };

/** What the driver shows as means, as an event says it. */
export const paidBy = (means: LiveFacts['means']) => ({ meansKind: means.meansKind, ...(means.meansId ? { meansId: means.meansId } : {}) });

/** Minutes before the next full ten from which the pad speaks of it. */
const NEAR_MS = 90_000;
function readingHint(f: LiveFacts, zone: string): string {
  const { ten } = f;
  const now = phoneNow();
  if (ten && now >= ten.at - NEAR_MS) return now > ten.at + NEAR_MS ? `past ${ten.pct} % by now: read it` : `${ten.pct} % about now: read it`;
  const last = lastReading(f.attempt, now);
  return ten ? `${last}; ${ten.pct} % about ${printTime(ten.at, zone)}` : last;
}

/** The yellow pad: the likeliest next thing, and what pressing it does. */
export function yellowPad(state: Live, f: LiveFacts, { act, open, hands, pricing }: Ways): PadAct {
  // Asked only where the pad says it.
  const expected = f.next === 'bill' ? pricing?.bill({ attempts: [] })?.text : undefined;
  const order = f.noted ? `here: ${f.noted}` : f.stall ? `stall ${f.stall.fields.name}` : '';
  const pads: Record<NextAct, PadAct> = {
    pulled_in: { text: 'Pulled in', hint: '', press: () => {} },
    call_help: { text: 'Call for help', hint: `${f.emergency}, then the operator; do not unplug`, press: (t) => open({ sheet: 'danger', at: t }) },
    choose_stall: { text: 'Choose the stall', hint: 'which bay do you stand in', press: (t) => open({ sheet: 'stall', at: t }) },
    adapter_fitted: {
      text: 'Adapter fitted',
      hint: `${f.adapter?.fields.name ?? ''}: firmly home, before you plug in or pay`,
      press: (t) => act(t, { kind: 'adapter_fitted', payload: f.adapter ? { adapterId: f.adapter.id } : {} }),
    },
    plugged: {
      text: 'Plugged in',
      hint: carIsMeans(f.means.meansKind) ? [order, meansLabel(f.means.meansKind)].filter(Boolean).join('; ') : order,
      // Where the car itself is the means, plugging in is showing it.
      press: (t) =>
        act(t, { kind: 'plugged', payload: {} }, ...(carIsMeans(f.means.meansKind) ? [{ kind: 'means_shown' as const, payload: paidBy(f.means) }] : [])),
    },
    means_shown: {
      text: meansPad(f.means.meansKind),
      hint: [f.means.label ?? 'change it under More', f.noted && !carIsMeans(f.means.meansKind) ? order : null].filter(Boolean).join('; '),
      press: (t) => act(t, { kind: 'means_shown', payload: paidBy(f.means) }),
    },
    power_seen: {
      text: 'I see power',
      hint: 'kW or kWh above zero on either screen: tap now',
      press: (t) => act(t, { kind: 'power_seen', payload: { screen: 'stall', mark: 'kW' } }),
    },
    reading: { text: 'Add a reading', hint: readingHint(f, state.visit.zone), press: (t) => open({ sheet: 'reading', at: t }) },
    unplugged: { text: 'Unplugged', hint: 'once stall and car both say it has ended', press: (t) => act(t, { kind: 'unplugged', payload: {} }) },
    pulled_out: { text: 'Pulled out', hint: 'enough charged', press: (t) => act(t, { kind: 'pulled_out', payload: { reason: 'enough' } }) },
    bill: {
      text: 'Bill',
      hint: expected ? `by tariff about ${expected}` : 'what was charged',
      press: (t) => open({ sheet: 'bill', at: t }),
    },
    done: { text: 'Done', hint: 'the visit is in the ledger', press: () => void hands.leaveVisit() },
  };
  return pads[f.next];
}

/** The pad beside Fault: what is the other likely thing. */
export function secondPad(state: Live, f: LiveFacts, { act, open, hands }: Ways): PadAct {
  const { attempt, next } = f;
  const { visit } = state;
  if (visit.pulledOutAt !== null) return { text: 'No bill yet', hint: 'leave it for later', press: () => void hands.leaveVisit() };
  const running = attempt && !attempt.ended ? attempt : null;
  const plugged = isPlugged(visit);
  if (running?.powerGone && !running.stopAsked)
    return { text: 'Power again', hint: 'it flows anew', press: (t) => act(t, { kind: 'power_seen', payload: { screen: 'stall', mark: 'kW' } }) };
  if (running?.stopAsked) return { text: 'Power gone', hint: 'the screen says ended', press: (t) => act(t, { kind: 'power_gone', payload: { why: 'asked' } }) };
  // How it was stopped is not noted unless somebody says so.
  if (f.charging) return { text: 'I pressed stop', hint: 'button, card, app or car', press: (t) => act(t, { kind: 'stop_asked', payload: {} }) };
  if (next === 'pulled_out') return { text: 'Left otherwise', hint: 'choose why', press: (t) => open({ sheet: 'leave', at: t }) };
  const isCar = carIsMeans(f.means.meansKind);
  const show = (t: number) => act(t, { kind: 'means_shown', payload: paidBy(f.means) });
  if (next === 'unplugged' || (next === 'power_seen' && running?.claimed))
    return { text: isCar ? 'Start again' : meansAgain(f.means.meansKind), hint: f.means.label ?? 'as before', press: show };
  if (next === 'means_shown' && !plugged) return { text: 'Plugged in', hint: 'after all first', press: (t) => act(t, { kind: 'plugged', payload: {} }) };
  if (next === 'means_shown' && !running) return { text: 'Unplugged', hint: 'to plug in anew', press: (t) => act(t, { kind: 'unplugged', payload: {} }) };
  if (!plugged)
    return isCar
      ? { text: 'Other means', hint: 'card, app, call', press: (t) => open({ sheet: 'means', at: t }) }
      : { text: meansPad(f.means.meansKind), hint: f.means.label ?? 'before the plug', press: show };
  return { text: 'Says charging', hint: 'shows no power yet', press: (t) => act(t, { kind: 'claimed', payload: { by: 'screen' } }) };
}
