import { csvParse } from 'd3-dsv';
import { wilsonInterval } from '../evidence/wilson';
import { csvText } from '../units/csv-text';
import { comparedCsv } from './compared-csv';
import { comparedGroups } from './compared-groups';
import { attempt, failed, visit } from './fixtures/rows';
import { LOOK_NAMES, LOOKS, MEASURE_NAMES } from './measures';
import { waitingCsv } from './waiting-csv';
import { waitingCurves } from './waiting-curve';

const ASKED = { time: 'handshake', mark: 'kW', currency: 'EUR', without: 'car' } as const;
const visits = [
  ...[10, 20, 30, 40, 50].map((s) =>
    visit({ siteId: 'a', attempts: [attempt(s)], queue_s: s, paid: '5', deliveredKWh: '10', currency: 'EUR', baysSeen: 4, baysOut: 1 }),
  ),
  visit({ siteId: 'b', firstTry: 'no', firstSide: 'car', attempts: [failed], faultMarks: 'start_error:network' }),
];

describe('a comparison as CSV', () => {
  const namedRows = () =>
    comparedGroups(visits, ASKED, ['site'], MEASURE_NAMES).rows.map((row) => ({
      row,
      names: [row.groups[0]?.key === 'a' ? 'Hollin, "Bridge"' : '=HYPERLINK("x")'],
    }));
  const parsed = () => csvParse(comparedCsv(namedRows(), ['site'], MEASURE_NAMES, ASKED));
  it('has a line for each group and every count', () => {
    const lines = parsed();
    expect(lines).toHaveLength(2);
    const a = lines.find((l) => l.site === 'Hollin, "Bridge"');
    expect(a).toMatchObject({
      Visits: '5',
      Sites: '1',
      'Billed charges': '0',
      'Starts at the first try: yes': '5',
      'Starts at the first try: of': '5',
      'Starts at the first try: share': '1',
      "Starts at the first try without the car's: of": '5',
      'Handshake to first kW: timed': '5',
      'Handshake to first kW: median s': '30',
      'Handshake to first kW: never': '0',
      'Queue: median s': '30',
      'Paid: EUR per kWh': '0.5',
      'Lost per visit: mean s': '0',
      'Out of order on arrival: bays': '5',
      'Out of order on arrival: of bays': '20',
      'Faults and refusals: per 100 visits': '0',
      'Repaired after, as seen: seen repaired': '0',
    });
  });
  it('leaves empty what is not known, and makes no formula of a name', () => {
    const b = parsed().find((l) => l.site?.startsWith("'="));
    expect(b).toMatchObject({
      'Handshake to first kW: median s': '',
      'Paid: EUR per kWh': '',
      'Faults and refusals: which': 'Start error 1',
      'Handshake to first kW: never': '1',
    });
  });
  it('of nothing is nothing', () => expect(comparedCsv([], ['site'], MEASURE_NAMES, ASKED)).toBe(''));
  it('every look has its own columns', () => {
    for (const look of LOOK_NAMES) expect(comparedCsv(namedRows(), ['site'], LOOKS[look].measures, ASKED).split('\n')).toHaveLength(4);
  });
});

