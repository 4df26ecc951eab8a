import type { Page } from '@playwright/test';
import { v7 } from 'uuid';
import { RECORDS } from '@/core/records/record-schema';
import type { RecordType } from '@/core/records/record-types';
import { KINDS } from '@/core/visit/kinds/registry';
import { PAYLOADS, payloadProblem } from '@/core/visit/payloads';
import { asItems, visitEvents } from '../hands/household';
import { type Driver, newDriver, newPlace, post, type Row, row } from './world';

const SCRIPTS = ['<img src=x onerror=__hit()>', '"><script>__hit()</script>', "javascript:__hit()//'", '{{__hit()}}</title><svg onload=__hit()>'];

/** Record types with what they need besides, and every text of theirs as a script where its schema lets it in. */
function records(ids: Record<string, string>): { type: RecordType; id: string; fields: Record<string, unknown> }[] {
  const needed: Record<RecordType, Record<string, unknown>> = {
    network: { name: 'x' },
    provider: { name: 'x' },
    site: { networkId: ids.network, name: 'x', zone: 'UTC' },
    stall: { siteId: ids.site, name: 'x', outlets: [{ connector: 'CCS2', ratedKW: 150 }] },
    car: { name: 'x', usableKWh: 60, connectors: ['CCS2'] },
    adapter: { name: 'x', from: 'CCS1', to: 'NACS' },
    means: { kind: 'contactless', label: 'x' },
    plan: { name: 'x', networkId: ids.network, currency: 'EUR', from: '2025-01-01' },
    enrolment: { kind: 'autocharge', carId: ids.car, networkId: ids.network, steps: [{ where: 'home', act: SCRIPTS[1], shows: SCRIPTS[0] }] },
    tariff: { networkId: ids.network, currency: 'EUR', perKWh: '0.5', startFee: '0', validFrom: '2020-01-01' },
    rate: { currency: 'CHF', into: 'EUR', rate: '0.94', on: '2025-01-01' },
    otherprice: { what: 'home', price: '0.2', currency: 'EUR', from: '2025-01-01' },
    trial: {
      name: 'x',
      kind: 'network',
      sides: [
        { key: ids.network, label: SCRIPTS[0] },
        { key: 'y', label: 'y' },
      ],
      rounds: 7,
      seed: 1,
      time: 'handshake',
      mark: 'kW',
      observers: 1,
    },
  };
  return (Object.keys(RECORDS) as RecordType[]).map((type, t) => {
    const fields: Record<string, unknown> = { ...needed[type] };
    for (const [n, field] of Object.keys(RECORDS[type].shape).entries()) {
      const script = SCRIPTS[(n + t) % SCRIPTS.length] as string;
      const tried = [script, script.slice(0, 38), [script], [{ ...((fields[field] as object[] | undefined)?.[0] ?? {}), text: script }]];
      for (const value of tried) {
        const parsed = RECORDS[type].safeParse({ ...fields, [field]: value });
        if (parsed.success && JSON.stringify((parsed.data as Record<string, unknown>)[field]).includes('__hit')) {
          fields[field] = value;
          break;
        }
      }
    }
    return { type, id: ids[type] ?? v7(), fields };
  });
}

