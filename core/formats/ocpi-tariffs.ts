import Big from 'big.js';
import { addAll } from '../units/add-all';
import { finish, type Steps } from '../units/steps';
import {
  breach,
  checkObject,
  comesIn,
  type Findings,
  isObject,
  member,
  numberOf,
  objectIn,
  objectsIn,
  ocpiInstant,
  partyId,
  textOf,
  unitsOf,
} from './ocpi-check';
import { type Json, JsonNumber, type JsonObject } from './strict-json';

export type ComponentIn = {
  element: number;
  type: string;
  price: string;
  vat: string | null;
  stepSize: number;
  restrictions: Record<string, string | string[]>;
};
export type WhyNotSimple = 'several_elements' | 'restrictions' | 'several_components' | 'time_priced' | 'step' | 'min_max';
export type TariffIn = {
  pointer: string;
  id: string;
  currency: string;
  /** UTC ms. */
  from: number | null;
  until: number | null;
  /** What a post's one line says, tax in; `null` where that would not be all. */
  simple: { perKWh: string; startFee: string } | null;
  whyNotSimple: WhyNotSimple | null;
  components: ComponentIn[];
};
export type TariffsIn = Findings & { tariffs: TariffIn[] };

/** Tariffs of OCPI 2.2.1. One that breaks the standard is refused; an unknown restriction too, since passed over it would misprice. */
export const tariffsIn = (document: Json): TariffsIn => finish(readingTariffs(document));

/** The same in steps. */
export function* readingTariffs(document: Json): Steps<TariffsIn> {
  const all: TariffsIn = { breaches: [], kept: [], tariffs: [] };
  const seen = new Set<string>();
  for (const { pointer, value } of unitsOf(document)) {
    yield;
    const own: Findings = { breaches: [], kept: [] };
    checkObject(value, 'Tariff', pointer, own);
    if (isObject(value)) checkTariffOrder(value, pointer, own);
    const taken = isObject(value) && comesIn(seen, value, pointer, own);
    addAll(all.breaches, own.breaches);
    if (!taken) continue;
    addAll(all.kept, own.kept);
    all.tariffs.push(tariffIn(value, pointer));
  }
  return all;
}

/** A tariff ends after it begins. */
export function checkTariffOrder(o: JsonObject, pointer: string, into: Findings): void {
  const [from, to] = [ocpiInstant(textOf(o, 'start_date_time') ?? ''), ocpiInstant(textOf(o, 'end_date_time') ?? '')];
  if (from !== null && to !== null && to <= from) breach(into, `${pointer}/end_date_time`, 'order');
}

const asText = (v: Json): string | string[] => (Array.isArray(v) ? v.map((x) => String(asText(x))) : v instanceof JsonNumber ? v.text : String(v));

function tariffIn(o: JsonObject, pointer: string): TariffIn {
  const elements = objectsIn(o, 'elements');
  const components = elements.flatMap((e, element) => {
    const restrictions = objectIn(e, 'restrictions');
    const said = Object.fromEntries([...(restrictions ?? [])].flatMap(([k, v]) => (v === null ? [] : [[k, asText(v)]])));
    return objectsIn(e, 'price_components').map(
      (c): ComponentIn => ({
        element,
        type: textOf(c, 'type') ?? '',
        price: numberOf(c, 'price')?.text ?? '0',
        vat: numberOf(c, 'vat')?.text ?? null,
        stepSize: numberOf(c, 'step_size')?.value ?? 0,
        restrictions: said,
      }),
    );
  });
  const whyNotSimple = whyNot(o, elements.length, components);
  return {
    pointer,
    id: partyId(o),
    currency: textOf(o, 'currency') ?? '',
    from: ocpiInstant(textOf(o, 'start_date_time') ?? ''),
    until: ocpiInstant(textOf(o, 'end_date_time') ?? ''),
    simple: whyNotSimple ? null : { perKWh: taxed(components, 'ENERGY'), startFee: taxed(components, 'FLAT') },
    whyNotSimple,
    components,
  };
}

function whyNot(o: JsonObject, elements: number, components: readonly ComponentIn[]): WhyNotSimple | null {
  if (elements > 1) return 'several_elements';
  if (components.some((c) => Object.keys(c.restrictions).length > 0)) return 'restrictions';
  if (new Set(components.map((c) => c.type)).size < components.length) return 'several_components';
  if (components.some((c) => (c.type === 'TIME' || c.type === 'PARKING_TIME') && Number(c.price) > 0)) return 'time_priced';
  if (components.some((c) => c.type === 'ENERGY' && c.stepSize > 1)) return 'step';
  return member(o, 'min_price') !== undefined || member(o, 'max_price') !== undefined ? 'min_max' : null;
}

/** A component's price with its tax, half up to six decimals; one that is absent costs nothing. */
function taxed(components: readonly ComponentIn[], type: string): string {
  const c = components.find((x) => x.type === type);
  if (!c) return '0';
  const price = new Big(c.price).times(new Big(c.vat ?? 0).div(100).plus(1));
  return new Big(price.toFixed(6, Big.roundHalfUp)).toFixed();
}
