// A household of 10,000 visits in a database of a million: what its pages ask of the server. Run by bin/bench.
import mysql from 'mysql2/promise';
import { v7 } from 'uuid';
import { comparedGroups, startsOf } from '@/core/compare/compared-groups';
import { readLedgerFilter } from '@/core/compare/ledger-filter';
import { figuresRead, LOOK_NAMES, LOOKS } from '@/core/compare/measures';
import { compareSentences } from '@/core/compare/sentence';
import { waitingCurves } from '@/core/compare/waiting-curve';
import { waitedStarts } from '@/core/compare/waiting-pairs';
import { waitingSentences } from '@/core/compare/waiting-sentence';
import { ATTEMPT_FIGURES } from '@/core/figures/attempt-figures';
import type { Grouping } from '@/core/figures/groupings';
import { VISIT_FIGURES } from '@/core/figures/visit-figures';
import { DEFINITION_VERSION } from '@/core/visit/definitions-version';
import { signUp } from '../accounts/accounts';
import type { SignedIn } from '../accounts/sessions';
import { sameStop } from '../compare/same-stop';
import { toBin } from '../db/binary-id';
import { pool } from '../db/pool';
import { findEverything } from '../find/find-everything';
import { compareRows } from '../visits/compare-query';
import { forgetRows } from '../visits/kept-rows';
import { ledgerPage } from '../visits/ledger-query';

const VISITS = 10_000;
const HOUSEHOLDS = 100;
const RUNS = 7;
/** Askings before the first that is timed: a server that has been up for a while has its ways laid out. */
const WARM = 10;
const say = (what: string, figure: string) => console.log(`${what.padEnd(64)} ${figure}`);

async function median(work: () => Promise<unknown>): Promise<number> {
  const ms: number[] = [];
  for (let i = 0; i < WARM + RUNS; i++) {
    const started = performance.now();
    await work();
    if (i >= WARM) ms.push(performance.now() - started);
  }
  return ms.sort((a, b) => a - b)[Math.floor(RUNS / 2)] as number;
}

const db = await mysql.createConnection({ uri: process.env.MIGRATE_URL as string, timezone: 'Z' });
const TAPE = JSON.stringify(Array.from({ length: 6 }, (_, i) => ({ kind: 'energy', from: i, to: i + 1, kW: 90 - i })));
const id = (first: string, n: string) => `UNHEX(CONCAT('${first}000070008', LPAD(HEX(${n}), 15, '0')))`;
/** The same as text. */
const uuid = (first: string, n: string) =>
  `CONCAT('${first}-0000-7000-8', LPAD(LOWER(HEX((${n}) DIV 281474976710656)), 3, '0'), '-', LPAD(LOWER(HEX(${n})), 12, '0'))`;
/** Rows made by the database itself: sixty sites of six networks, every seventh visit with a failed attempt before. */
async function fill(householdId: string): Promise<void> {
  const h = toBin(householdId);
  await db.query(`INSERT INTO network (household_id, id, rev, name) SELECT ?, ${id('01900000', 'seq')}, 1, CONCAT('Network ', seq) FROM seq_1_to_6`, [h]);
  await db.query(
    `INSERT INTO visit (household_id, id, rev, stale, definition_version, person_id, zone, sort_at, pulled_in_at, pulled_out_at, last_event_at, local_month, site_id, network_id)
     SELECT ?, ${id('01910000', 'seq')}, 1, FALSE, ${DEFINITION_VERSION}, ?, 'UTC', t, t, t + INTERVAL 40 MINUTE, t + INTERVAL 40 MINUTE, DATE_FORMAT(t, '%Y-%m'),
            ${id('01920000', '1 + seq % 60')}, ${id('01900000', '1 + seq % 6')}
       FROM (SELECT seq, TIMESTAMP('2015-01-01') + INTERVAL seq * 9 HOUR AS t FROM seq_1_to_${VISITS}) AS s`,
    [h, h],
  );
  await db.query(
    `INSERT INTO visit_figures (household_id, visit_id, attempts, failed, first_try, ended, faults, fault_codes, delivered_kwh, paid, currency,
                                handshake_s, handshake_bound, lost_s, charging_s, site_id)
     SELECT ?, ${id('01910000', 'seq')}, 1 + (seq % 7 = 0), seq % 7 = 0, IF(seq % 7 = 0, 'no', 'yes'), 'charge', seq % 7 = 0, '',
            20 + seq % 31, 10 + seq % 17, 'EUR', 12 + seq % 53, 'exact', IF(seq % 7 = 0, 90, 0), 1200 + seq % 977, ${id('01920000', '1 + seq % 60')} FROM seq_1_to_${VISITS}`,
    [h],
  );
  await db.query(`INSERT INTO visit_tape (household_id, visit_id, tape) SELECT ?, ${id('01910000', 'seq')}, ? FROM seq_1_to_${VISITS}`, [h, TAPE]);
  const attempt = (n: number, outcome: string, where: string) =>
    db.query(
      `INSERT INTO attempt_figures (household_id, visit_id, n, network_id, outcome, end_mark, late, handshake_s, set_up_s, plug_to_power_s, means_to_power_s, hands_on_s, charging_s)
       SELECT ?, ${id('01910000', 'seq')}, ${n}, ${id('01900000', '1 + seq % 6')}, '${outcome}', ${outcome === 'power' ? "'kW'" : 'NULL'}, FALSE,
              ${outcome === 'power' ? '12 + seq % 53, 10, 20, 22, 25, 1200 + seq % 977' : 'NULL, NULL, NULL, NULL, NULL, NULL'} FROM seq_1_to_${VISITS} WHERE ${where}`,
      [h],
    );
  await attempt(1, 'failed', 'seq % 7 = 0');
  await attempt(2, 'power', 'seq % 7 = 0');
  await attempt(1, 'power', 'seq % 7 <> 0');
}

