import { expect, type Page, test } from '@playwright/test';
import { v7 } from 'uuid';
import { enrolmentSteps } from '@/core/records/enrolment-steps';
import { recordItem } from '@/core/records/record-schema';
import { clean } from './hands/clean-page';
import { addPlace, asItems, newHousehold, own, send, visitEvents } from './hands/household';
import { openStall, thumb } from './hands/stall';

/** On a wide screen a list keeps its width beside what is open, however much that is. */
const listStands = (page: Page, name: string) =>
  expect.poll(async () => (await page.getByRole('region', { name, exact: true }).boundingBox())?.width, `how wide the list ${name} is`).toBe(392);

for (const scheme of ['light', 'dark'] as const) {
  test.describe(scheme === 'light' ? 'by day' : 'by night', () => {
    test.use({ colorScheme: scheme });
    let out: string[];
    let blocked: string[];
    test.beforeEach(({ page, baseURL }) => {
      out = [];
      blocked = [];
      page.on('request', (r) => {
        if (!r.url().startsWith(baseURL as string) && !/^(data|blob):/.test(r.url())) out.push(r.url());
      });
      page.on('console', (m) => {
        if (/Content Security Policy|hydrat/i.test(m.text())) blocked.push(m.text());
      });
      page.on('pageerror', (e) => blocked.push(e.message));
    });
    test.afterEach(() => {
      expect(out, 'no request leaves the machine').toEqual([]);
      expect(blocked, 'nothing is blocked by the policy, nothing fails to hydrate').toEqual([]);
    });

    test('the doors, the empty and the full ledger, a visit, Compare', async ({ page, baseURL }) => {
      const base = baseURL as string;
      await page.goto('/sign-in');
      await clean(page, 'sign in');
      await page.goto('/sign-up');
      await page.getByRole('button', { name: 'Make the account' }).click();
      await clean(page, 'sign up with messages');
      await page.goto('/recover');
      await page.getByRole('button', { name: 'Set the password and sign in' }).click();
      await clean(page, 'recovery with messages');
      const who = await newHousehold(page, base);
      await page.goto('/settings/security');
      await clean(page, 'security log');
      await page.goto('/ledger');
      await expect(page.getByRole('heading', { name: 'The ledger is empty' })).toBeVisible();
      await clean(page, 'empty ledger');
      await page.goto('/compare');
      await clean(page, 'empty comparison');
      const place = await addPlace(page, base, { network: 'Ferrywell', site: 'Brod Landing' });
      const now = Date.now();
      await send(page.request, base, asItems([visitEvents(who, place, now - 5 * 86_400_000, true), visitEvents(who, place, now - 3 * 86_400_000)].flat()));
      await page.goto('/ledger');
      await expect(page.locator('[data-ledger-row]')).toHaveCount(2);
      await clean(page, 'ledger');
      await page.getByRole('button', { name: /^Faults: / }).click();
      await page.keyboard.type('card');
      await expect(page.getByRole('option', { name: 'Card refused', exact: true })).toBeVisible();
      await clean(page, 'a long list narrowed');
      await page.keyboard.press('Escape');
      await page.locator('[data-ledger-row]').nth(1).click();
      await expect(page.getByRole('heading', { name: /1\. Stall 1: failed/ })).toBeVisible();
      await clean(page, 'visit');
      await listStands(page, 'Ledger');
      await page.getByRole('button', { name: /^Arrival to power/ }).click();
      await expect(page.getByRole('dialog', { name: 'How Arrival to power was worked out' })).toBeVisible();
      await clean(page, 'the working of a figure');
      await page.keyboard.press('Escape');
      await page
        .getByRole('button', { name: /^Correct Reading/ })
        .first()
        .click();
      await clean(page, 'correction');
      await page.keyboard.press('Escape');
      const shown = new URL(page.url()).pathname;
      for (const path of [
        '/compare/same-stop',
        '/compare/plans',
        '/compare/power',
        '/plan',
        '/compare/all-in',
        '/ledger/open',
        `/places/networks/${place.networkId}/prices`,
        '/ledger/statement',
        `${shown}/power`,
        `/garage/car/${place.carId}/curve`,
      ]) {
        await page.goto(path);
        await clean(page, path);
      }
      // The month stays above the rows that go under it.
      await page.setViewportSize({ width: 1280, height: 240 });
      await page.goto('/ledger');
      const month = page.getByRole('region', { name: 'Ledger', exact: true }).getByRole('heading', { level: 2 }).first();
      await page.locator('[data-ledger-row]').last().scrollIntoViewIfNeeded();
      await expect
        .poll(
          () =>
            month.evaluate((h) => {
              const { left, top, height } = h.getBoundingClientRect();
              return document.elementFromPoint(left + 4, top + height / 2) === h;
            }),
          'the month is on top',
        )
        .toBe(true);
      await page.setViewportSize({ width: 1280, height: 800 });
      await page.goto('/compare');
      await clean(page, 'comparison of one');
      const other = await addPlace(page, base, { network: 'Bluebarn', site: 'Lipa Barn' });
      const more = [2, 3, 4, 5, 6].flatMap((d) => [place, other].flatMap((p) => visitEvents(who, p, now - (d + 10) * 86_400_000, d === 3)));
      await send(page.request, base, asItems(more));
      await page.reload();
      await page.getByText('The same as a table').click();
      await clean(page, 'comparison');
      await page.getByRole('button', { name: /^How this was worked out/ }).click();
      await expect(page.getByRole('dialog', { name: 'How this was worked out' })).toBeVisible();
      await clean(page, 'how a comparison was worked out');
      await page.keyboard.press('Escape');
    });

    test('what comes in and goes out, programs, people, settings', async ({ page, baseURL }) => {
      const base = baseURL as string;
      const who = await newHousehold(page, base);
      const place = await addPlace(page, base, { network: 'Ferrywell', site: 'Brod Landing' });
      await addPlace(page, base, { network: 'Bluebarn', site: 'Lipa Barn' });
      const now = Date.now();
      await send(page.request, base, asItems([visitEvents(who, place, now - 5 * 86_400_000, true), visitEvents(who, place, now - 3 * 86_400_000)].flat()));
      await page.goto('/settings/export');
      await clean(page, 'sheets to take along');
      await page.goto('/ledger/import/sheet');
      const rows = ['Start;Station;Network;Energy (kWh);Price', '01/02/2026 10:00;Nowhere Known;;12,345;1', '02/03/2026 10:00;Lipa Barn;Bluebarn;x;1'];
      await page.getByLabel('The file, CSV').setInputFiles({ name: 'a.csv', mimeType: 'text/csv', buffer: Buffer.from(rows.join('\n')) });
      await expect(page.getByRole('heading', { name: 'Questions' })).toBeVisible();
      await clean(page, 'a spreadsheet with questions');
      await page.getByLabel(/^Is this column/).selectOption('amount paid');
      await page.getByLabel(/^Is the day first/).selectOption('day first');
      await page
        .getByLabel(/^Which is the decimal mark/)
        .first()
        .selectOption('the comma');
      await page.getByLabel('Nowhere Known').check();
      await page.getByText('Columns, as they are read').click();
      await expect(page.getByLabel('What Price is', { exact: true })).toHaveValue('amount');
      await clean(page, 'a spreadsheet with a site to make');
      await page.goto('/places/import');
      const point = (name: string, coordinates: number[]) => ({ type: 'Feature', geometry: { type: 'Point', coordinates }, properties: { name } });
      const places = { type: 'FeatureCollection', features: [point('New Barn', [14.5, 46]), point('Buoy', [12.2, 39.9]), {}] };
      await page
        .getByLabel('The file, GeoJSON or OCPI')
        .setInputFiles({ name: 'a.geojson', mimeType: 'application/json', buffer: Buffer.from(JSON.stringify(places)) });
      await expect(page.getByLabel('Network of New Barn')).toBeVisible();
      await clean(page, 'places of a file');
      const site = { type: 'site', id: place.siteId, archived: false, fields: { networkId: place.networkId, name: 'Another name', zone: 'UTC' } };
      const strangers = [{ personId: '01900000-0000-7000-8000-0000000000b1', name: 'Mojca', role: 'owner' }];
      const ledger = {
        format: 'mile-ledger',
        version: 1,
        household: { id: place.siteId, name: 'Elsewhere', currency: 'GBP', zone: 'UTC' },
        people: strangers,
        records: [site, {}],
        events: [],
      };
      await page.goto('/settings/restore');
      await page
        .getByLabel('The file, ZIP or JSON')
        .setInputFiles({ name: 'a.json', mimeType: 'application/json', buffer: Buffer.from(JSON.stringify(ledger)) });
      await expect(page.getByRole('region', { name: 'Records that differ' })).toBeVisible();
      await clean(page, 'a ledger that differs');
      await page.goto('/settings/programs');
      await page.getByLabel('What it is for').fill('van');
      await page.getByRole('button', { name: 'Make a token' }).click();
      await expect(page.locator('code').filter({ hasText: /^mile_/ })).toBeVisible();
      await clean(page, 'a token that was made');
      await page.goto('/settings/programs/api');
      await clean(page, 'what programs can ask');
      await page.goto('/ledger/new');
      await page.getByText('Read it off a receipt or the last screen').click();
      await page.getByLabel('or its text').fill('Total 12.20 EUR\n4137 kWh');
      await page.getByRole('button', { name: 'Read the text' }).click();
      await expect(page.getByText('its decimal mark is not plain')).toBeVisible();
      await clean(page, 'a receipt that was read');
      await page.goto('/settings');
      await clean(page, 'settings');
      await page.goto('/settings/people');
      await page.getByRole('button', { name: 'Make an invitation' }).click();
      await expect(page.getByRole('img', { name: /QR code/ })).toBeVisible();
      await page.getByRole('button', { name: 'Start another household' }).click();
      await clean(page, 'people and households');
      const link = (await page.locator('#invitation-link').textContent()) as string;
      await page.goto('/ledger');
      await page.getByRole('button', { name: 'Choose several' }).click();
      await page.getByRole('button', { name: 'All on this page' }).click();
      await clean(page, 'several visits chosen');
      await page.request.delete('/api/v1/session', { headers: own(base), data: {} });
      await page.goto('/join');
      await page.getByRole('button', { name: 'Look' }).click();
      await clean(page, 'an invitation without a code');
      await page.goto(link);
      await page.reload();
      await page.getByRole('button', { name: 'Make the account and come in' }).click();
      await clean(page, 'an invitation with messages');
    });

    test('places, more than a screen holds', async ({ page, baseURL }) => {
      const base = baseURL as string;
      await newHousehold(page, base);
      const { networkId } = await addPlace(page, base, { network: 'Ferrywell', site: 'Brod Landing' });
      const more = [1, 2, 3, 4, 5, 6, 7, 8, 9].flatMap((i) => {
        const siteId = v7();
        return [
          recordItem('site', siteId, { networkId, name: `Brod Landing ${i}`, zone: 'Europe/Ljubljana' }),
          recordItem('tariff', v7(), { networkId, siteId, currency: 'EUR', perKWh: '0.50', startFee: '0', validFrom: '2020-01-01' }),
        ];
      });
      await send(
        page.request,
        base,
        more.map((record) => ({ type: 'record', record })),
      );
      await page.goto('/places');
      await expect(page.getByText('per kWh, noted').last()).toBeAttached();
      await clean(page, 'ten places');
    });

    test('places, their forms, the garage and the find box', async ({ page, baseURL }) => {
      const base = baseURL as string;
      const who = await newHousehold(page, base);
      await page.goto('/places');
      await clean(page, 'no places');
      await page.goto('/garage/means');
      await clean(page, 'empty garage');
      const place = await addPlace(page, base, { network: 'Ferrywell', site: 'Brod Landing' });
      const records = [
        recordItem(
          'site',
          place.siteId,
          {
            networkId: place.networkId,
            name: 'Brod Landing',
            zone: 'Europe/Ljubljana',
            latitude: 45.87,
            longitude: 15.44,
            entrance: 'By the ferry',
            food: 'kiosk',
          },
          1,
        ),
        recordItem('stall', v7(), {
          siteId: place.siteId,
          name: '3',
          outlets: [{ connector: 'CHAdeMO', ratedKW: 50 }],
          state: { is: 'closed', seenOn: '2025-10-09' },
        }),
        recordItem('stall', v7(), {
          siteId: place.siteId,
          name: '4',
          outlets: [{ connector: 'CCS2', ratedKW: 150 }],
          state: { is: 'derated', kW: 50, seenOn: '2025-10-09' },
        }),
        recordItem('stall', v7(), { siteId: place.siteId, name: '5', outlets: [{ connector: 'CHAdeMO', ratedKW: 50 }] }),
        recordItem('means', v7(), { kind: 'contactless', label: 'Old card', expires: '2020-01' }),
        recordItem('enrolment', v7(), { kind: 'autocharge', carId: place.carId, networkId: place.networkId, steps: enrolmentSteps('autocharge') }),
      ];
      for (const r of await send(
        page.request,
        base,
        records.map((record) => ({ type: 'record', record })),
      ))
        expect(r).toMatchObject({ status: 'taken' });
      await send(page.request, base, asItems(visitEvents(who, place, Date.now() - 86_400_000, true)));
      await page.goto('/places');
      await expect(page.getByRole('img', { name: /Sketch of 1 sites/ })).toBeVisible();
      await clean(page, 'places');
      await page.goto(`/places/${place.siteId}`);
      await expect(page.getByRole('heading', { name: 'What can be used here' })).toBeVisible();
      await clean(page, 'a site');
      await listStands(page, 'Places');
      await page.goto(`/places/${place.siteId}/prices`);
      await clean(page, 'its prices');
      for (const path of [
        `/places/${place.siteId}/prices/new`,
        `/places/${place.siteId}/change`,
        `/places/${place.siteId}/stalls/new`,
        '/places/new',
        `/garage/car/${place.carId}`,
      ]) {
        await page.goto(path);
        await expect(page.locator('form').getByRole('button').last()).toBeVisible();
        await clean(page, path);
      }
      await page.goto('/garage/means');
      await clean(page, 'means');
      await listStands(page, 'Garage');
      await page.goto(`/garage/enrolment/${records.at(-1)?.id}`);
      await expect(page.getByRole('region', { name: 'Steps to do' })).toBeVisible();
      await clean(page, 'an enrolment');
      await page.goto('/garage/adapter/new');
      await page.getByLabel('From the stall’s').selectOption('CCS2');
      await page.getByRole('button', { name: 'Add the adapter' }).click();
      await expect(page.getByText('needs no adapter')).toBeVisible();
      await clean(page, 'a form with messages');
      await expect(async () => {
        await page.keyboard.press('Control+k');
        await expect(page.getByRole('dialog', { name: 'Find' })).toBeVisible({ timeout: 1000 });
      }).toPass();
      await page.keyboard.type('brod');
      await expect(page.getByRole('option', { name: /Brod Landing/ }).first()).toBeVisible();
      await clean(page, 'find');
    });

    test('not found, no network', async ({ page, baseURL }) => {
      await newHousehold(page, baseURL as string);
      await page.goto('/ledger/00000000-0000-7000-8000-000000000000');
      await clean(page, 'visit not found');
      await page.goto('/nowhere');
      await clean(page, 'page not found');
      await page.goto('/offline');
      await clean(page, 'no network');
    });

    test('the stall', async ({ browser, baseURL }) => {
      const context = await browser.newContext({
        baseURL,
        serviceWorkers: 'allow',
        colorScheme: scheme,
        viewport: { width: 390, height: 844 },
        hasTouch: true,
        isMobile: true,
      });
      const page = await context.newPage();
      page.on('console', (m) => {
        if (/Content Security Policy|hydrat/i.test(m.text())) blocked.push(m.text());
      });
      await page.goto('/stall');
      await clean(page, 'stall, nobody signed in');
      await newHousehold(page, baseURL as string);
      await openStall(page);
      await clean(page, 'stall without sites');
      await page.getByRole('button', { name: 'Add a site' }).tap();
      await clean(page, 'adding a site');
      await page.keyboard.press('Escape');
      await addPlace(page, baseURL as string, { network: 'Copperbeech', site: 'Hollin Bridge' });
      await page.reload();
      await page.getByRole('button', { name: /Hollin Bridge/ }).tap();
      await page.getByRole('radio', { name: /^Stall 1/ }).tap();
      await clean(page, 'choosing a stall');
      await page.getByRole('button', { name: /^Pulled in/, disabled: false }).tap();
      const hand = thumb(page);
      await hand.pad(/^Plugged in/);
      await hand.pad(/^Card shown/);
      await clean(page, 'waiting for power');
      for (const [pad, what] of [
        [/^Fault/, 'faults'],
        [/^Something changed/, 'changes'],
        [/^More/, 'more'],
      ] as const) {
        await hand.pad(pad);
        await expect(page.getByRole('dialog')).toBeVisible();
        await clean(page, what);
        await page.keyboard.press('Escape');
      }
      await hand.pad(/^I see power/);
      await hand.pad(/^Add a reading/);
      await clean(page, 'reading');
      await hand.figures(['20', '118', '9.9']);
      await hand.sheet('Save the reading');
      await expect(page.getByRole('dialog').getByRole('alert')).toContainText('Save again if so');
      await clean(page, 'a reading asked about');
      await page.keyboard.press('Escape');
      await hand.reading(['20', '118', '0.4']);
      await expect(page.getByRole('region', { name: 'Charging' })).toContainText('118 kW');
      await clean(page, 'charging');
      await hand.pad(/^I pressed stop/);
      await hand.pad(/^Unplugged/);
      await hand.pad(/^Pulled out/);
      await clean(page, 'the visit is over');
      await context.close();
    });

    test('a visit typed in, joining, and last visits at the stall', async ({ page, baseURL }) => {
      const base = baseURL as string;
      const who = await newHousehold(page, base);
      const place = await addPlace(page, base, { network: 'Ferrywell', site: 'Brod Landing' });
      const events = visitEvents(who, place, Date.now() - 3 * 86_400_000, true);
      const later = visitEvents(who, place, Date.now() - 3 * 86_400_000 + 600_000);
      await send(page.request, base, asItems([...events, ...later]));
      await page.goto('/ledger/new');
      await page.getByRole('button', { name: 'Keep the visit' }).click();
      await expect(page.getByText('Which site?')).toBeVisible();
      await clean(page, 'a visit typed in, with messages');
      await page.goto(`/ledger/${events[0]?.visitId}`);
      await page.getByRole('button', { name: /^Correct Bill/ }).click();
      await expect(page.getByRole('checkbox', { name: /^1\. Stall 1: failed/ })).toBeVisible();
      await clean(page, 'correcting a bill');
      await page.keyboard.press('Escape');
      await page.getByRole('button', { name: 'Join a recording' }).click();
      await expect(page.getByRole('dialog').getByRole('button', { name: /Brod Landing/ })).toBeVisible();
      await clean(page, 'joining');
      await page.goto('/stall');
      await expect(page.getByRole('region', { name: 'Last visits' })).toContainText('Brod Landing');
      await clean(page, 'last visits at the stall');
      // Another device takes the visit back while it is open here.
      await page
        .getByRole('button', { name: /^Open: Brod Landing/ })
        .first()
        .click();
      await expect(page.getByRole('heading', { name: /^The visit is over/ })).toBeVisible();
      const { visitId } = later[0] as (typeof later)[0];
      await send(
        page.request,
        base,
        asItems([{ ...(later[0] as (typeof later)[0]), id: v7(), kind: 'withdrawal', payload: { target: visitId }, deviceId: v7(), seq: 999 }]),
      );
      await expect(page.getByRole('alert', { name: 'This visit is withdrawn' })).toBeVisible();
      await clean(page, 'a visit withdrawn meanwhile');
    });
  });
}

test('security headers stand on every page', async ({ request, baseURL }) => {
  for (const path of ['/stall', '/sign-in', '/offline', '/nowhere']) {
    const headers = (await request.get(path)).headers();
    expect(headers['content-security-policy']).toContain("script-src 'self'");
    expect(headers['content-security-policy']).not.toContain('unsafe-inline');
    expect(headers['x-content-type-options']).toBe('nosniff');
    expect(headers['x-frame-options']).toBe('DENY');
  }
  expect((await request.delete('/api/v1/session', { headers: own(baseURL as string), data: {} })).status()).toBe(200);
});
