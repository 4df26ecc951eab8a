import type { PlaceRecord } from '@/core/compare/place-record';
import { arrivalWords, methodWords, NOT_METERED, placeRows, SPREAD_WORDS } from '@/core/compare/place-words';
import { meansLabel } from '@/core/records/means-kind';
import { aroundLines, arrivalLines } from '@/core/records/place-lines';
import { plateText } from '@/core/records/stall-plate';
import { printDuration, printShare } from '@/core/units/print';
import { printCalendarDate, printDate, printMonth } from '@/core/units/zoned';
import type { NetworkPage } from '../places/network-page';
import type { SitePage } from '../places/site-page';
import { PdfSheet } from './pdf-sheet';

/** A site on paper: what to know on arrival, what is there, what its visits say and how they were counted. @param at when it is made */
export async function sitePdf(page: SitePage, at: Date): Promise<Buffer> {
  const { site, network, stalls, record } = page;
  const f = site.fields;
  const sheet = new PdfSheet(f.name, at);
  sheet.small([network?.fields.name, page.lastAt === null ? 'not visited' : `last here ${printDate(page.lastAt, f.zone)}`].filter(Boolean).join(', '));
  sheet.text(f.name, { face: 'bold', size: 20 });
  if (f.note) sheet.text(f.note);
  const [arrival, around] = [arrivalLines(f, network?.fields.helpline ?? null), aroundLines(f)];
  if (arrival.length > 0) {
    sheet.head('On arrival');
    for (const line of arrival) sheet.text(`• ${line}`);
  }
  if (around.length > 0) pairs(sheet, 'Around', around);
  if (stalls.length > 0) {
    sheet.head('Stalls');
    sheet.table(
      [
        { head: 'Stall', of: 0.14 },
        { head: 'On its plate', of: 0.46 },
        { head: 'As seen', of: 0.4 },
      ],
      stalls.map((s) => [s.fields.name, plateText(s.fields), s.fields.state ? `${s.fields.state.is}, ${printCalendarDate(s.fields.state.seenOn)}` : '']),
    );
  }
  recordOf(sheet, record, 'Stall', (id) => stalls.find((s) => s.id === id)?.fields.name ?? 'not known');
  faults(
    sheet,
    page.faults.map((x) => [printDate(x.at, f.zone), x.label, x.stall]),
    'Stall',
  );
  sheet.gap(8);
  sheet.small(methodWords(record, record.all?.allVisits ?? 0, f.zone));
  return sheet.bytes();
}

/** A network on paper: what its visits say and how they were counted. @param zone of the reader @param at when it is made */
export async function networkPdf(page: NetworkPage, zone: string, at: Date): Promise<Buffer> {
  const { network, sites, record } = page;
  const sheet = new PdfSheet(network.fields.name, at);
  sheet.small(`Network, ${sites.filter((s) => !s.archived).length} sites`);
  sheet.text(network.fields.name, { face: 'bold', size: 20 });
  recordOf(sheet, record, 'Site', (id) => sites.find((s) => s.id === id)?.name ?? 'a site not known here');
  faults(
    sheet,
    page.faults.map((x) => [printDate(x.at, x.zone), x.label, x.siteName]),
    'Site',
  );
  sheet.gap(8);
  sheet.small(methodWords(record, record.all?.allVisits ?? 0, zone));
  return sheet.bytes();
}

function pairs(sheet: PdfSheet, head: string, rows: readonly (readonly [string, string])[]): void {
  sheet.head(head);
  sheet.table(
    [
      { head: '', of: 0.4 },
      { head: '', of: 0.6 },
    ],
    rows,
  );
}

/** What the visits to a place say. @param one what a driver chooses there */
function recordOf(sheet: PdfSheet, record: PlaceRecord, one: 'Stall' | 'Site', nameOf: (key: string) => string): void {
  const rows = placeRows(record.all);
  if (rows.length === 0) {
    sheet.head('What the visits say');
    sheet.small('Nobody of this household charged there yet.');
    return;
  }
  pairs(
    sheet,
    'What the visits say',
    rows.map((r) => [r.label, r.value] as const),
  );
  if (record.choices.length > 0) {
    sheet.head(`${one}s by starts at the first try`);
    sheet.table(
      [
        { head: one, of: 0.4 },
        { head: 'Started', of: 0.2, right: true },
        { head: 'taken as', of: 0.4, right: true },
      ],
      record.choices.map((c) => [
        nameOf(c.key),
        `${c.yes} of ${c.n}`,
        c.pulled === null || record.spread !== 'interior'
          ? ''
          : `${printShare(c.pulled)}${c.interval ? `, ${printShare(c.interval[0])} to ${printShare(c.interval[1])}` : ''}`,
      ]),
    );
    if (record.spread) sheet.small(SPREAD_WORDS[record.spread]);
  }
  const timed = record.byMeans.flatMap((r) => {
    const wait = r.cells.wait;
    return wait && (wait.timed > 0 || wait.never > 0) ? [{ key: r.groups[0]?.key ?? '', wait }] : [];
  });
  if (timed.length > 0) {
    sheet.head('Typical handshake, to first kW');
    sheet.table(
      [
        { head: 'Means', of: 0.4 },
        { head: 'Median', of: 0.2, right: true },
        { head: 'Timed', of: 0.2, right: true },
        { head: 'Never', of: 0.2, right: true },
      ],
      timed.map(({ key, wait }) => [
        meansLabel(key),
        wait.median.known ? printDuration(wait.median.value) : wait.median.why,
        String(wait.timed),
        String(wait.never),
      ]),
    );
  }
  if (record.trend.length > 0) {
    sheet.head('Month by month');
    sheet.table(
      [
        { head: 'Month', of: 0.4 },
        { head: 'Started at the first try', of: 0.3, right: true },
        { head: 'Visits', of: 0.3, right: true },
      ],
      record.trend.map((m) => [printMonth(m.month), String(m.yes), String(m.n)]),
    );
  }
  const arrival = arrivalWords(record);
  if (arrival) {
    sheet.head('As seen on arrival');
    sheet.text(`${arrival.looks}: ${arrival.rest}, ${arrival.share}, 95 % interval ${arrival.interval}.`);
    for (const y of arrival.rows) sheet.small(`${y.label}, ${y.source}: ${y.verdict}`);
    sheet.small(NOT_METERED);
  }
}

function faults(sheet: PdfSheet, rows: readonly (readonly string[])[], one: string): void {
  if (rows.length === 0) return;
  sheet.head('Faults, newest first');
  sheet.table(
    [
      { head: 'Day', of: 0.2 },
      { head: 'What', of: 0.5 },
      { head: one, of: 0.3 },
    ],
    rows,
  );
}