it('every kind of figure has its columns, each count, and what was left out', () => {
  const charged = { ended: 'charge', deliveredKWh: '10', currency: 'EUR' };
  const all = [
    visit({
      ...charged,
      siteId: 'a',
      attempts: [attempt(10, { charging: 3600, interruptions: 1 })],
      paid: '6',
      billCheck: 'off',
      noted: true,
      baysSeen: 4,
      baysOut: 1,
      queue_s: 60,
      lost_s: 30,
      faultMarks: 'start_error:network',
    }),
    visit({ siteId: 'a', firstTry: 'no', firstSide: 'car', attempts: [{ ...failed, side: 'car' }], queue_s: 120, lost_s: 90, faultMarks: 'card_refused:car' }),
    visit({ ...charged, siteId: 'a', firstTry: 'left_out', attempts: [attempt(30, { late: true })], paid: '8', billCheck: 'right', noted: false }),
    visit({ siteId: 'b', attempts: [attempt(20)] }),
  ];
  const measures = ['firstTry', 'wait', 'lost', 'allIn', 'interruptions', 'faults', 'sides', 'outOfOrder', 'queue', 'repair'] as const;
  const rows = comparedGroups(all, ASKED, ['network', 'month'], measures).rows.map((row) => ({ row, names: ['Bluebarn', 'Oct 2025'] }));
  const [ofThree, ofFour] = [wilsonInterval(2, 3), wilsonInterval(1, 4)];
  const text = comparedCsv(rows, ['network', 'month'], measures, ASKED);
  expect(text.endsWith('\n')).toBe(true);
  expect(csvParse(text).map((r) => ({ ...r }))).toEqual([
    {
      network: 'Bluebarn',
      month: 'Oct 2025',
      Visits: '4',
      Sites: '2',
      'Share at the commonest site': '0.75',
      'Billed charges': '2',
      'Billed charges with the start recorded': '1',
      'Starts at the first try: yes': '2',
      'Starts at the first try: of': '3',
      'Starts at the first try: share': String(2 / 3),
      'Starts at the first try: 95 % from': String(ofThree[0]),
      'Starts at the first try: 95 % to': String(ofThree[1]),
      'Starts at the first try: left out': '1',
      "Starts at the first try without the car's: yes": '2',
      "Starts at the first try without the car's: of": '2',
      'Handshake to first kW: timed': '2',
      'Handshake to first kW: never': '1',
      'Handshake to first kW: left out': '1',
      'Handshake to first kW: median s': '20',
      'Handshake to first kW: quarter s': '15',
      'Handshake to first kW: three quarters s': '',
      'Lost per visit: n': '4',
      'Lost per visit: mean s': '30',
      'Paid: visits': '2',
      'Paid: EUR per kWh': '0.7',
      'Paid: bills off': '1',
      'Paid: bills checked': '2',
      'Paid: kWh of a stop, median': '10',
      'Interruptions: count': '1',
      'Interruptions: hours': '1',
      'Interruptions: per 100 h': '100',
      'Interruptions: which': 'interruption 1',
      'Faults and refusals: count': '1',
      'Faults and refusals: visits': '4',
      'Faults and refusals: per 100 visits': '25',
      'Faults and refusals: which': 'Start error 1',
      'Whose side they were on: count': '1',
      'Whose side they were on: visits': '4',
      'Whose side they were on: per 100 visits': '25',
      'Whose side they were on: which': 'network 1',
      'Out of order on arrival: bays': '1',
      'Out of order on arrival: of bays': '4',
      'Out of order on arrival: looks': '1',
      'Out of order on arrival: 95 % from': String(ofFour[0]),
      'Out of order on arrival: 95 % to': String(ofFour[1]),
      'Queue: n': '2',
      'Queue: median s': '90',
      'Queue: quarter s': '75',
      'Queue: three quarters s': '105',
      'Repaired after, as seen: seen repaired': '0',
      'Repaired after, as seen: not seen working since': '0',
      'Repaired after, as seen: at least s, median': '',
      'Repaired after, as seen: at most s, median': '',
    },
  ]);
});

it('says of which visits it is, in each row, where it is not of all', () => {
  const chosen = 'of Bluebarn, since 1 Oct 2025';
  const { rows } = comparedGroups(visits, ASKED, ['site'], ['firstTry']);
  const named = rows.map((row) => ({ row, names: ['A'] }));
  expect(csvParse(comparedCsv(named, ['site'], ['firstTry'], ASKED, chosen)).map((l) => l['Only visits'])).toEqual(rows.map(() => chosen));
  expect(comparedCsv(named, ['site'], ['firstTry'], ASKED)).not.toContain('Only');
  const { curves } = waitingCurves(visits, ASKED, 'network');
  const lines = csvParse(waitingCsv(curves, () => 'Bluebarn', '=1'));
  expect(lines.map((l) => l['Only visits'])).toEqual(lines.map(() => "'=1"));
});

it('curves: each time at which somebody got power, with its limits', () => {
  const { curves } = waitingCurves(visits, ASKED, 'network');
  const lines = csvParse(waitingCsv(curves, () => 'Bluebarn'));
  expect(lines[0]).toEqual({ Of: 'Bluebarn', 'After s': '0', 'Still waiting': '1', '95 % from': '', '95 % to': '', 'At risk': '6', 'Got power': '0' });
  expect(lines.map((l) => l['After s'])).toEqual(['0', '10', '20', '30', '40', '50']);
  expect(Number(lines.at(-1)?.['Still waiting'])).toBeCloseTo(1 / 6, 9);
});

it.each([
  ['=1', "'=1"],
  ['+1', "'+1"],
  ['-1', "'-1"],
  ['@x', "'@x"],
  ['\tx', "'\tx"],
  ['\rx', "'\rx"],
  ['a=1', 'a=1'],
  [-1, '-1'],
  [null, ''],
] as const)('%j as a cell is %j', (value, text) => expect(csvText(value)).toBe(text));
