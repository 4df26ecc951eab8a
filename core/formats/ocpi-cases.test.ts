import ocpi from './fixtures/ocpi.json';
import { cdrsIn } from './ocpi-cdrs';
import { locationsIn } from './ocpi-locations';
import { tariffsIn } from './ocpi-tariffs';
import { openAt } from './opening-hours';
import { readJson } from './strict-json';

// biome-ignore lint/suspicious/noExplicitAny: a case is read as it stands in the file, each kind with fields of its own.
type Any = any;
const bytesOf = (c: Any): Uint8Array =>
  c.bytes
    ? Uint8Array.from(Buffer.from(c.bytes, 'base64'))
    : new TextEncoder().encode(c.recipe.map((p: { text: string; times: number }) => p.text.repeat(p.times)).join(''));
const read = (c: Any) => {
  const found = readJson(bytesOf(c));
  if (!found.ok) throw new Error(JSON.stringify(found));
  return found.value;
};
/** Lists whose order does not bind. */
const sorted = (list: readonly Any[]) => [...list].map((x) => (typeof x === 'string' ? x : JSON.stringify(x))).sort();
const iso = (ms: number | null) => (ms === null ? null : new Date(ms).toISOString());
const decimal = (text: string | null) => (text === null ? null : Number(text));

const of = (kind: string) => ocpi.cases.filter((c) => c.kind === kind).map((c) => [c.id, c.title, c as Any] as const);

describe('OCPI 2.2.1 in', () => {
  it.each(of('ocpi-locations'))('Locations %s: %s', (_id, _title, c) => {
    const got = locationsIn(read(c));
    expect(sorted(got.breaches)).toEqual(sorted(c.expected.breaches));
    expect(sorted(got.kept)).toEqual(sorted(c.expected.kept));
    expect(got.sites.map(({ hours, leftOut, ...s }) => ({ ...s, left_out: leftOut }))).toEqual(c.expected.sites);
    for (const o of c.expected.open) {
      const site = got.sites.find((s) => s.pointer === o.pointer);
      expect([o.at, site && openAt(site.hours, site.zone, Date.parse(o.at))]).toEqual([o.at, o.open]);
    }
  });
  it.each(of('ocpi-tariffs'))('Tariffs %s: %s', (_id, _title, c) => {
    const got = tariffsIn(read(c));
    expect(sorted(got.breaches)).toEqual(sorted(c.expected.breaches));
    expect(sorted(got.kept)).toEqual(sorted(c.expected.kept));
    const component = ({ stepSize, price, vat, ...rest }: Any) => ({ ...rest, price: decimal(price), vat: decimal(vat), step_size: stepSize });
    const wanted = ({ price, vat, restrictions, ...rest }: Any) => ({
      ...rest,
      price: decimal(price),
      vat: decimal(vat),
      restrictions: Object.fromEntries(Object.entries(restrictions).map(([k, v]) => [k, Array.isArray(v) ? v : String(v)])),
    });
    expect(
      got.tariffs.map(({ from, until, whyNotSimple, components, ...t }) => ({
        ...t,
        from: iso(from),
        until: iso(until),
        why_not_simple: whyNotSimple,
        components: components.map(component),
      })),
    ).toEqual(c.expected.tariffs.map((t: Any) => ({ ...t, components: t.components.map(wanted) })));
  });
  it.each(of('ocpi-cdrs'))('CDRs %s: %s', (_id, _title, c) => {
    const got = cdrsIn(read(c));
    expect(sorted(got.breaches)).toEqual(sorted(c.expected.breaches));
    expect(sorted(got.kept)).toEqual(sorted(c.expected.kept));
    expect(sorted(got.notKept)).toEqual(sorted(c.expected.not_kept));
    const near = (m: number | null) => (m === null ? null : expect.closeTo(m, 1.7));
    expect(
      got.bills.map((b) => ({
        ...b,
        start: iso(b.start),
        end: iso(b.end),
        kWh: decimal(b.kWh),
        amount: decimal(b.amount),
        periods: b.periods.map((p) => ({
          ...p,
          start: iso(p.start),
          end: iso(p.end),
          kWh: decimal(p.kWh),
          other: p.other.map((o) => ({ ...o, volume: decimal(o.volume) })),
        })),
      })),
    ).toEqual(
      c.expected.bills.map((b: Any) => ({
        ...b,
        kWh: decimal(b.kWh),
        amount: decimal(b.amount),
        minutes: near(b.minutes),
        parking_min: near(b.parking_min),
        periods: b.periods.map((p: Any) => ({
          ...p,
          kWh: decimal(p.kWh),
          charging_min: near(p.charging_min),
          parking_min: near(p.parking_min),
          other: p.other.map((o: Any) => ({ ...o, volume: decimal(o.volume) })),
        })),
      })),
    );
  });
  it.each(of('limits'))('limits %s: %s', (_id, _title, c) => {
    const found = readJson(bytesOf(c));
    const { refused, where, sites, kept } = c.expected;
    if (refused === null) {
      if (!found.ok) throw new Error(JSON.stringify(found));
      const got = locationsIn(found.value);
      expect([got.sites.length, got.kept]).toEqual([sites, kept]);
      return;
    }
    expect(found).toMatchObject({ ok: false, code: refused });
    if (found.ok || refused === 'not_json') return;
    if (where.pointer_begins) expect('pointer' in found.where && found.where.pointer.startsWith(where.pointer_begins)).toBe(true);
    else expect(found.where).toEqual(where);
  });
});

