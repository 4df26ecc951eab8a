import { faultLabel } from '@/core/faults/fault-list';
import { meansLabel } from '@/core/records/means-kind';
import { billState } from '@/core/tariff/bill-state';
import type { DistanceUnit } from '@/core/units/distance';
import { printMoney } from '@/core/units/money';
import { NOT_READ, printKWh } from '@/core/units/print';
import { printCalendarDate, printClock, printLongDate, printTime } from '@/core/units/zoned';
import { attemptsText } from '@/core/visit/attempt-text';
import { meansOf, TIME_RULES, type TimeName } from '@/core/visit/attempt-times';
import { attemptsBy } from '@/core/visit/billed';
import type { TimedAttempt, Visit } from '@/core/visit/derive';
import { eventDetail, eventLabel } from '@/core/visit/kinds/registry';
import { span } from '@/core/visit/timing';
import { timingText } from '@/core/visit/timing-text';
import { AGAIN } from '@/core/visit/told-bills';
import { toldMarks } from '@/core/visit/told-marks';
import { visitCode } from '@/core/visit/visit-code';
import { visitFacts } from '@/core/visit/visit-facts';
import { visitFlags } from '@/core/visit/visit-flags';
import type { VisitPageData } from '../visits/visit-page';
import { PdfSheet } from './pdf-sheet';
import { drawTape } from './pdf-tape';

/** The page of a visit on paper: the tape, the facts, every attempt with its times, the readings, the bill, the record. @param at when it is made */
export async function visitPdf(page: VisitPageData, at: Date, distance: DistanceUnit): Promise<Buffer> {
  const { visit: v, names } = page;
  const arrived = v.pulledInAt ?? v.line[0]?.t ?? v.lastEventAt;
  const place = names.site(v.siteId);
  const sheet = new PdfSheet(`${place}, ${printLongDate(arrived, v.zone)}`, at);
  const stalls = [...new Set(v.attempts.flatMap((a) => a.stallId ?? []))].map((id) => names.stall(id)).filter(Boolean);
  sheet.small(
    [
      printLongDate(arrived, v.zone),
      v.pulledInAt === null || v.dayOnly ? null : `pulled in ${printTime(v.pulledInAt, v.zone)}`,
      names.network(page.networkId),
      stalls.length > 0 ? `stall ${stalls.join(', then ')}` : 'no stall tried',
      names.car(v.carId),
      page.people.length > 1 && names.person(v.driverId) ? `${names.person(v.driverId)} drove` : null,
      `code ${visitCode(v.id)}`,
    ]
      .filter(Boolean)
      .join(', '),
  );
  sheet.text(place, { face: 'bold', size: 20 });
  if (v.withdrawn) sheet.text('This visit is withdrawn: it stands in no list, count or figure.', { face: 'bold' });
  for (const question of [...page.doubts, ...visitFlags(v)]) sheet.small(`Worth a second look. ${question}`);
  sheet.gap(4);
  drawTape(sheet, v.tape, toldMarks(v.line, names.stall));
  sheet.rule();
  sheet.facts(visitFacts(v, page.state));
  attempts(sheet, page);
  readings(sheet, v);
  bill(sheet, page);
  record(sheet, page, distance);
  return sheet.bytes();
}

const OUTCOME = { power: 'power', failed: 'failed', gave_up: 'gave up', open: 'open' } as const;
/** The times of an attempt that are known, each by its name. */
const timesOf = (a: TimedAttempt): string =>
  (Object.keys(TIME_RULES) as TimeName[])
    .filter((name) => a.times[name].known)
    .map((name) => `${TIME_RULES[name].label.toLowerCase()} ${timingText(a.times[name])}`)
    .join(', ');

