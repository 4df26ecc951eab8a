import type { ExtraPricing, OcpiTariff } from '../records/ocpi-tariff';
import { printMoney, printPerKWh } from '../units/money';
import type { KeptTariff } from './tariff-on';

/** What comes on top of a price per kWh, in one line each: what a driver needs to know before plugging in. */
export function feeWords(extra: ExtraPricing, money: (amount: number) => string): string[] {
  const { idle_fee: idle, overstay_fee: over, power_time: power, allowance, minimum_charge: least, tax_percent } = extra;
  return [
    idle ? `idle ${money(Math.max(...idle.rates.map((r) => r.price_per_min)))} a minute from ${idle.grace_minutes} min after charging` : '',
    over ? `overstay ${money(over.fee)} after ${over.after_minutes} min` : '',
    power ? `${power.tiers.map((s) => `${money(s.price_per_min)} a minute from ${s.min_power} kW`).join(', ')}` : '',
    allowance?.free_minutes_per_session ? `first ${allowance.free_minutes_per_session} min free` : '',
    allowance?.free_kwh_per_month ? `${allowance.free_kwh_per_month} kWh a month free` : '',
    least ? `at least ${money(least.incl_vat ?? least.excl_vat)}` : '',
    tax_percent ? `tax ${tax_percent} % on top` : '',
  ].filter(Boolean);
}

/** The first price of a minute, tax in: charging, or parked and connected; nothing where none is asked. */
function perMinute(t: OcpiTariff | null, extra: ExtraPricing | null, type: 'TIME' | 'PARKING_TIME'): number | null {
  const first = (t?.elements ?? []).flatMap((e) => e.price_components).find((c) => c.type === type && c.price > 0);
  return first ? (first.price / 60) * (1 + (first.vat ?? 0) / 100) * (1 + (extra?.tax_percent ?? 0) / 100) : null;
}

/** A price in one line: per kWh and minute, start, and what comes beside. */
export function priceWords(t: Omit<KeptTariff, 'id'>): string {
  const money = (amount: number) => printMoney(String(amount), t.currency);
  const rate = (amount: number) => printPerKWh(String(amount), t.currency);
  const [charging, parked] = (['TIME', 'PARKING_TIME'] as const).map((type) => perMinute(t.tariff ?? null, t.extra ?? null, type));
  const byTime = (t.tariff?.elements ?? []).some((e) => e.restrictions?.start_time !== undefined || e.restrictions?.day_of_week !== undefined);
  const words = [
    t.perKWh === null ? '' : `${printPerKWh(t.perKWh, t.currency)} per kWh`,
    charging ? `${rate(charging)} a minute` : '',
    byTime ? 'by time of day' : '',
    Number(t.startFee) > 0 ? `${printMoney(t.startFee, t.currency)} per start` : '',
    parked ? `${rate(parked)} a minute parked` : '',
    ...(t.extra ? feeWords(t.extra, money) : []),
  ].filter(Boolean);
  return words.join(', ') || 'no price of energy';
}
