import { renderToStaticMarkup } from 'react-dom/server';
import { readCompareAsk } from '@/core/compare/compare-address';
import { comparedGroups } from '@/core/compare/compared-groups';
import { LOOKS } from '@/core/compare/measures';
import { recordItem } from '@/core/records/record-schema';
import { deriveVisit } from '@/core/visit/derive';
import { CARD, IN, idOf, KW, PERSON, STALL_A, STALL_B, type Step, story, T0, VISIT } from '@/core/visit/fixtures/story';
import { payloadProblem } from '@/core/visit/payloads';
import { ComparedTable } from '../compare/compared-table';
import { ThinTape } from '../tape/thin-tape';
import { VisitSheet, type VisitSheetData } from './visit-sheet';

const text = (markup: string) =>
  markup
    .replace(/<style.*?<\/style>|<[^>]+>/g, ' ')
    .replace(/&#x27;/g, "'")
    .replace(/\s+/g, ' ');
const names = {
  site: () => 'Vrba Crossing',
  network: () => 'Saltmarsh Rapid',
  stall: (id: string | null) => (id === STALL_A ? '2' : '4'),
  car: () => 'Heron 62',
  adapter: () => '',
  means: () => '',
  person: () => 'Ines Kolar',
};
const page = (...steps: Step[]): VisitSheetData => {
  const visit = deriveVisit(VISIT, story(IN, [5, 'stall_chosen', { stallId: STALL_A }], ...steps), payloadProblem);
  return {
    visit,
    state: visit.pulledOutAt === null ? 'running' : 'over',
    names,
    networkId: null,
    doubts: [],
    stalls: [{ id: STALL_B, fields: recordItem('stall', STALL_B, { siteId: STALL_A, name: '4', outlets: [{ connector: 'CCS2', ratedKW: 150 }] }).fields }],
    today: '2025-10-15',
    checked: null,
    people: [PERSON],
    stop: null,
    clocks_s: [],
    joinedFrom: [],
  };
};
const sheet = (data: VisitSheetData) => text(renderToStaticMarkup(<VisitSheet page={data} withdraw={null} correct={() => null} />));

const FAILED: Step[] = [
  [10, 'plugged'],
  [20, 'means_shown', CARD],
  [60, 'fault', { code: 'start_error', side: 'network' }],
  [300, 'stall_chosen', { stallId: STALL_B }],
];
const CHARGED: Step[] = [
  [320, 'plugged'],
  [330, 'means_shown', CARD],
  [363.4, 'power_seen', KW],
  [600, 'reading', { screen: 'stall', socPct: 18, kW: 121, kWh: '8.0' }],
  [2160, 'reading', { screen: 'stall', socPct: 80, kW: 51, kWh: '41.6' }],
  [2163.4, 'stop_asked', { by: 'button' }],
  [2463.4, 'unplugged'],
  [2500, 'pulled_out', { reason: 'enough' }],
  [2600, 'bill', { sessions: [], amount: '24.17', currency: 'EUR', state: 'charged' }],
];

describe('the page of a visit says', () => {
  it('of a record of every second its beginning and its end, and how to see all of it', () => {
    const seconds = Array.from({ length: 600 }, (_, i): Step => [400 + i, 'reading', { screen: 'stall', socPct: 20, kW: 119, kWh: (i / 100).toFixed(2) }]);
    const data = page([10, 'stall_chosen', { stallId: STALL_B }], [320, 'plugged'], [363.4, 'power_seen', KW], ...seconds, [1100, 'unplugged']);
    const said = sheet(data);
    const n = data.visit.line.length;
    expect(said).toContain(`${n - 400} more events between. Show all ${n}`);
    expect(said).toContain('480 more readings between. Show all 600');
    expect(said.match(/ Reading /g)?.length).toBeGreaterThan(380);
    expect(said.match(/ Reading /g)?.length).toBeLessThan(400);
    const all = text(renderToStaticMarkup(<VisitSheet page={data} whole withdraw={null} correct={() => null} />));
    expect(all.match(/ Reading /g)).toHaveLength(600);
    expect(all).not.toContain('between.');
  });
  it('which screen was read, where it is one; what each reading was of, where there are two', () => {
    const read = (screen: string) => [700, 'reading', { screen, socPct: 30 }] as Step;
    const charged = CHARGED.slice(0, 4);
    expect(sheet(page(...charged, read('stall')))).toContain('All read on the stall’s screen.');
    const two = sheet(page(...charged, read('car')));
    expect(two).not.toContain('All read on');
    expect(two).toMatch(/ Screen .* 30 % car /);
    expect(two).not.toContain(' Cost ');
    expect(sheet(page(...charged, [700, 'reading', { screen: 'stall', cost: '4.10', currency: 'EUR' }]))).toMatch(/ Cost .*€4\.10/);
  });
  it('the figures of core in the forms of the house', () => {
    const said = sheet(page(...FAILED, ...CHARGED));
    for (const figure of [
      '33.4 s',
      '41.6 kWh',
      '18 to 80 %',
      '83 kW',
      'peak 121, stall’s screen',
      '€24.17',
      '€0.581 per kWh with fees',
      '5:10',
      '1. Stall 2: failed (start error)',
      '2. Stall 4: power',
    ])
      expect(said).toContain(figure);
  });
  it('"not read" with its reason, and never zero, where a figure is missing', () => {
    const said = sheet(page([10, 'plugged'], [20, 'means_shown', CARD]));
    expect(said).toContain('Handshake not read no power was seen');
    expect(said).toContain('Delivered not read the visit is still open');
    expect(said).toContain('This visit is still open');
    expect(said).not.toMatch(/\b0\.0 kWh|€0\.00/);
  });
  it('what the bill is over the tariff', () => {
    const data = page(...FAILED, ...CHARGED);
    const checked = {
      by: 'guest',
      since: '2025-01-01',
      tariffId: 't',
      currency: 'EUR',
      lines: [{ label: 'Energy', how: '41.6 kWh × 0.55 per kWh', amount: '22.88' }],
      total: '23.34',
      tax: null,
      difference: { known: true as const, value: '0.83' },
      explanations: [{ cause: 'rounding' as const, text: 'Because.', fit: 'exact' as const }],
      guest: null,
      question: null,
      query: 'To the network',
    };
    const said = sheet({ ...data, checked });
    expect(said).toContain('Should be, tax in €23.34');
    expect(said).toContain('Because. Fits to the cent.');
    expect(said).toContain('Draft a query');
    expect(sheet({ ...data, checked: { unpriced: 'nobody knows' } })).toContain('The bill is not checked: nobody knows.');
    expect(said).toContain('€0.83 over.');
  });
  it('what was corrected, when and by whom, and what was taken back', () => {
    const said = sheet(page(...CHARGED, [3000, 'correction', { target: idOf(104), at: T0 + 353_400 }], [3010, 'withdrawal', { target: idOf(105) }]));
    expect(said).toMatch(/corrected: time set to 13:57:53 by Ines Kolar, 14 Oct 2025/);
    expect(said).toMatch(/Taken back, kept and not counted: Reading/);
  });
  it('what looks wrong beside what is on file comes first, and what no longer fits in is counted', () => {
    const fell: Step[] = [10, 20, 30, 40].map((i): Step => [600 + i, 'reading', { screen: 'stall', socPct: 80 - i }]);
    const shown = sheet({ ...page(...CHARGED.slice(0, 3), ...fell), doubts: ['kWh against time: too much.'] });
    expect(shown).toMatch(/Worth a second look\. kWh against time: too much\. Worth a second look\. The battery was at 70 % before/);
    expect(shown).toContain('More looks wrong: 1 figure, in the tables below.');
  });
  it('that it is withdrawn', () => expect(sheet(page(...CHARGED, [3000, 'withdrawal', { target: VISIT }]))).toContain('This visit is withdrawn.'));
});

describe('a thin tape', () => {
  it('tells by words what it shows by paint, a handshake by half its height', () => {
    const markup = renderToStaticMarkup(
      <ThinTape
        tape={[
          ['bare', 10],
          ['handshake', 30],
          ['fault', 20],
          ['energy', 40],
        ]}
      />,
    );
    expect(markup).toContain('aria-label="Tape: waiting for power, fault, charging"');
    expect(markup).toMatch(/x="10%" width="30%" y="5" height="5"/);
    expect(markup).not.toContain('style=');
  });
});

describe('the comparison', () => {
  it('links every number to the visits it was counted from', () => {
    const row = (firstTry: 'yes' | 'no', s: number | null) => ({
      visitId: 'v',
      networkId: idOf(60),
      siteId: 's',
      stallId: null,
      workedAt: [],
      driverId: null,
      at: 0,
      month: '2025-10',
      attemptCount: 1,
      firstTry,
      firstSide: null,
      leftReason: 'enough',
      leftOut: false,
      lost_s: 30,
      deliveredKWh: '20',
      paid: '10',
      currency: 'EUR',
      attempts: [
        {
          outcome: s === null ? ('failed' as const) : ('power' as const),
          endMark: s === null ? null : ('kW' as const),
          late: false,
          handshake: s,
        },
      ],
    });
    const asked = { time: 'handshake', mark: 'kW', currency: 'EUR' } as const;
    const { rows } = comparedGroups([row('yes', 20), row('yes', 30), row('no', null)], asked, ['network'], LOOKS.starts.measures);
    const named = rows.map((r) => ({ row: r, names: ['Bluebarn'], part: null }));
    const markup = renderToStaticMarkup(<ComparedTable rows={named} ask={readCompareAsk(() => null)} asked={asked} />);
    for (const counted of ['attempted', 'first_yes', 'first_no', 'timed', 'never', 'lost', 'priced'])
      expect(markup).toContain(`network=${idOf(60)}&amp;counted=${counted}`);
    expect(text(markup)).toContain('67 %');
    expect(text(markup)).toContain('€0.500');
  });
});
