import fc from 'fast-check';
import type { OcpiTariff, Restrictions } from '../records/ocpi-tariff';
import { ADJUSTMENTS, billOf, FEES, type Line, sumTaxed } from './bill';
import { compileTariff } from './compiled-tariff';
import { decimal, exact, NOTHING } from './exact';
import { sessionOf, tariffOf } from './fixtures/sessions';
import type { ChargedSession } from './session-period';

type Elements = OcpiTariff['elements'];
/** Any tariff and session, with bounds that lie on whole seconds. */
const ANY = (() => {
  const n = (max: number) => fc.integer({ min: 0, max });
  const clock = fc.tuple(n(23), fc.constantFrom(0, 15, 30, 59)).map(([h, m]) => `${String(h).padStart(2, '0')}:${String(m).padStart(2, '0')}`);
  const some = <T>(of: fc.Arbitrary<T>) => fc.option(of, { nil: undefined, freq: 2 });
  const from = fc.record({
    start_time: some(clock),
    end_time: some(clock),
    min_kwh: some(n(8)),
    min_duration: some(n(90).map((m) => m * 60)),
    max_duration: some(n(90).map((m) => 5400 + m * 60)),
    max_power: some(n(60).map((p) => p + 1)),
    day_of_week: some(fc.subarray(['MONDAY', 'TUESDAY', 'SUNDAY', 'SATURDAY'] as const).map((d) => [...d])),
  });
  const component = fc.record({
    type: fc.constantFrom('ENERGY' as const, 'FLAT' as const, 'TIME' as const, 'PARKING_TIME' as const),
    price: n(900).map((p) => p / 100),
    vat: some(n(25)),
    step_size: fc.constantFrom(0, 1, 60, 900),
  });
  const element = fc.record({ price_components: fc.uniqueArray(component, { minLength: 1, maxLength: 3, selector: (c) => c.type }), restrictions: some(from) });
  const tariff = fc.array(element, { minLength: 1, maxLength: 5 }).map((elements) => tariffOf(JSON.parse(JSON.stringify(elements)) as Elements));
  const part = fc.record({ min: n(70), perMin: n(20), parked: fc.boolean() });
  const session = fc
    .tuple(
      fc.constantFrom('2024-03-30T22:10:00Z', '2024-10-26T21:40:00Z', '2024-03-04T15:00:00Z', '2024-03-08T21:30:00Z'),
      fc.array(part, { minLength: 1, maxLength: 5 }),
    )
    .map(([start, parts]) =>
      // 0.06 kWh a minute, or a multiple: a gram of energy a second, so that whole kWh lie on whole seconds or the second is cut alike.
      sessionOf(
        start,
        parts.map((p) => (p.parked ? { min: p.min, parked: true as const } : { min: p.min, kwh: Math.round(p.min * p.perMin * 60) / 1000 })),
      ),
    );
  return { tariff, session };
})();

/** The same by walking through the session second by second, in integers, knowing nothing of how it is cut. */
function walked(tariff: OcpiTariff, s: ChargedSession): { volumes: Map<string, number>; flat: number | null } {
  const local = new Intl.DateTimeFormat('en-GB', { timeZone: s.zone, hourCycle: 'h23', hour: '2-digit', minute: '2-digit', weekday: 'long' });
  const volumes = new Map<string, number>();
  let flat: number | null = null;
  const t0 = s.periods[0]?.start ?? 0;
  let wh = 0;
  const clocks = new Map<number, [string, string]>();
  for (const p of s.periods) {
    const seconds = (p.end - p.start) / 1000;
    const each = seconds === 0 ? 0 : Math.round((p.kwh * 1000) / seconds);
    for (let at = p.start; at < p.end; at += 1000) {
      const minute = Math.floor(at / 60_000);
      const known = clocks.get(minute);
      const parts = known ? [] : local.formatToParts(at);
      const of = (type: string) => parts.find((x) => x.type === type)?.value ?? '';
      const [clock, day] = known ?? [`${of('hour')}:${of('minute')}`, of('weekday').toUpperCase()];
      clocks.set(minute, [clock, day]);
      const holds = (r: Restrictions = {}): boolean => {
        const { start_time: a, end_time: b = '24:00' } = r;
        const end = b === '00:00' ? '24:00' : b;
        const start = a ?? '00:00';
        const window = a !== undefined && a === r.end_time ? true : start < end ? clock >= start && clock < end : clock >= start || clock < end;
        const since = (at - t0) / 1000;
        return (
          window &&
          (!r.day_of_week?.length || r.day_of_week.includes(day as never)) &&
          wh >= (r.min_kwh ?? 0) * 1000 &&
          since >= (r.min_duration ?? 0) &&
          since < (r.max_duration ?? Number.POSITIVE_INFINITY) &&
          (p.kwh * 3600) / seconds < (r.max_power ?? Number.POSITIVE_INFINITY)
        );
      };
      const active = (type: string) => tariff.elements.findIndex((e) => e.price_components.some((c) => c.type === type) && holds(e.restrictions));
      const add = (type: string, n: number) => {
        const i = active(type);
        if (i >= 0 && n > 0) volumes.set(`${type} ${i}`, (volumes.get(`${type} ${i}`) ?? 0) + n);
      };
      if (flat === null && active('FLAT') >= 0) flat = active('FLAT');
      if (p.charging) add('ENERGY', each);
      add(p.charging ? 'TIME' : 'PARKING_TIME', 1);
      wh += each;
    }
  }
  return { volumes, flat };
}

