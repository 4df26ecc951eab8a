import { type ChildProcess, execFile, spawn } from 'node:child_process';
import { createHash } from 'node:crypto';
import { existsSync, mkdtempSync, readFileSync, rmSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import path from 'node:path';
import { promisify } from 'node:util';
import { type Browser, expect, type Page, test } from '@playwright/test';
import mysql, { type RowDataPacket } from 'mysql2/promise';
import sharp from 'sharp';
import { sumsOf } from '@/server/backup/restore-backup';
import { addPlace, asItems, from, type Member, newHousehold, own, type Place, send, visitEvents } from './hands/household';
import { ownDatabase } from './hands/own-database';
import { ownServer } from './hands/own-server';
import { allSent, openStall, thumb } from './hands/stall';

const run = promisify(execFile);
const DAY = 86_400_000;

/** A ledger in a folder of its own with the application before it, as bin/backup and its like find it. */
async function ownLedger(browser: Browser, more: Record<string, string> = {}, phone = false) {
  const env = { MILE_DATA: mkdtempSync(path.join(tmpdir(), 'mile-back-')), ...more };
  const database = await ownDatabase('own', env);
  const server = await ownServer({ DATABASE_URL: database.url });
  const context = await browser.newContext({
    baseURL: server.url,
    ...(phone ? { serviceWorkers: 'allow', viewport: { width: 390, height: 844 }, hasTouch: true, isMobile: true } : {}),
  });
  const command = async (name: string, ...args: string[]) => {
    const done = await run(`bin/${name}`, args, { env: { ...process.env, ...env } }).then(
      (r) => ({ code: 0, ...r }),
      (e: { code: number; stdout: string; stderr: string }) => e,
    );
    return { code: done.code, said: `${done.stdout}${done.stderr}` };
  };
  return {
    env,
    database,
    server,
    page: await context.newPage(),
    command,
    backup: (name: string) => command('backup', path.join(env.MILE_DATA, name), '--ledger', 'own'),
    restore: (name: string, ...args: string[]) => command('restore', path.join(env.MILE_DATA, name), '--ledger', 'own', ...args),
    /** The database folder is gone, as after a dead disk; a server on new data takes its place. */
    lose: async () => {
      await database.signal('SIGKILL');
      rmSync(path.join(env.MILE_DATA, 'own', 'data'), { recursive: true });
      await database.start();
    },
    end: async () => {
      await server.kill();
      await context.close();
      await database.end();
      rmSync(env.MILE_DATA, { recursive: true, force: true });
    },
  };
}
type Ledger = Awaited<ReturnType<typeof ownLedger>>;

async function someVisits(page: Page, base: string, who: Member, place: Place, count: number, from: number) {
  const visits = Array.from({ length: count }, (_, i) => visitEvents(who, place, from + i * DAY, i % 3 === 0));
  for (let i = 0; i < visits.length; i += 20) await send(page.request, base, asItems(visits.slice(i, i + 20).flat()));
}
const rowsOf = async (page: Page) => (await (await page.request.get('/api/v1/visits/lately')).json()).rows;
const signIn = (l: Ledger, who: Member) =>
  l.page.request.post('/api/v1/session', { headers: from(l.server.url), data: { email: who.email, password: who.password } });

test('a backup taken while the ledger is written, the data folder lost, everything back: equal checksums, equal figures, photos with it', async ({
  browser,
}) => {
  const l = await ownLedger(browser);
  try {
    const who = await newHousehold(l.page, l.server.url);
    const place = await addPlace(l.page, l.server.url, { network: 'Bluebarn', site: 'Lipa Barn' });
    await someVisits(l.page, l.server.url, who, place, 60, Date.UTC(2025, 4, 1));
    const picture = await sharp({ create: { width: 800, height: 600, channels: 3, background: '#abc' } })
      .jpeg()
      .toBuffer();
    const sha = createHash('sha256').update(picture).digest('hex');
    const headers = { origin: l.server.url, 'content-type': 'image/jpeg' };
    expect((await l.page.request.put(`/api/v1/photos/${sha}`, { headers, data: picture })).status()).toBe(201);
    const kept = await (await l.page.request.get(`/api/v1/photos/${sha}`)).body();

    // While one writes, the other is written: each transaction is in the backup whole or not at all.
    let writing = true;
    const writer = (async () => {
      for (let i = 0; writing; i++) await send(l.page.request, l.server.url, asItems(visitEvents(who, place, Date.UTC(2025, 8, 1) + i * 60_000)));
    })();
    const under = await l.backup('under-load.gz');
    writing = false;
    await writer;
    expect(under).toMatchObject({ code: 0, said: expect.stringContaining('read again and found right') });
    const before = await rowsOf(l.page);
    expect((await l.backup('last.gz')).code).toBe(0);
    expect((await l.backup('last.gz')).said).toContain('is there already');
    const sums = await sumsOf(l.database.migrateUrl);

    for (const name of ['under-load.gz', 'last.gz']) {
      await l.lose();
      const restored = await l.restore(name);
      expect(restored).toMatchObject({ code: 0, said: expect.stringContaining('every table as it was') });
      expect(await l.command('check', '--ledger', 'own')).toMatchObject({ code: 0, said: expect.stringContaining('Nothing differs.') });
      expect((await l.restore(name)).said).toContain('This ledger is not empty.');
    }
    const after = await sumsOf(l.database.migrateUrl);
    // Sessions end, the epoch is another, what the doors saw goes on; all else is what it was.
    for (const [name, sum] of Object.entries(sums))
      if (!['household', 'signed_in_session', 'security_log'].includes(name)) expect([name, after[name]]).toEqual([name, sum]);

    expect((await l.page.request.get('/api/v1/me')).status()).toBe(401);
    expect((await signIn(l, who)).status()).toBe(200);
    expect(await rowsOf(l.page)).toEqual(before);
    expect((await (await l.page.request.get(`/api/v1/photos/${sha}`)).body()).equals(kept)).toBe(true);
    await l.page.goto('/settings/security');
    await expect(l.page.getByText('Restored from a backup')).toBeVisible();
  } finally {
    await l.end();
  }
});

test('a restore that is killed goes on where it was; a damaged or foreign file restores nothing', async ({ browser }) => {
  const l = await ownLedger(browser);
  try {
    const who = await newHousehold(l.page, l.server.url);
    const place = await addPlace(l.page, l.server.url, { network: 'Bluebarn', site: 'Lipa Barn' });
    await someVisits(l.page, l.server.url, who, place, 50, Date.UTC(2025, 4, 1));
    const before = await rowsOf(l.page);
    await l.backup('whole.gz');
    await l.lose();

    const file = (name: string) => path.join(l.env.MILE_DATA, name);
    const whole = readFileSync(file('whole.gz'));
    const middle = Math.floor(whole.length / 2);
    writeFileSync(file('cut.gz'), whole.subarray(0, middle));
    writeFileSync(file('bent.gz'), Buffer.concat([whole.subarray(0, middle), Buffer.from([(whole[middle] as number) ^ 1]), whole.subarray(middle + 1)]));
    writeFileSync(file('other.gz'), 'no backup at all');
    for (const name of ['cut.gz', 'bent.gz', 'other.gz']) {
      const answer = await l.restore(name);
      expect([name, answer.code, answer.said]).toEqual([name, 1, expect.stringContaining('Nothing was restored: this backup is damaged')]);
    }

    // Brought to a stand at the table `visit`, the last but one, and killed there.
    const { url } = await prepared(l);
    const lock = await mysql.createConnection(url);
    await lock.query('LOCK TABLES visit WRITE');
    const child: ChildProcess = spawn(process.execPath, ['--import', 'tsx', 'server/commands/restore.ts', 'load', file('whole.gz')], {
      env: { ...process.env, MIGRATE_URL: url, APP_USER: "'mile_app'@'127.0.0.1'" },
    });
    const watch = await mysql.createConnection(url);
    const stands = async () => {
      const [rows] = await watch.query<RowDataPacket[]>("SELECT COUNT(*) AS n FROM information_schema.processlist WHERE INFO LIKE 'INSERT INTO `visit` %'");
      return Number(rows[0]?.n);
    };
    await expect.poll(stands).toBe(1);
    child.kill('SIGKILL');
    await new Promise((done) => child.once('exit', done));
    const [progress] = await watch.query<RowDataPacket[]>('SELECT lines_done FROM restore_progress');
    expect(Number(progress[0]?.lines_done)).toBeGreaterThan(1000);
    await Promise.all([lock.end(), watch.end()]);

    expect((await l.restore('whole.gz')).code).toBe(0);
    expect((await signIn(l, who)).status()).toBe(200);
    expect(await rowsOf(l.page)).toEqual(before);
    expect((await l.command('check', '--ledger', 'own')).code).toBe(0);
  } finally {
    await l.end();
  }
});
/** The schema with its migrations, so that a table can be locked before anything is loaded into it. */
async function prepared(l: Ledger) {
  await l.database.empty();
  return { url: l.database.migrateUrl };
}

test('what a phone sent after the backup is not lost: it offers it again', async ({ browser }) => {
  const l = await ownLedger(browser, {}, true);
  try {
    const { page } = l;
    const who = await newHousehold(page, l.server.url);
    await addPlace(page, l.server.url, { network: 'Bluebarn', site: 'Lipa Barn' });
    await openStall(page);
    const visit = async (least: number) => {
      await page.getByRole('button', { name: /^Lipa Barn/ }).tap();
      await page.getByRole('radio', { name: /^Stall 1/ }).tap();
      await page.getByRole('button', { name: /^Pulled in/, disabled: false }).tap();
      const hand = thumb(page);
      await hand.pad(/^Plugged in/);
      await hand.pad(/^Card shown/);
      await hand.pad(/^I see power/);
      await hand.pad(/^I pressed stop/);
      await hand.pad(/^Unplugged/);
      await hand.pad(/^Pulled out/);
      await allSent(page, least);
    };
    await visit(8);
    expect((await l.backup('early.gz')).code).toBe(0);
    await page.getByRole('button', { name: 'Leave the visit' }).tap();
    await visit(16);
    // A site made on this phone after the backup, too.
    await page.goto('/places/new');
    await page.getByLabel('Site', { exact: true }).fill('Osier Wharf');
    await page.getByLabel('Network', { exact: true }).fill('Otterbrook');
    await page.getByRole('button', { name: 'Add the site' }).click();
    await expect(page.getByRole('heading', { name: 'Osier Wharf' })).toBeVisible();
    const before = await rowsOf(page);
    expect(before).toHaveLength(2);

    await l.lose();
    expect((await l.restore('early.gz')).code).toBe(0);
    const desk = await browser.newPage({ baseURL: l.server.url });
    expect((await desk.request.post('/api/v1/session', { headers: from(l.server.url), data: { email: who.email, password: who.password } })).status()).toBe(
      200,
    );
    expect(await rowsOf(desk)).toHaveLength(1);

    // The phone's session ended with the restore: it keeps everything, signs in, and offers it.
    expect((await signIn(l, who)).status()).toBe(200);
    await page.goto('/stall');
    await expect.poll(() => rowsOf(desk)).toEqual(before);
    await expect
      .poll(async () => (await (await desk.request.get('/api/v1/changes?since=0')).json()).records.map((r: { fields: { name?: string } }) => r.fields.name))
      .toContain('Osier Wharf');
    await allSent(page, 16);
    expect(await l.command('check', '--ledger', 'own')).toMatchObject({ code: 0 });
    await desk.close();
  } finally {
    await l.end();
  }
});

test('bin/check finds what was changed behind the application, and mends nothing', async ({ browser }) => {
  const l = await ownLedger(browser);
  try {
    const who = await newHousehold(l.page, l.server.url);
    const place = await addPlace(l.page, l.server.url, { network: 'Bluebarn', site: 'Lipa Barn' });
    await someVisits(l.page, l.server.url, who, place, 4, Date.UTC(2025, 4, 1));
    expect(await l.command('check', '--ledger', 'own')).toMatchObject({ code: 0, said: expect.stringContaining('4 visits') });
    const db = await mysql.createConnection({ uri: l.database.migrateUrl, multipleStatements: true });
    const cases: [string, string, RegExp][] = [
      [
        'an event',
        'UPDATE event SET payload = \'{"reason":"price"}\' WHERE kind = \'pulled_out\' LIMIT 1',
        /DIFFERS .*event .*: its content is not what was taken/,
      ],
      [
        'an event and its hash',
        "UPDATE event SET seq = seq + 1, content_hash = REPEAT('x', 32) WHERE kind = 'bill' LIMIT 1",
        /DIFFERS .*event .*: its content/,
      ],
      ['an event left out', "DELETE FROM event WHERE kind = 'unplugged' LIMIT 1", /DIFFERS .*event .*: written by a batch, and not here/],
      [
        'a figure',
        'UPDATE visit_figures SET handshake_s = 1 ORDER BY visit_id DESC LIMIT 1',
        /DIFFERS .*visit .*: its figures are not those that its events give/,
      ],
      ['a record', "UPDATE site SET fields = JSON_SET(fields, '$.name', 'Elsewhere')", /DIFFERS .*site .*: does not say what its last batch wrote/],
      ['what stands beside a record', "UPDATE car SET name = 'Another'", /DIFFERS .*car .*: what stands beside its fields is not what they say/],
      [
        'a batch',
        "UPDATE household_batch SET items = REPLACE(items, 'event', 'evenu') ORDER BY rev DESC LIMIT 1",
        /DIFFERS .*its hash is not that of its content/,
      ],
      [
        'a reference',
        `SET foreign_key_checks = 0; UPDATE stall SET site_id = REPEAT('y', 16) LIMIT 1`,
        /DIFFERS .*rows of stall refer to a site that is not there/,
      ],
    ];
    for (const [what, sql, says] of cases) {
      await db.query(sql);
      const sums = await sumsOf(l.database.migrateUrl);
      const checked = await l.command('check', '--ledger', 'own');
      expect([what, checked.code, checked.said]).toEqual([what, 1, expect.stringMatching(says)]);
      expect(await sumsOf(l.database.migrateUrl)).toEqual(sums);
    }
    await db.end();
  } finally {
    await l.end();
  }
});

test('back to any moment after the backup, by the binary log', async ({ browser }) => {
  const l = await ownLedger(browser, { MILE_BINLOG: '1' });
  try {
    const who = await newHousehold(l.page, l.server.url);
    const place = await addPlace(l.page, l.server.url, { network: 'Bluebarn', site: 'Lipa Barn' });
    const visitAt = (month: number) => send(l.page.request, l.server.url, asItems(visitEvents(who, place, Date.UTC(2025, month, 1))));
    await visitAt(1);
    expect((await l.backup('base.gz')).code).toBe(0);
    await visitAt(2);
    const before = await rowsOf(l.page);
    // The log counts in whole seconds: the moment between the two has to be one.
    const second = () => Math.floor(Date.now() / 1000);
    const wrote = second();
    await expect.poll(second, { intervals: [100] }).toBeGreaterThan(wrote + 1);
    const until = new Date((wrote + 1) * 1000).toISOString().slice(0, 19).replace('T', ' ');
    await visitAt(3);
    expect(await rowsOf(l.page)).toHaveLength(3);

    const logs = path.join(l.env.MILE_DATA, 'own', 'binlog');
    expect(existsSync(logs)).toBe(true);
    const saved = path.join(l.env.MILE_DATA, 'saved-logs');
    await run('cp', ['-r', logs, saved]);
    await l.lose();
    const restored = await l.restore('base.gz', '--binlog', saved, '--until', until);
    expect(restored).toMatchObject({ code: 0, said: expect.stringContaining(`until ${until} UTC`) });
    expect((await signIn(l, who)).status()).toBe(200);
    expect(await rowsOf(l.page)).toEqual(before);
    expect(await l.command('check', '--ledger', 'own')).toMatchObject({ code: 0 });
  } finally {
    await l.end();
  }
});

test('one household’s ledger goes out by a command and into another household; it is looked at first, and nothing is written over', async ({ browser }) => {
  test.setTimeout(120_000);
  const l = await ownLedger(browser);
  try {
    const who = await newHousehold(l.page, l.server.url);
    await someVisits(l.page, l.server.url, who, await addPlace(l.page, l.server.url, { network: 'Bluebarn', site: 'Lipa Barn' }), 3, Date.UTC(2026, 5, 1, 9));
    const file = path.join(l.env.MILE_DATA, 'ledger.zip');
    const ledger = (...args: string[]) => l.command('ledger', ...args, '--ledger', 'own');
    expect(await ledger('out', file)).toMatchObject({ code: 0, said: expect.stringMatching(/ledger\.zip: Test household, 6 records, \d+ events, 0 photos/) });
    const before = readFileSync(file);
    expect(await ledger('out', file)).toMatchObject({ code: 1, said: expect.stringContaining('never written over') });
    expect(readFileSync(file).equals(before)).toBe(true);
    expect((await ledger('in', file, '--look')).said).toMatch(/Would bring into Test household: 0 records, 0 events, .* 0 differ, 0 refused/);

    const second = await (await browser.newContext({ baseURL: l.server.url })).newPage();
    await newHousehold(second, l.server.url);
    await second.request.put('/api/v1/household', {
      headers: own(l.server.url),
      data: { householdName: 'Workshop', currency: 'EUR', zone: 'Europe/Ljubljana' },
    });
    expect(await ledger('in', file)).toMatchObject({ code: 1, said: expect.stringContaining('Which household?') });
    expect((await ledger('in', file, '--household', 'Workshop', '--look')).said).toContain('Would bring into Workshop: 6 records, ');
    expect((await (await second.request.get('/api/v1/visits')).json()).items).toEqual([]);
    expect((await ledger('in', file, '--household', 'Workshop')).said).toContain('Tone Zupan of the file is Tone Zupan here');
    // Of two of one name the id tells which.
    const third = await (await browser.newContext({ baseURL: l.server.url })).newPage();
    const { householdId } = await newHousehold(third, l.server.url);
    const named = { householdName: 'Workshop', currency: 'EUR', zone: 'Europe/Ljubljana' };
    await third.request.put('/api/v1/household', { headers: own(l.server.url), data: named });
    expect(await ledger('in', file, '--household', 'Workshop', '--look')).toMatchObject({
      code: 1,
      said: expect.stringContaining(`“Workshop” ${householdId}`),
    });
    expect((await ledger('in', file, '--household', householdId, '--look')).said).toContain('Would bring into Workshop: 6 records, ');
    await third.request.put('/api/v1/household', { headers: own(l.server.url), data: { ...named, householdName: 'Barn' } });
    const listed = async (page: Page) => (await (await page.request.get('/api/v1/attempts')).json()).items;
    expect(await listed(second)).toEqual(await listed(l.page));
    writeFileSync(file, before.subarray(0, 900));
    expect(await ledger('in', file, '--household', 'Workshop')).toMatchObject({
      code: 1,
      said: expect.stringContaining('cannot be read. The zip is cut short or damaged.'),
    });
    await second.context().close();
  } finally {
    await l.end();
  }
});