describe('an id that comes twice', () => {
  const twice = (of: string, second: object, first: object = {}) => {
    const c = ocpi.cases.find((x) => x.kind === of && (x as Any).expected.breaches.length === 0) as Any;
    const whole = JSON.parse(Buffer.from(bytesOf(c)).toString());
    const [one] = [whole.data ?? whole].flat();
    const found = readJson(
      new TextEncoder().encode(
        JSON.stringify([
          { ...one, ...first },
          { ...one, ...second },
        ]),
      ),
    );
    if (!found.ok) throw new Error(found.code);
    const got = of === 'ocpi-cdrs' ? cdrsIn(found.value) : of === 'ocpi-tariffs' ? tariffsIn(found.value) : locationsIn(found.value);
    const kept = 'bills' in got ? got.bills : 'tariffs' in got ? got.tariffs : got.sites;
    return [kept.map((k) => k.pointer), got.breaches.filter((b) => b.refuses).map((b) => `${b.pointer} ${b.code}`)];
  };
  it.each(['ocpi-cdrs', 'ocpi-tariffs', 'ocpi-locations'])('%s: the first stays, whatever else is said of the second', (kind) => {
    expect(twice(kind, {})).toEqual([['/0'], ['/1/id duplicate']]);
    expect(twice(kind, { last_updated: 7 })).toEqual([['/0'], ['/1/last_updated type', '/1/id duplicate']]);
    // One that does not come in stands in nobody's way.
    expect(twice(kind, {}, { last_updated: 7 })).toEqual([['/1'], ['/0/last_updated type']]);
    expect(twice(kind, { id: 'another' })).toEqual([['/0', '/1'], []]);
  });
});

it.each([
  ['08:00', '07:60', ['period_end format']],
  ['24:00', '07:00', ['period_begin format']],
  ['08:00', '08:00', ['period_end order']],
  ['08:00', '07:59', ['period_end order']],
  ['08:00', '00:00', []],
  ['08:00', '08:01', []],
])('hours from %s to %s', (period_begin, period_end, want) => {
  const c = ocpi.cases.find((x) => x.kind === 'ocpi-locations' && (x as Any).expected.breaches.length === 0) as Any;
  const whole = JSON.parse(Buffer.from(bytesOf(c)).toString());
  const [one] = [whole.data ?? whole].flat();
  const text = JSON.stringify({ ...one, opening_times: { twentyfourseven: false, regular_hours: [{ weekday: 1, period_begin, period_end }] } });
  const found = readJson(new TextEncoder().encode(text));
  if (!found.ok) throw new Error(found.code);
  expect(locationsIn(found.value).breaches.map((b) => `${b.pointer.split('/').at(-1)} ${b.code}`)).toEqual(want);
});