/** Twelve thousand names to find: two thousand sites of five stalls each. */
async function fillPlaces(householdId: string): Promise<void> {
  const h = toBin(householdId);
  await db.query('UPDATE network SET find_words = LOWER(name) WHERE household_id = ?', [h]);
  await db.query(
    `INSERT INTO site (household_id, id, rev, network_id, name, zone, find_words, fields) SELECT ?, ${id('01920000', 'seq')}, 1, ${id('01900000', '1 + seq % 6')},
       CONCAT(ELT(1 + seq % 5, 'Vrba Crossing ', 'Lipa Barn ', 'Hollin Bridge ', 'Ferry House ', 'Brod Landing '), seq), 'UTC',
       LOWER(CONCAT(ELT(1 + seq % 5, 'Vrba Crossing ', 'Lipa Barn ', 'Hollin Bridge ', 'Ferry House ', 'Brod Landing '), seq)),
       JSON_OBJECT('networkId', ${uuid('01900000', '1 + seq % 6')}, 'name', CONCAT('Site ', seq), 'zone', 'UTC') FROM seq_1_to_2000`,
    [h],
  );
  await db.query(
    `INSERT INTO stall (household_id, id, rev, site_id, name, find_words, other_name, other_words, fields) SELECT ?, ${id('01930000', 'seq')}, 1, ${id('01920000', '1 + seq % 2000')},
       1 + seq DIV 2000, 1 + seq DIV 2000, CONCAT('SR-', seq), CONCAT('sr ', seq),
       JSON_OBJECT('siteId', ${uuid('01920000', '1 + seq % 2000')}, 'name', '1', 'outlets', JSON_ARRAY(JSON_OBJECT('connector', 'CCS2', 'ratedKW', 50 + seq % 4 * 50))) FROM seq_1_to_10000`,
    [h],
  );
  await db.query("UPDATE visit SET find_words = LOWER(DATE_FORMAT(sort_at, '%e %b %Y %W %e %M %Y %Y %m %d')) WHERE household_id = ?", [h]);
}

const who = { householdId: v7(), personId: v7() };
await signUp({ name: 'bench', householdName: 'bench', email: `${v7()}@example.invalid`, password: 'not needed here', currency: 'EUR', zone: 'UTC' }, who);
for (let i = 0; i < HOUSEHOLDS; i++) await fill(i === 0 ? who.householdId : v7());
await fillPlaces(who.householdId);
await db.query('ANALYZE TABLE visit, visit_figures, attempt_figures, site, stall');

