import { csvParse } from 'd3-dsv';
import { deriveVisit } from '../visit/derive';
import { CARD, IN, KW, STALL_A, type Step, story, T0, VISIT } from '../visit/fixtures/story';
import { payloadProblem } from '../visit/payloads';
import { csvOut } from './csv-out';
import { type SheetNames, VISIT_SHEETS, type VisitSheetName } from './ledger-tables';
import { readSheet } from './sheet-import';

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
      // 25 kWh in the 1,805 s from power to the stop.
      'average (kW)': '49.861',
      'battery from (%)': '20',
      paid: '12.5',
      currency: 'EUR',
      left: 'enough',
      withdrawn: 'no',
    });
  });
  it('counts what failed and what was given up, and not what came', () => {
    const fault: Step[] = [...STEPS.slice(0, 4), [100, 'fault', { code: 'no_power' }], [110, 'unplugged']];
    const gaveUp: Step[] = [...fault, [120, 'plugged'], [400, 'pulled_out', { reason: 'gave_up' }]];
    const came: Step[] = [...fault, ...STEPS.slice(2).map(([s, ...of]) => [s + 600, ...of] as Step)];
    const told = (steps: Step[]) => [visit(steps).attempts.map((a) => a.outcome.kind), sheet('visits', steps)[0]?.failed];
    expect(told(gaveUp)).toEqual([['failed', 'gave_up'], '2']);
    expect(told(came)).toEqual([['failed', 'power'], '1']);
  });
  it('the visits come in again as they went out; what is withdrawn is passed over', () => {
    const took = (steps: Step[]) => {
      const { columns, rows } = VISIT_SHEETS.visits;
      const csv = new TextEncoder().encode(csvOut(columns, rows(visit(steps), names)));
      const read = readSheet(csv, { sites: [], networks: [] }, { zone: 'UTC', now: T0 + 86_400_000, currency: 'EUR' });
      if (!read.ok) throw new Error(read.code);
      return read;
    };
    const { accepted, refused, asks, skipped } = took(STEPS);
    expect({ refused, asks, skipped }).toEqual({ refused: [], asks: [], skipped: [] });
    expect(accepted).toMatchObject([
      { start: T0, startPrecision: 'ms', end: T0 + 1_950_000, site: 'Vrba Crossing', network: 'Saltmarsh Rapid', kWh: '25', amount: '12.5', currency: 'EUR' },
    ]);
    expect(accepted).toMatchObject([{ handshake_s: 30, socFrom: 20, socTo: 60, warnings: [] }]);
    const back = took([...STEPS, [2100, 'withdrawal', { target: VISIT }]]);
    expect({ accepted: back.accepted, refused: back.refused, skipped: back.skipped }).toEqual({
      accepted: [],
      refused: [],
      skipped: [{ line: 2, code: 'withdrawn' }],
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
  const MANY: Step[] = [
    IN,
    [10, 'stall_chosen', { stallId: STALL_A }],
    [20, 'plugged'],
    [30, 'means_shown', CARD],
    [90, 'fault', { code: 'start_error', side: 'network' }],
    [95, 'fault', { code: 'screen_dark', side: 'site' }],
    [100, 'unplugged'],
    [120, 'plugged'],
    [130, 'means_shown', CARD],
    [160, 'power_seen', { ...KW, late: true }],
    [200, 'reading', { screen: 'stall', kWh: '1.0', cost: '0.61', currency: 'EUR' }],
    [1960, 'reading', { screen: 'stall', kWh: '25.0' }],
    [1970, 'unplugged'],
    [1980, 'pulled_out', { reason: 'enough' }],
    [1990, 'mark', { as: 'business' }],
    [1991, 'bill', { sessions: [], amount: '12.50', currency: 'EUR', state: 'charged' }],
  ];
  it('a visit with a failed attempt: each says what went wrong, and a bound is no time', () => {
    const [row] = sheet('visits', MANY);
    expect(row).toMatchObject({ attempts: '2', failed: '1', 'first try': 'no', 'counts as': 'business' });
    const [first, second] = sheet('attempts', MANY);
    expect(first).toMatchObject({
      outcome: 'failed',
      faults: 'start_error screen_dark',
      'delivered (kWh)': '',
      'delivered (kWh): unknown because': 'no power was seen',
    });
    expect(second).toMatchObject({
      outcome: 'power',
      faults: '',
      'handshake (s)': '',
      'handshake (s): unknown because': 'at most 30.0 s',
      'delivered (kWh)': '25.0',
    });
    expect(sheet('readings', MANY)[0]).toMatchObject({ attempt: '2', 'after power (s)': '40', cost: '0.61', currency: 'EUR', 'power (kW)': '' });
    expect(sheet('visits', [...MANY, [2000, 'mark', { as: 'left_out', reason: 'a trial' }]])[0]?.['counts as']).toBe('left out');
  });
  it('what is known to the minute or the day is written no finer', () => {
    const rough = story(...MANY).map((e) => ({
      ...e,
      precision: e.kind === 'pulled_in' ? ('min' as const) : e.kind === 'pulled_out' ? ('s' as const) : e.precision,
    }));
    const of = deriveVisit(VISIT, rough, payloadProblem);
    const [row] = csvParse(csvOut(VISIT_SHEETS.visits.columns, VISIT_SHEETS.visits.rows(of, names)));
    expect([row?.['pulled in'], row?.['pulled out']]).toEqual(['2025-10-14T13:52+02:00', '2025-10-14T14:25:00+02:00']);
    const days = deriveVisit(
      VISIT,
      story(...MANY).map((e) => (e.kind === 'reading' ? { ...e, precision: 'day' as const } : e)),
      payloadProblem,
    );
    expect(csvParse(csvOut(VISIT_SHEETS.readings.columns, VISIT_SHEETS.readings.rows(days, names)))[0]?.['after power (s)']).toBe('');
  });
  it('a charge that goes on is told at least, and one that nobody read not at all', () => {
    const until = (kind: string) =>
      MANY.slice(
        0,
        MANY.findLastIndex((x) => x[1] === kind),
      );
    const [row] = sheet('attempts', until('reading')).slice(1);
    expect(row?.['delivered (kWh): unknown because']).toBe('at least 1.0 kWh');
    expect(sheet('visits', until('reading'))[0]?.['delivered (kWh): unknown because']).toBe('at least 1 kWh');
    const unread = MANY.filter((x) => x[1] !== 'reading' && x[1] !== 'bill');
    expect(sheet('attempts', unread)[1]?.['delivered (kWh): unknown because']).toBe('no kWh was read from the stall or the bill');
  });
});