/** Every kind of event with a script in each text that takes one. */
function scriptedEvents(d: Driver, place: Awaited<ReturnType<typeof newPlace>>, siteId: string) {
  const events = visitEvents(d, { ...place, siteId }, Date.now() - 86_400_000);
  const [first] = events;
  if (!first) throw new Error('no visit');
  const [out] = events.splice(
    events.findIndex((e) => e.kind === 'pulled_out'),
    1,
  );
  const texts = KINDS.flatMap((kind) =>
    Object.keys((PAYLOADS[kind] as unknown as { shape: object }).shape ?? {}).flatMap((field, i) => {
      const base: Record<string, Record<string, unknown>> = {
        fault: { code: 'start_error', side: 'network' },
        bill: { sessions: [], amount: '1', currency: 'EUR', state: 'charged' },
        figure_given: { figure: 'handshake', seconds: 3, startMark: 'x', endMark: 'y' },
        price_shown: { where: 'x', text: 'y' },
        change: { what: 'other' },
      };
      const payload = {
        ...(base[kind] ?? {}),
        [field]: (SCRIPTS[i % SCRIPTS.length] as string).slice(0, field === 'connectorId' || field.endsWith('Mark') || field === 'figure' ? 38 : 200),
      };
      return payloadProblem(kind, payload) ? [] : [{ kind, payload }];
    }),
  );
  const unknown = { kind: 'hologram_shown', payload: { [SCRIPTS[0] as string]: SCRIPTS[1] } };
  return [
    ...events,
    ...[...texts, unknown].map((t, i) => ({ ...first, ...t, id: v7(), seq: 200 + i, at: first.at + 60_000 + i, mono: first.mono + 60_000 + i })),
    ...(out ? [{ ...out, seq: 900 }] : []),
  ];
}

/** A script in every text field, read on every page in a browser: none may run. @param page of a context that is signed in as the driver */
export async function storedScript(base: string, open: (d: Driver) => Promise<Page>): Promise<Row> {
  const out = row('stored script in every text field, read in a browser');
  const d = await newDriver(base);
  const place = await newPlace(d);
  const ids: Record<string, string> = { network: v7(), site: v7(), car: v7(), stall: v7(), trial: v7() };
  const scripted = records(ids);
  const answer = await post(
    d,
    scripted.map((r) => ({ type: 'record', record: { ...r, baseRev: 0 } })),
  );
  out.lost += answer?.results.filter((r) => r.status !== 'taken').length ?? 1;
  const events = scriptedEvents(d, place, ids.site as string);
  const taken = await post(d, asItems(events));
  out.lost += taken?.results.filter((r) => r.status !== 'taken').length ?? 1;
  const page = await open(d);
  await page.exposeFunction('__hit', () => {
    out.leaks += 1;
  });
  page.on('dialog', (dialog) => {
    out.leaks += 1;
    void dialog.dismiss();
  });
  const garage = scripted.filter((r) => !['network', 'site', 'stall', 'tariff', 'trial'].includes(r.type)).map((r) => `/garage/${r.type}/${r.id}`);
  const paths = [
    '/ledger',
    `/ledger/${events[0]?.visitId}`,
    '/compare',
    '/compare?by=site&and=car',
    '/compare/trials/new',
    '/compare/same-stop',
    '/compare/plans',
    '/ledger/statement',
    `/compare/trials/${ids.trial}`,
    `/places/networks/${ids.network}`,
    '/places',
    `/places/${ids.site}`,
    `/places/${ids.site}/prices`,
    `/places/${ids.site}/prices/new`,
    `/places/${ids.site}/change`,
    `/places/${ids.site}/stalls/${ids.stall}`,
    '/settings',
    ...['car', 'adapter', 'means', 'plan', 'enrolment', 'provider', 'network', 'tariff', 'rate', 'otherprice'].map((t) => `/garage/${t}`),
    ...garage,
  ];
  for (const path of paths) {
    const response = await page.goto(`${base}${path}`, { waitUntil: 'load' });
    if ((response?.status() ?? 0) >= 500) out.failures += 1;
    await page.evaluate(() => new Promise((done) => requestAnimationFrame(() => setTimeout(done, 0))));
    out.runs += 1;
  }
  await page.goto(`${base}/stall`, { waitUntil: 'load' });
  await page.getByRole('heading', { name: 'Where are you?' }).waitFor();
  await page.getByRole('region', { name: 'Sites' }).getByRole('button', { name: /__hit/ }).first().click();
  await page
    .getByRole('radio', { name: /^Stall/ })
    .first()
    .waitFor();
  out.runs += 1;
  out.note = `${scripted.length} records, ${events.length} events`;
  return out;
}