const everything = readLedgerFilter(() => null);
const page = await median(() => ledgerPage(who, 'EUR', everything));
say(`a page of a ledger of ${VISITS} visits, of ${VISITS * HOUSEHOLDS} in all: ms at the server`, page.toFixed(0));
const asked = { time: 'handshake', mark: 'kW', currency: 'EUR' } as const;
const read = (look: (typeof LOOK_NAMES)[number], by: readonly Grouping[]) => figuresRead(LOOKS[look].measures, asked, by);
/** @param written something was, since it was last asked: nothing is kept */
const compareBy = (look: (typeof LOOK_NAMES)[number], by: readonly [Grouping, ...Grouping[]], written = true) =>
  median(async () => {
    if (written) forgetRows(who.householdId);
    const rows = await compareRows(who, 'EUR', everything, read(look, by));
    comparedGroups(rows, asked, by, LOOKS[look].measures);
    if (look !== 'starts') return;
    const names = { one: 'group', many: 'groups', group: (id: string) => id, site: (id: string) => id };
    compareSentences(startsOf(rows, by[0]), names);
    waitingSentences(waitedStarts(rows, asked, by[0]), names);
    waitingCurves(rows, asked, by[0]);
  });
const compare = await compareBy('starts', ['network']);
const again = await compareBy('starts', ['network'], false);
say(`Compare over ${VISITS} visits: ms at the server (budget 150)`, again.toFixed(0));
say('the same, first after something was written: ms', compare.toFixed(0));
for (const look of LOOK_NAMES.slice(1)) say(`the same, ${LOOKS[look].label}: ms`, (await compareBy(look, ['network'])).toFixed(0));
say('the same, starts by site and hour: ms', (await compareBy('starts', ['site', 'hour'])).toFixed(0));
for (const typed of ['vrba', 'brod landing 4', 'lipa oct 2019', '2017 visit', 'xyz']) {
  const found = await median(() => findEverything(who, typed));
  say(`find “${typed}” over 12000 names and ${VISITS} visits: ms (budget 30)`, found.toFixed(0));
}
// A price by the time of day at each of two thousand sites.
await db.query(
  `INSERT INTO tariff (household_id, id, rev, network_id, site_id, fields) SELECT ?, ${id('01940000', 'seq')}, 1, ${id('01900000', '1 + seq % 6')}, ${id('01920000', 'seq')},
     JSON_OBJECT('networkId', ${uuid('01900000', '1 + seq % 6')}, 'siteId', ${uuid('01920000', 'seq')}, 'currency', 'EUR', 'validFrom', '2020-01-01', 'perKWh', '0.5',
       'extra', JSON_OBJECT('idle_fee', JSON_OBJECT('grace_minutes', 5, 'rates', JSON_ARRAY(JSON_OBJECT('min_occupancy', 0, 'price_per_min', 0.2)))),
       'tariff', JSON_OBJECT('country_code', 'ZZ', 'party_id', 'OWN', 'id', 't', 'currency', 'EUR', 'last_updated', '2020-01-01T00:00:00Z', 'elements', JSON_ARRAY(
         JSON_OBJECT('price_components', JSON_ARRAY(JSON_OBJECT('type', 'ENERGY', 'price', 0.3 + seq % 30 / 100, 'step_size', 0)), 'restrictions', JSON_OBJECT('start_time', '16:30', 'end_time', '20:00')),
         JSON_OBJECT('price_components', JSON_ARRAY(JSON_OBJECT('type', 'ENERGY', 'price', 0.5, 'step_size', 0)))))) FROM seq_1_to_2000`,
  [toBin(who.householdId)],
);
const signedIn = { ...who, currency: 'EUR', zone: 'UTC' } as unknown as SignedIn;
const stop = await median(() => sameStop(signedIn, { kWh: 40, weekday: 2, time: '16:15', parkedMin: 20 }));
say('one stop priced at 2000 sites: ms at the server (budget 150)', stop.toFixed(0));
const h = toBin(who.householdId);
const columns = read('starts', ['network']);
const bare = await median(async () => {
  await pool().execute(
    `SELECT v.id, v.network_id, v.site_id, v.driver_id, v.car_id, v.local_month, v.sort_at, ${columns.visit.map((n) => `f.${VISIT_FIGURES[n].column}`).join(', ')}
       FROM visit v JOIN visit_figures f ON f.household_id = v.household_id AND f.visit_id = v.id WHERE v.household_id = ?`,
    [h],
  );
  await pool().execute(`SELECT visit_id, ${columns.attempt.map((n) => ATTEMPT_FIGURES[n].column).join(', ')} FROM attempt_figures WHERE household_id = ?`, [h]);
});
say('Compare against fetching the same columns and rows', `${(again / bare).toFixed(2)} ×`);
say('the same, first after something was written', `${(compare / bare).toFixed(2)} ×`);
say('memory of this process after it all, MiB', (process.memoryUsage().rss / 2 ** 20).toFixed(0));
await db.end();
await pool().end();
