import { columnsOf, isOfCard, knownHeadings } from './sheet-columns';
import money from './sheet-further-currencies.json';
import further from './sheet-further-words.json';
import words from './sheet-words.json';

const fields = (...headings: string[]) => columnsOf(headings).map((c) => c.field);

describe('what a column is likely of', () => {
  it.each([
    [
      ['sessionStart', 'sessionEnd', 'LocationName', 'EnergyConsumed (kWh)', 'TotalAmount'],
      ['start', 'end', 'site', 'kWh', 'amount'],
    ],
    [
      ['start_date_time', 'charging_station_name', 'energy_kwh', 'total_price_eur'],
      ['start', 'site', 'kWh', 'amount'],
    ],
    [
      ['Datum/Uhrzeit', 'Ladestation', 'Verbrauch (kWh)', 'Gesamtkosten (€)'],
      ['start', 'site', 'kWh', 'amount'],
    ],
    [
      ['Data inizio', 'Stazione', 'Energia (kWh)', 'Costo', 'Durata'],
      ['start', 'site', 'kWh', 'amount', 'minutes'],
    ],
    [
      ['Starttid', 'Laddstation', 'Energi (kWh)', 'Kostnad (SEK)', 'Varaktighet'],
      ['start', 'site', 'kWh', 'amount', 'minutes'],
    ],
    [
      ['Data de início', 'Data de fim', 'Posto', 'Energia carregada (kWh)', 'Custo total', 'Tempo de carregamento'],
      ['start', 'end', 'site', 'kWh', 'amount', 'minutes'],
    ],
    [
      ['Kezdés', 'Befejezés', 'Töltőállomás', 'Összeg (HUF)', 'Időtartam (min)'],
      ['start', 'end', 'site', 'amount', 'minutes'],
    ],
    [
      ['Transaction Date', 'Plug In', 'Plug Out', 'Where', 'kWh charged', 'Price paid ($)', 'Provider', 'Battery before (%)'],
      ['date', 'start', 'end', 'site', 'kWh', 'amount', 'network', 'socFrom'],
    ],
    [
      ['Timestamp (UTC)', 'Pris per kWh (SEK)'],
      ['start', 'perKWh'],
    ],
    // What says that it is money, or in which unit, is nothing else.
    [
      ['Energy added (EUR)', 'Price paid (kWh)', 'Charge time (%)', 'Battery before (min)', 'Provider (€)', 'Plug in (h)'],
      [null, null, null, null, null, null],
    ],
  ])('%j', (headings, expected) => expect(fields(...headings)).toEqual(expected));

  it('stands back behind a column that says so itself, and behind the first that is as likely', () => {
    expect(fields('Total amount', 'Amount')).toEqual([null, 'amount']);
    expect(fields('Gross amount', 'Total amount')).toEqual(['amount', null]);
    expect(fields('Total amount', 'Price')).toEqual([null, 'price?']);
    expect(fields('Total amount', 'Price per kWh')).toEqual(['amount', 'perKWh']);
  });
  it('stands back behind what somebody said, of it and of another', () => {
    const said = (n: number, field: 'amount' | null) => columnsOf(['Gross amount', 'Net'], new Map([[n, { field }]])).map((c) => c.field);
    expect([said(2, 'amount'), said(1, null), said(2, null)]).toEqual([
      [null, 'amount'],
      [null, null],
      ['amount', null],
    ]);
  });
  it('is the day where another column has the start', () => {
    expect(fields('Start date', 'Start time')).toEqual(['date', 'start']);
    expect(fields('Startdatum', 'Startzeit', 'Datum')).toEqual([null, 'start', 'date']);
    expect(fields('Start date', 'Station name')).toEqual(['start', 'site']);
  });
  it('no word is a currency, whatever the code', () => {
    expect(fields('Stn', 'CRC', 'PLN')).toEqual([null, null, 'amount']);
    expect(columnsOf(['All costs', 'Top price per kWh', 'Cost KRW']).map((c) => [c.field, c.currency])).toEqual([
      [null, null],
      [null, null],
      ['amount', 'KRW'],
    ]);
    const codes = [...words.currencies, ...money.codes];
    expect([codes.length, codes.filter((c) => !/^[A-Z]{3}$/.test(c))]).toEqual([new Set(codes).size, []]);
    // The browser's own list of ISO 4217 has each of them.
    const known = new Set(Intl.supportedValuesOf('currency'));
    expect([...codes, ...Object.values(money.signs).flat(), ...Object.values(money.shared).flat()].filter((c) => !known.has(c))).toEqual([]);
    const listed = new Set(codes);
    expect([...Object.values(money.signs).flat(), ...Object.values(money.shared).flat()].filter((c) => !listed.has(c))).toEqual([]);
  });
  it('has the unit and currency of its heading, and keeps it as it stands', () => {
    expect(columnsOf(['ChargingDuration (h:mm)', 'TotalAmount CHF'])).toEqual([
      { n: 1, heading: 'ChargingDuration (h:mm)', field: 'minutes', unit: 'h', currency: null },
      { n: 2, heading: 'TotalAmount CHF', field: 'amount', unit: null, currency: 'CHF' },
    ]);
    expect(columnsOf(['Pris per kWh (SEK)'])).toEqual([{ n: 1, heading: 'Pris per kWh (SEK)', field: 'perKWh', unit: null, currency: 'SEK' }]);
    expect(columnsOf(['StartTime'])).toEqual([{ n: 1, heading: 'StartTime', field: 'start', unit: null, currency: null }]);
  });
  it('is kept or not by what its heading says of cards and contracts', () => {
    const numbers = [
      'RFID',
      'RFID tag',
      'Card number',
      'Card no.',
      'Token UID',
      'id_tag',
      'Contract ID',
      'eMAID',
      'Kartennummer',
      'Karten-Nr.',
      'Vertragsnummer',
      'Vertrags-ID',
    ];
    expect(numbers.filter((heading) => !isOfCard({ heading }))).toEqual([]);
    expect(
      ['Card', 'Tag', 'Karte', 'Receipt no.', 'Session ID', 'Discard no.', 'Contractor', '', 'Payment card'].filter((heading) => isOfCard({ heading })),
    ).toEqual([]);
  });
  it('is nothing of what is no such thing', () => {
    expect(fields('Consumption (kWh/100 km)', 'Connector', 'Receipt no.', '', 'kWh price list', 'TotalMeter', 'RFID')).toEqual([
      null,
      null,
      null,
      null,
      null,
      null,
      null,
    ]);
    expect([knownHeadings(['Location name', 'Total amount', 'x']), knownHeadings(['Lipa Barn', '12,5', ''])]).toEqual([2, 0]);
  });
  it('has no word that a column says of itself, and each once but a day that may be a start', () => {
    const own = new Set(Object.values(words.headings).flat());
    const all = Object.values(further).flat();
    expect(all.filter((w) => own.has(w) || w !== w.toLowerCase())).toEqual([]);
    const twice = all.filter((w, i) => all.indexOf(w) !== i);
    expect(twice.filter((w) => !(further.start.includes(w) && further.date.includes(w)))).toEqual([]);
  });
});
