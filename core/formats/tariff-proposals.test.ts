import ocpi from './fixtures/ocpi.json';
import { type Json, readJson } from './strict-json';
import { tariffProposals } from './tariff-proposals';

const read = (text: string | object): Json => {
  const found = readJson(new TextEncoder().encode(typeof text === 'string' ? text : JSON.stringify(text)));
  if (!found.ok) throw new Error(found.code);
  return found.value;
};
const cases = ocpi.cases.filter((c) => c.kind === 'ocpi-tariffs');
const bytesOf = (id: string) => {
  const found = cases.find((c) => c.id === id) as unknown as { bytes: string };
  return read(Buffer.from(found.bytes, 'base64').toString());
};
const one = (more: object = {}) => ({
  country_code: 'SI',
  party_id: 'SMR',
  id: 'T-1',
  currency: 'EUR',
  elements: [{ price_components: [{ type: 'ENERGY', price: 0.5, vat: 22, step_size: 1 }] }],
  last_updated: '2026-01-01T00:00:00Z',
  ...more,
});

describe('tariffs of a file as prices', () => {
  it('says of every tariff that is simple what its one line is, and keeps the others whole', () => {
    for (const c of cases) {
      const { proposals } = tariffProposals(bytesOf(c.id), 'Europe/Ljubljana');
      const wanted = (c.expected as unknown as { tariffs: { pointer: string; simple: { perKWh: string; startFee: string } | null }[] }).tariffs;
      expect([c.id, proposals.map((p) => p.pointer)]).toEqual([c.id, wanted.map((t) => t.pointer)]);
      for (const t of wanted) {
        const got = proposals.find((p) => p.pointer === t.pointer);
        if (t.simple) expect([Number(got?.perKWh), Number(got?.startFee)]).toEqual([Number(t.simple.perKWh), Number(t.simple.startFee)]);
        expect(got?.tariff.elements.length).toBeGreaterThan(0);
      }
    }
  });

  it('keeps no number of a card in what a network adds', () => {
    const { proposals } = tariffProposals(read(one({ x_pay_to: '4111 1111 1111 1111', x_note: 'kept' })), 'UTC');
    expect(proposals[0]?.tariff).toMatchObject({ x_pay_to: 'not kept', x_note: 'kept' });
  });

  it('leaves out what breaks the standard, by its place, and keeps the others of the file', () => {
    const { proposals, leftOut } = tariffProposals(read([one(), one({ id: 'T-2', currency: 'euro' }), one({ id: 'T-3' })]), 'UTC');
    expect(proposals.map((p) => [p.pointer, p.tariff.id])).toEqual([
      ['/0', 'T-1'],
      ['/2', 'T-3'],
    ]);
    expect(leftOut).toEqual([{ pointer: '/1/currency', reason: 'is not written as it must be' }]);
  });

  it('leaves out what the standard lets pass and no price can be: tax above the whole, a band that holds never', () => {
    const band = { elements: [{ price_components: one().elements[0]?.price_components, restrictions: { min_kwh: 20, max_kwh: 10 } }] };
    const tax = { elements: [{ price_components: [{ type: 'ENERGY', price: 0.5, vat: 220, step_size: 1 }] }] };
    const { proposals, leftOut } = tariffProposals(read({ data: [one(tax), one({ id: 'T-2', ...band })] }), 'UTC');
    expect(proposals).toEqual([]);
    expect(leftOut.map((l) => l.pointer)).toEqual(['/data/0/elements/0/price_components/0/vat', '/data/1/elements/0/restrictions/max_kwh']);
  });

  it('names it as the network does, and counts its days by the clock there: the end is the moment from which it holds no more', () => {
    const said = one({
      tariff_alt_text: [{ language: 'sl', text: ' Nočna cena ' }],
      start_date_time: '2026-05-31T22:00:00.123456Z',
      end_date_time: '2026-06-30T22:00:00Z',
      x_seen: 'on the post',
      max_price: null,
    });
    const { proposals } = tariffProposals(read(said), 'Europe/Ljubljana');
    expect(proposals).toMatchObject([
      { pointer: '', name: 'Nočna cena', from: '2026-06-01', until: '2026-06-30', perKWh: '0.61', startFee: '0', tariff: { x_seen: 'on the post' } },
    ]);
    expect(proposals[0]?.tariff).not.toHaveProperty('max_price');
    expect(tariffProposals(read(one({ tariff_alt_text: [{ language: 'en', text: ' ' }] })), 'UTC').proposals).toMatchObject([
      { name: 'T-1', from: null, until: null },
    ]);
  });
});
