import { read, reasons, START } from './fixtures/read-rows';

it.each([
  ['it', 'Data inizio;Stazione;Energia (kWh);Costo (€)', 'martedì 14 ottobre 2025 alle ore 13:52;Vrba Crossing;12,5;6,25', 'Totale;;12,5;6,25'],
  ['da', 'Starttid;Ladestation;Energi (kWh);Beløb (kr)', '14. okt. 2025, 13.52;Vrba Crossing;12,5;46,75', 'Totalt;;12,5;46,75'],
  ['hu', 'Start;Station;Energy (kWh);Cost (HUF)', '2025. okt. 14. 13:52;Vrba Crossing;12,5;2 500 Ft', 'összesen;;12,5;2 500'],
  ['pl', 'Początek;Stacja;Energia (kWh);Cost (PLN)', '14 paź 2025, 13:52;Vrba Crossing;12,5;31,25 zł', 'Razem;;12,5;31,25'],
])('a whole sheet of %s is read', (_, heading, row, total) => {
  const { accepted, refused, skipped } = read([heading, row, total], [], { currency: 'DKK' });
  expect(accepted.map((r) => [new Date(r.start).toISOString(), r.site, r.kWh])).toEqual([['2025-10-14T11:52:00.000Z', 'Vrba Crossing', '12.5']]);
  expect([refused.length, skipped.map((x) => x.code)]).toEqual([0, ['totals']]);
});

describe('a cell of twenty thousand letters', () => {
  const HEADINGS = ['Start', 'End', 'Duration', 'Station', 'Stall', 'Energy (kWh)', 'Cost', 'Price per kWh', 'Handshake', 'Whatever'];
  const good = ['2025-10-14 13:52', '2025-10-14 14:52', '60 min', 'Vrba Crossing', '1', '12,5', '5', '0,5', '20', 'x'];
  // What looks through each of them again from every letter takes hours; what makes a number of them finds none.
  const LONG = ['-', '1', ' #', '1 ', 'a', '(', '1:'].map((x) => x.repeat(20_000 / x.length)).concat(`1${' '.repeat(20_000)}x`);
  const CODES = ['bad_date', 'bad_date', 'bad_duration', 'too_long', 'too_long', 'bad_number', 'bad_number', 'bad_number', 'bad_number'];
  it.each(LONG.map((x) => [x.slice(0, 3), x]))('“%s …” costs its own row alone', (_, long) => {
    const rows = HEADINGS.map((_, i) => good.map((cell, k) => (k === i ? long : cell)).join(';'));
    const got = read([HEADINGS.join(';'), ...rows, good.join(';')]);
    expect(got.refused.map((r) => r.reasons[0]?.code)).toEqual(CODES);
    expect(got.accepted.map((r) => r.line)).toEqual([11, 12]);
  });
});

it('a text that is written as a formula of itself is that text; one that was made harmless stays as it was', () => {
  const row = (site: string, note: string, ticket: string) =>
    read(['Start;Station;Energy (kWh);Note;Ticket', `2025-10-14 13:52;${site};12,5;${note};${ticket}`]).accepted[0];
  expect(row('="Vrba Crossing"', '="a ""b"""', '="007"')).toMatchObject({ site: 'Vrba Crossing', note: 'a "b"', rest: { Ticket: '007' } });
  expect(row('Vrba Crossing', `'="x"`, '="x"&A1')).toMatchObject({ note: '="x"', rest: { Ticket: '="x"&A1' } });
  expect(reasons(read(['Start;Station;Energy (kWh)', '2025-10-14 13:52;Vrba Crossing;="12,5"']))).toEqual([['3 formula']]);
});

it('the number of a card is not kept where its heading says that it is one', () => {
  const { accepted } = read(['Start;Station;Energy (kWh);RFID;Card;Kartennummer', `${START};12,5;04A1B2C3;blue;`]);
  expect(accepted[0]?.rest).toEqual({ RFID: 'not kept', Card: 'blue' });
  const asMeans = read(['Start;Station;Energy (kWh);RFID', `${START};12,5;04A1B2C3`], [{ code: 'columns', answer: { 4: { field: 'means' } } }]);
  expect(asMeans.accepted[0]).toMatchObject({ means: null, rest: { RFID: 'not kept' } });
});
