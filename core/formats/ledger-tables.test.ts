import { csvParse } from 'd3-dsv';
import { deriveVisit } from '../visit/derive';
import { CARD, IN, KW, STALL_A, type Step, story, VISIT } from '../visit/fixtures/story';
import { payloadProblem } from '../visit/payloads';
import { csvOut } from './csv-out';
import { type SheetNames, VISIT_SHEETS, type VisitSheetName } from './ledger-tables';

const names: SheetNames = { site: () => 'Vrba Crossing', network: () => 'Saltmarsh Rapid', stall: () => '4', car: () => null, person: () => 'Ines' };
const STEPS: Step[] = [
  IN,
  [10, 'stall_chosen', { stallId: STALL_A }],
  [20, 'plugged'],
  [30, 'means_shown', CARD],
  [60, 'power_seen', KW],
  [62, 'reading', { screen: 'stall', socPct: 20, kW: 50, kWh: '0.1' }],
  [1862, 'reading', { screen: 'stall', socPct: 60, kW: 48, kWh: '25.0', V: 390, A: 123 }],
  [1865, 'stop_asked', { by: 'button' }],
  [1900, 'unplugged'],
  [1950, 'pulled_out', { reason: 'enough' }],
  [2000, 'bill', { sessions: [], amount: '12.50', currency: 'EUR', state: 'charged', kWh: '25.0' }],
];
const visit = (steps: Step[]) => deriveVisit(VISIT, story(...steps), payloadProblem);
const sheet = (name: VisitSheetName, steps = STEPS) => [...csvParse(csvOut(VISIT_SHEETS[name].columns, VISIT_SHEETS[name].rows(visit(steps), names)))];

describe('the ledger as sheets', () => {
  it('a visit with its figures, and times by the clock of the place', () => {
    const [row] = sheet('visits');
    expect(row).toMatchObject({
      visit: VISIT,
      'pulled in': '2025-10-14T13:52:00.000+02:00',
      site: 'Vrba Crossing',
      'handshake (s)': '30',
      'handshake (s): unknown because': '',
      'delivered (kWh)': '25',
      'battery from (%)': '20',
      paid: '12.5',
      currency: 'EUR',
      left: 'enough',
      withdrawn: 'no',
    });
  });
  it('what is not known is empty and says why', () => {
    const [row] = sheet('visits', [IN, [60, 'pulled_out', { reason: 'queue' }]]);
    expect(row?.['handshake (s)']).toBe('');
    expect(row?.['handshake (s): unknown because']).toBe('no power was seen');
    expect(row?.['paid: unknown because']).toBe('no bill recorded');
  });
  it('attempts, events, readings and bills, a line each', () => {
    expect(sheet('attempts')).toEqual([
      expect.objectContaining({ attempt: '1', stall: '4', means: 'contactless', outcome: 'power', 'handshake (s)': '30', 'delivered (kWh)': '25.0' }),
    ]);
    expect(sheet('events')).toHaveLength(STEPS.length);
    expect(sheet('events')[3]).toMatchObject({ kind: 'means_shown', 'payload (JSON)': JSON.stringify(CARD) });
    expect(sheet('readings')[1]).toMatchObject({
      'after power (s)': '1802',
      'battery (%)': '60',
      'power (kW)': '48',
      'energy (kWh)': '25.0',
      'voltage (V)': '390',
      'current (A)': '123',
    });
    expect(sheet('bills')).toEqual([expect.objectContaining({ amount: '12.50', currency: 'EUR', 'billed (kWh)': '25.0', state: 'charged' })]);
  });
  it('what is withdrawn says so in every sheet, and its bill counts nowhere', () => {
    const withdrawn: Step[] = [...STEPS, [2100, 'withdrawal', { target: VISIT }]];
    for (const name of Object.keys(VISIT_SHEETS) as VisitSheetName[]) {
      expect([name, new Set(sheet(name).map((r) => r.withdrawn))]).toEqual([name, new Set(['no'])]);
      expect([name, new Set(sheet(name, withdrawn).map((r) => r.withdrawn))]).toEqual([name, new Set(['yes'])]);
    }
    expect([sheet('bills')[0]?.counted, sheet('bills', withdrawn)[0]?.counted]).toEqual(['yes', 'no']);
  });
});