function attempts(sheet: PdfSheet, { visit: v, names }: VisitPageData): void {
  sheet.head('Attempts and their times');
  if (v.attempts.length === 0) {
    sheet.small('None was made.');
    return;
  }
  sheet.table(
    [
      { head: '', of: 0.05 },
      { head: 'Stall', of: 0.09 },
      { head: 'Paid with', of: 0.17 },
      { head: 'Came to', of: 0.26 },
      { head: 'Times', of: 0.43 },
    ],
    v.attempts.map((a) => [
      `${a.n}.`,
      names.stall(a.stallId),
      meansLabel(meansOf(a)?.meansKind ?? '') || 'not noted',
      [OUTCOME[a.outcome.kind], 'reason' in a.outcome ? a.outcome.reason : null, ...a.faults.map((f) => faultLabel(f.code))]
        .filter((x, i, all) => x && all.indexOf(x) === i)
        .join(', '),
      timesOf(a) || NOT_READ,
    ]),
  );
}

function readings(sheet: PdfSheet, v: Visit): void {
  const rows = v.attempts.flatMap((a) => a.readings.map((r) => ({ ...r, after: a.proof ? span(a.proof, r.mark) : null })));
  sheet.head('Readings');
  if (rows.length === 0) {
    sheet.small('None was taken.');
    return;
  }
  sheet.table(
    [
      { head: 'Time', of: 0.16 },
      { head: 'After power', of: 0.16, right: true },
      { head: 'Battery', of: 0.13, right: true },
      { head: 'kW', of: 0.12, right: true },
      { head: 'kWh', of: 0.14, right: true },
      { head: 'Cost', of: 0.17, right: true },
      { head: 'Screen', of: 0.12 },
    ],
    rows.map((r) => [
      printClock(r.mark.t, v.zone),
      r.after?.known ? timingText(r.after) : '',
      r.socPct === undefined ? '' : `${r.socPct} %`,
      r.kW === undefined ? '' : String(Math.round(r.kW)),
      r.kWh ?? '',
      r.cost === undefined ? '' : r.currency ? printMoney(r.cost, r.currency) : r.cost,
      `${r.screen}’s`,
    ]),
  );
}

function bill(sheet: PdfSheet, { visit: v, checked }: VisitPageData): void {
  const priced = checked && !('unpriced' in checked) ? checked : null;
  sheet.head('The bill');
  const rows = [
    ...(priced
      ? [
          ...priced.lines.map((l) => [l.how ? `${l.label}, ${l.how}` : l.label, printMoney(l.amount, priced.currency)]),
          [`By the price on file, ${priced.by}, since ${printCalendarDate(priced.since)}`, printMoney(priced.total, priced.currency)],
        ]
      : []),
    ...v.bills.map(({ payload: b }) => [
      [billState(b.state), b.payee, b.ref, b.kWh ? printKWh(b.kWh) : null].filter(Boolean).join(', '),
      printMoney(b.state === 'refunded' ? `-${b.amount}` : b.amount, b.currency),
    ]),
    ...v.billsAgain.map(({ bill: b, how }) => [
      ['Told again', b.payload.ref, b.payload.kWh ? printKWh(b.payload.kWh) : null, AGAIN[how]].filter(Boolean).join(', '),
      printMoney(b.payload.amount, b.payload.currency),
    ]),
  ];
  if (rows.length === 0) {
    sheet.small('No bill recorded, and no price known for that day.');
    return;
  }
  sheet.table(
    [
      { head: '', of: 0.78 },
      { head: 'Amount', of: 0.22, right: true },
    ],
    rows,
  );
  for (const e of priced?.explanations ?? []) sheet.small(`Perhaps: ${e.text}`);
}

function record(sheet: PdfSheet, { visit: v, names }: VisitPageData, distance: DistanceUnit): void {
  sheet.head('The record');
  const nameOf = (type: keyof VisitPageData['names'], id: string | null) => names[type](id);
  const named = attemptsBy(v.attempts, v.line);
  sheet.table(
    [
      { head: 'Time', of: 0.16 },
      { head: 'What', of: 0.24 },
      { head: '', of: 0.6 },
    ],
    v.line.map((e) => [
      e.precision === 'day' ? 'that day' : printClock(e.t, v.zone),
      eventLabel(e, nameOf as never),
      eventDetail(e, nameOf as never, (ids) => attemptsText(named(ids)), distance),
    ]),
  );
}
