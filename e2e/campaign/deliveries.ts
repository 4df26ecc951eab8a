import type { StoredEvent } from '@/core/visit/event';
import { anyVisits } from '../hands/any-visits';
import { asItems } from '../hands/household';
import { type Driver, getJson, newDriver, newPlace, post, type Row, row, seeded } from './world';

const HOUR_MS = 3_600_000;
type Listed = { rows: { id: string; siteId: string | null }[] };

/**
 * The same visits, clocks jumping and all, delivered to as many households in another order each, cut into other batches and
 * in part twice: every household's list must say the same.
 */
export async function deliveries(base: string, orders: number, count: number, seed: number): Promise<Row> {
  const out = row('deliveries reordered and doubled, clocks jumping');
  let first: string | null = null;
  for (let order = 0; order < orders; order++) {
    const d = await newDriver(base);
    const place = await newPlace(d);
    const random = seeded(seed + order);
    // Ids in the order of the text are the same for every household but for their own: they are told apart by place below.
    const visits = anyVisits(d, place.siteId, seed, count).filter((v) => v.length > 0);
    const events = visits.flat();
    const doubled = [...events, ...events.filter(() => random() < 0.3)].map((e) => ({ e, k: order === 0 ? 0 : random() })).sort((a, b) => a.k - b.k);
    for (let i = 0; i < doubled.length; ) {
      const size = 1 + Math.floor(random() * 60);
      // Clocks made up do not go with the hour of sending, which would tell another thing of them in each order.
      const answer = await post(d, asItems(doubled.slice(i, i + size).map(({ e }) => e)), d.base, null);
      if (answer?.status !== 200) out.failures += 1;
      else out.lost += answer.results.filter((r) => r.status !== 'taken' && r.status !== 'already').length;
      i += size;
    }
    const said = await figures(d, visits);
    first ??= said;
    if (said !== first) out.changed += 1;
    out.runs += visits.length;
  }
  return out;
}

/** Everything the list says of each visit, in the order in which they were made up, ids taken out. */
async function figures(d: Driver, visits: StoredEvent[][]): Promise<string> {
  const rows = new Map<string, object>();
  for (const at of new Set(visits.flatMap((v) => v.map((e) => Math.floor(e.at / HOUR_MS) * HOUR_MS)))) {
    const { rows: near } = await getJson<Listed>(d, `/api/v1/visits/lately?near=${at}`);
    for (const { id, siteId, ...said } of near) rows.set(id, { ...said, here: siteId !== null });
  }
  return JSON.stringify(visits.map((v) => rows.get(v[0]?.visitId as string) ?? 'withdrawn'));
}
