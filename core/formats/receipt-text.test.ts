import fc from 'fast-check';
import fixtures from './fixtures/receipts.json';
import further from './fixtures/receipts-further.json';
import { type ReceiptRead, readReceipt } from './receipt-text';

const now = Date.parse(fixtures.now);
const read = (text: string, sites = fixtures.sites): ReceiptRead => readReceipt(text, sites, now);
const plain = (p: Record<string, unknown>) => ({ ...p, kWh: p.kWh === null ? null : Number(p.kWh), amount: p.amount === null ? null : Number(p.amount) });

describe('the text of a receipt', () => {
  it.each(fixtures.cases.map((c) => [c.id, c.title, c] as const))('%s: %s', (_id, _title, c) => {
    const got = read(c.text);
    expect(plain(got.proposal)).toEqual(plain(c.expected.proposal));
    expect(got.emptyBecause).toEqual(c.expected.empty_because);
  });
  it.each(further.cases.map((c, i) => [i, c] as const))('made at random %d', (_, c) => {
    const { proposal, emptyBecause } = readReceipt(c.text, fixtures.sites, Date.parse(further.now));
    const told = Object.fromEntries(
      Object.entries(plain(proposal)).flatMap(([k, v]) => (v === null ? [] : [[k, k === 'minutes' ? Math.round(Number(v) * 1e6) / 1e6 : v]])),
    );
    expect([told, emptyBecause]).toEqual([c.proposal, c.emptyBecause]);
  });
  // As receipts of further languages have it; common practice, no source.
  it.each([
    [
      'Stazione 3\nData 14/10/2025\nInizio 13:52\nEnergia erogata 32,4 kWh\nContatore 8123,4 kWh\nDurata 41 min\nImponibile 14,61 €\nIVA 22% 3,21 €\nTotale 17,82 €',
    ],
    ['Dato 14.10.2025\nLeveret 32,4 kWh\nVarighed 41 min\nPris 0,55 EUR/kWh\nHeraf moms 3,56 EUR\nI alt inkl. moms 17,82 EUR'],
    ['Datum 2025-10-14\nLaddad 32,4 kWh\nVaraktighet 41 min\nDelsumma 14,26 EUR\nMoms 25% 3,56 EUR\nSumma 17,82 EUR'],
    ['Data 14.10.2025\nPobrana energia 32,4 kWh\nCzas ładowania 41 min\nKaucja 50,00 EUR\nPodatek 3,33 EUR\nDo zapłaty: 17,82 EUR'],
    ['14. 10. 2025\nOdebráno 32,4 kWh\nDoba nabíjení 41 min\nZáklad 14,73 EUR\nDPH 21 % 3,09 EUR\nCelkem vč. DPH 17,82 EUR'],
    ['2025. 10. 14.\nFeltöltött 32,4 kWh\nIdőtartam 41 min\nNettó 14,03 EUR\nÁFA 27% 3,79 EUR\nFizetendő 17,82 EUR'],
    ['14.10.2025\nPreuzeta energija 32,4 kWh\nVrijeme punjenja 41 min\nOsnovica 14,26 EUR\nPDV 3,56 EUR\nUkupno 17,82 EUR'],
    ['14.10.2025\nLadattu 32,4 kWh\nKesto 41 min\nVeroton 14,20 EUR\nALV 25,5 % 3,62 EUR\nYhteensä sis. ALV 17,82 EUR'],
    ['14 de outubro de 2025\nCarregada 32,4 kWh\nDuração 41 min\nBase 14,49 €\nIVA 23% 3,33 €\nTotal a pagar 17,82 €'],
    ['14/10/2025\nÉnergie délivrée 32,4 kWh\nDurée 41 min\nMontant HT 14,85 €\nTVA 20% 2,97 €\nMontant TTC 17,82 €'],
  ])('%#', (text) => expect(plain(read(text).proposal)).toMatchObject({ kWh: 32.4, amount: 17.82, currency: 'EUR', minutes: 41, date: '2025-10-14' }));
  it.each([
    ['17,82 EUR s DPH', '17.82'],
    ['17,82 EUR sa PDV', '17.82'],
    ['17,82 EUR w tym VAT', '17.82'],
    ['17,82 € IVA inclusa', '17.82'],
    // Whose tax it is, is no price with tax in it.
    ['Operator’s VAT 3,21 EUR', null],
  ])('tax is in it, or is what it says: %s', (text, amount) => expect(read(text).proposal.amount).toBe(amount));
  it('what no receipt has is not looked through', () => {
    expect(read(`${'x\n'.repeat(999)}12,5 kWh`).proposal.kWh).toBe('12.5');
    expect(read(`${'x\n'.repeat(1000)}12,5 kWh`).proposal.kWh).toBeNull();
    expect(read(`${' '.repeat(492)}12,5 kWh`).proposal.kWh).toBe('12.5');
    expect(read(`${' '.repeat(493)}12,5 kWh`).proposal.kWh).toBeNull();
  });
  it('rules drawn of dashes are not looked back over from each of them: a page of them would take minutes', () => {
    for (const dashes of ['-'.repeat(500), '\u2212 '.repeat(250)])
      expect(read(`${`${dashes}\n`.repeat(900)}Total 12,20 EUR`).proposal).toMatchObject({ amount: '12.20', currency: 'EUR' });
  });
  it('a reader of Latin letters alone leaves their accents out', () => {
    const plainly = '14.10.2025\nOdebrano 32,4 kWh\nDoba nabijeni 41 min\nZaklad 14,73 EUR\nDPH 21 % 3,09 EUR\nCelkem vc. DPH 17,82 EUR';
    expect(plain(read(plainly).proposal)).toMatchObject({ kWh: 32.4, amount: 17.82, minutes: 41 });
    expect(plain(read('AFA 27% 3,79 EUR\nFizetendo 17,82 EUR\nDo zaplaty 17,82 EUR').proposal)).toMatchObject({ amount: 17.82 });
  });
  // Each a neighbour of a rule; worked out by hand from it.
  it.each([
    // Energy.
    ['12,345 kWh', 'kWh', '12.345'],
    ['12.345,6 kWh', 'kWh', 'bounds'],
    ['41370 Wh', 'kWh', '41.37'],
    ['41,37kWh 23,10€', 'kWh', '41.37'],
    ['0,5 kWh/100km\n12 kWh', 'kWh', '12'],
    ['3/12 kWh', 'kWh', 'not_printed'],
    ['2001 kWh', 'kWh', 'mark'],
    ['2001,5 kWh', 'kWh', 'bounds'],
    ['2000,0 kWh', 'kWh', '2000'],
    ['2 kWh 3 kWh', 'kWh', 'several'],
    ['2 kWh 2,0 kWh', 'kWh', '2'],
    ['Delivered 12.5 kWh\nMeter 1234.5 kWh\n13.5 kWh', 'kWh', '12.5'],
    ['Meter total 12.5 kWh', 'kWh', 'not_printed'],
    ['l2,5 kWh', 'kWh', '12.5'],
    ['|2,5 kWh', 'kWh', '12.5'],
    ['I.O kWh', 'kWh', 'not_printed'],
    ['A41 kWh', 'kWh', 'not_printed'],
    ['41. 37 kWh', 'kWh', '41.37'],
    ['kWh 41.37', 'kWh', 'not_printed'],
    // Money.
    ['Total 12.20', 'amount', '12.2'],
    ['Total 12', 'amount', 'not_printed'],
    ['Total 12.20 of 13.20', 'amount', 'not_printed'],
    ['12.20', 'amount', 'not_printed'],
    ['Total 12.20 EUR 3.10 EUR', 'amount', 'several'],
    ['Total due: EUR12.20', 'amount', '12.2'],
    ['Total: 12.20EUR', 'amount', '12.2'],
    ['€-3.20', 'amount', '-3.2'],
    ['3,20- €', 'amount', '-3.2'],
    ['-€3.20', 'amount', '-3.2'],
    ['\u22123,20 €', 'amount', '-3.2'],
    ['Total 1.234 EUR', 'amount', 'mark'],
    ['Total 2310 EUR', 'amount', 'mark'],
    ['Total 231 EUR', 'amount', '231'],
    ['Montant 1 234,50 €', 'amount', '1234.5'],
    ['Total 1,234.50 USD', 'amount', '1234.5'],
    ['Total 100001.00 EUR', 'amount', 'bounds'],
    ['Total 100000.00 EUR', 'amount', '100000'],
    ['Subtotal 10.00 EUR\nTotal incl. 22% VAT 12.20 EUR', 'amount', '12.2'],
    ['Total net 10.00 EUR\nTotal 12.20 EUR', 'amount', '12.2'],
    ['Amount due\n\n12.20 EUR', 'amount', '12.2'],
    ['TOTAL EUR\n12.20', 'amount', '12.2'],
    ['Total incl. 22 % VAT\n12.20 EUR\n13.20 EUR', 'amount', '12.2'],
    ['Total\nVAT 2.20 EUR\n12.20 EUR', 'amount', '12.2'],
    ['Preis je kWh 0,55 EUR\n10,00 EUR', 'amount', '10'],
    ['EUR 0.55/kWh\nEUR 10.00', 'amount', '10'],
    ['0.20 EUR / min\n10.00 EUR', 'amount', '10'],
    ['Total 12.20 EUR\nPaid 12,20 EUR', 'amount', '12.2'],
    ['IO,5O EUR', 'amount', '10.5'],
    ['Summe EUR 12,20 inkl. MwSt', 'amount', '12.2'],
    ['Netto 10,00 EUR MwSt 2,20 EUR Brutto 12,20 EUR', 'amount', 'not_printed'],
    // The currency, even where the amount is not told.
    ['Total 1.234 EUR', 'currency', 'EUR'],
    ['0,55 EUR/kWh', 'currency', 'EUR'],
    ['CURRENCY: CHF', 'currency', 'CHF'],
    ['TRY AGAIN\n12 kWh', 'currency', 'not_printed'],
    ['Total 120 kr', 'currency', 'symbol'],
    ['Total: $ 12.20 USD', 'currency', 'USD'],
    ['Total 99 Kč', 'currency', 'CZK'],
    ['Total R$ 45,90', 'currency', 'BRL'],
    ['Total R$ 45,90', 'amount', '45.9'],
    ['Total R$ 45,90\nTributos Lei 12.741/2012', 'currency', 'BRL'],
    ['TOTAL LEI 45,90', 'currency', 'RON'],
    ['45,90 lei', 'currency', 'RON'],
    ['Total 350.50 THB', 'currency', 'THB'],
    ['Total 350.50 THB', 'amount', '350.5'],
    ['Total $ 350.50 MXN', 'currency', 'MXN'],
    ['Total 12,20 EUR\nLAK 7', 'currency', 'EUR'],
    ['12,20 EUR\nLAK 7', 'amount', '12.2'],
    ['350.50 THB\nLAK 7', 'amount', '350.5'],
    ['Total 350.50 THB\nLAK 7', 'currency', 'THB'],
    ['Total 12.20\nLAK 7\nGEL 12', 'currency', 'not_printed'],
    ['Total $ 12.20\nLAK 7', 'currency', 'symbol'],
    ['Total $ 12.20\nLAK 7.50', 'currency', 'symbol'],
    ['Total \u20a9 12,500', 'currency', 'KRW'],
    ['0.42 BRL/kWh', 'currency', 'BRL'],
    ['CUP 2\n12 kWh', 'currency', 'not_printed'],
    ['Total 12.20 GELATO', 'currency', 'not_printed'],
    ['23.10 £ 24.10 €', 'currency', 'several'],
    // How long.
    ['Duration: 41:20', 'minutes', 'form'],
    ['Duration: 0:41:20', 'minutes', 41 + 1 / 3],
    ['Duration: 41:20 min', 'minutes', 41 + 1 / 3],
    ['Dauer 41 min 20 s', 'minutes', 41 + 1 / 3],
    ['Dauer 1 h 05', 'minutes', 65],
    ['Dauer 49 h', 'minutes', 'bounds'],
    ['1h05min', 'minutes', 65],
    ['1 h 05', 'minutes', 'not_printed'],
    ['0:41', 'minutes', 'not_printed'],
    ['after 10 min\n22 min', 'minutes', 22],
    ['Parking max 90 min', 'minutes', 'not_printed'],
    ['22 min 23 min', 'minutes', 'several'],
    ['Dauer 22 min\n23 min', 'minutes', 22],
    // When.
    ['Di, 14.10.2025', 'date', '2025-10-14'],
    ['Mi, 14.10.2025', 'date', 'not_printed'],
    ['14 October 2025', 'date', '2025-10-14'],
    ['Oct 14, 2025', 'date', '2025-10-14'],
    ['03/03/2025', 'date', '2025-03-03'],
    ['03/04/2025', 'date', 'date_order'],
    ['03/04/2025\n25/03/2025', 'date', 'several'],
    ['Start 03/04/2025\n25/03/2025', 'date', '2025-04-03'],
    ['Start 13/10/2025\nEnd 14/10/2025', 'date', '2025-10-13'],
    ['gültig bis 31.10.2025\n14.10.2025', 'date', '2025-10-14'],
    ['22.11.2025', 'date', '2025-11-22'],
    ['23.11.2025', 'date', 'not_printed'],
    ['31.02.2025', 'date', 'not_printed'],
    ['14.10.1989', 'date', 'not_printed'],
    ['14.10.1990', 'date', '1990-10-14'],
    // The weekday before it tells the order: 4 March 2025 was a Tuesday, 3 April a Thursday.
    ['Tue 03/04/2025', 'date', '2025-03-04'],
    ['Tue.  03/04/2025', 'date', '2025-03-04'],
    ['Thu 03/04/2025', 'date', '2025-04-03'],
    ['at: 03/04/2025', 'date', 'date_order'],
    // Of two orders that are both proved none settles the others; begun then is what is not plain.
    ['Start 03/04/2025\n25/03/2025\n03/26/2025', 'date', 'date_order'],
    ['Start 03/04/2025\nStart 25/03/2025', 'date', 'several'],
    ['Start 03/04/2025\nStart 03/04/2025\n25/03/2025', 'date', '2025-04-03'],
    ['2025-10-14T13:52', 'date', '2025-10-14'],
    // Where.
    ['HOLLIN  BRIDGE', 'site', 'Hollin Bridge'],
    ['Ho11in Br1dge', 'site', 'Hollin Bridge'],
    ['Vrba\nCrossing', 'site', 'Vrba Crossing'],
    ['Vrba Crossings', 'site', 'unknown'],
    ['Hollin Bridge and Kamen Toll', 'site', 'several'],
  ] as const)('%j: %s is %s', (text, field, expected) => {
    const { proposal, emptyBecause } = read(text);
    const value = proposal[field];
    if (typeof expected === 'number') expect(value).toBeCloseTo(expected, 9);
    else expect(value === null ? emptyBecause[field] : field === 'kWh' || field === 'amount' ? String(Number(value)) : value).toBe(expected);
  });
  it('nothing is in nothing; a site within the name of another is that other', () => {
    expect(read('')).toEqual({
      proposal: { kWh: null, amount: null, currency: null, minutes: null, date: null, site: null },
      emptyBecause: { kWh: 'not_printed', amount: 'not_printed', currency: 'not_printed', minutes: 'not_printed', date: 'not_printed', site: 'unknown' },
    });
    expect(read('Lipa Barn North', ['Lipa Barn', 'Lipa Barn North', '—']).proposal.site).toBe('Lipa Barn North');
    expect(read('Lipa Barn North, Lipa Barn', ['Lipa Barn', 'Lipa Barn North']).proposal.site).toBe('Lipa Barn North');
  });
  it('never falls over, whatever stands there', () => {
    fc.assert(
      fc.property(fc.string({ unit: 'grapheme', maxLength: 200 }), fc.constantFrom(...fixtures.cases.map((c) => c.text)), fc.nat(), (noise, text, at) => {
        const cut = at % text.length;
        const { proposal, emptyBecause } = read(text.slice(0, cut) + noise + text.slice(cut));
        for (const [field, value] of Object.entries(proposal)) expect((value === null) === field in emptyBecause).toBe(true);
      }),
      { numRuns: 1000, seed: 7 },
    );
  });
});