const plain = (l: Line) => Number(decimal(l.quantity.sub(l.added), 6));

describe('whatever the tariff and the session', () => {
  it('volumes are those of walking through it second by second', () => {
    fc.assert(
      fc.property(ANY.tariff, ANY.session, (tariff, session) => {
        // A bound of kWh inside a second is cut there and not at its end: only bounds that lie on seconds are compared.
        const perSecond = session.periods.map((p) => (p.end === p.start ? 0 : (p.kwh * 1_000_000) / (p.end - p.start)));
        fc.pre(perSecond.every((wh) => wh === 0 || 1000 % wh === 0));
        const { lines } = billOf(compileTariff(tariff), session);
        const { volumes, flat } = walked(tariff, session);
        const found = lines.filter((l) => l.vat !== null && l.of !== 'FLAT').map((l) => [`${l.of} ${l.element}`, plain(l)]);
        expect(new Map(found as [string, number][])).toEqual(volumes);
        if (session.periods.some((p) => p.end > p.start)) expect(lines.find((l) => l.of === 'FLAT')?.element ?? null).toBe(flat);
      }),
      { numRuns: 150, seed: 20241126 },
    );
  });
  it('lines add up, and each is its quantity at its price with its tax', () => {
    fc.assert(
      fc.property(ANY.tariff, ANY.session, (tariff, session) => {
        const { lines, total } = billOf(
          compileTariff({ ...tariff, min_price: { excl_vat: 3 }, max_price: { excl_vat: 9, incl_vat: 10 } }, { tax_percent: 7 }),
          session,
        );
        const sum = sumTaxed(lines);
        expect([sum.excl.equals(total.excl), sum.incl.equals(total.incl)]).toEqual([true, true]);
        const per = { kWh: 1000, h: 3600, min: 60, x: 1, '': 1 };
        for (const l of lines.filter((x) => x.price !== null)) {
          expect(l.excl.equals(l.quantity.div(per[l.per]).mul(l.price ?? 0))).toBe(true);
          expect(l.incl.equals(l.excl.mul(exact(1).add((l.vat ?? NOTHING).div(100))))).toBe(true);
        }
        expect(lines.every((l) => l.element !== null || [...FEES, ...ADJUSTMENTS].includes(l.of as never))).toBe(true);
      }),
      { numRuns: 100, seed: 7 },
    );
  });
  it('a period in two at any instant changes nothing', () => {
    fc.assert(
      fc.property(ANY.tariff, ANY.session, fc.nat(), fc.integer({ min: 1, max: 9 }), (tariff, session, which, tenth) => {
        const i = which % session.periods.length;
        const p = session.periods[i] as ChargedSession['periods'][number];
        const at = p.start + ((p.end - p.start) / 10) * tenth;
        const power = p.power ?? (p.end === p.start ? 0 : (p.kwh * 3_600_000) / (p.end - p.start));
        // In tenths of whole milliwatt-hours, so that both halves are decimals.
        const first = Number(((p.kwh * tenth) / 10).toFixed(6));
        const second = Number((p.kwh - first).toFixed(6));
        const halves = [
          { ...p, power, end: at, kwh: first },
          { ...p, power, start: at, kwh: second },
        ];
        const cut = { ...session, periods: [...session.periods.slice(0, i), ...halves, ...session.periods.slice(i + 1)] };
        const whole = { ...session, periods: session.periods.map((q, j) => (j === i ? { ...q, power } : q)) };
        const t = compileTariff(tariff);
        expect(decimal(billOf(t, cut).total.incl, 9)).toBe(decimal(billOf(t, whole).total.incl, 9));
      }),
      { numRuns: 150, seed: 11 },
    );
  });
  it('more energy at the same times never costs less, without bounds of kWh and power', () => {
    fc.assert(
      fc.property(ANY.tariff, ANY.session, fc.integer({ min: 1, max: 5000 }), (tariff, session, more) => {
        const t = compileTariff({
          ...tariff,
          elements: tariff.elements.map(({ restrictions: { min_kwh: _, max_power: __, ...r } = {}, ...e }) => ({ ...e, restrictions: r })),
        });
        const fuller = { ...session, periods: session.periods.map((p) => (p.kwh > 0 ? { ...p, kwh: Number((p.kwh + more / 1000).toFixed(3)) } : p)) };
        expect(billOf(t, fuller).total.incl.gte(billOf(t, session).total.incl)).toBe(true);
      }),
      { numRuns: 100, seed: 3 },
    );
  });
});
