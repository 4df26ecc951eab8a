import { v7 } from 'uuid';
import { deriveVisit } from '@/core/visit/derive';
import { payloadProblem } from '@/core/visit/payloads';
import type { Member } from '../accounts/who';
import { pool } from '../db/pool';
import { addPlace, describeWithDatabase, newHousehold } from '../fixtures/household';
import { eventsOfVisits } from '../visits/event-rows';
import type { Caller } from './caller';
import { takeEventsIn } from './events-in';

afterAll(() => (process.env.DATABASE_URL ? pool().end() : undefined));

describeWithDatabase('events of a program', () => {
  let who: Member;
  let visitId: string;
  let plugged: string;
  let first: object[];
  const send = async (events: object[]): Promise<string[]> => {
    const answer = await takeEventsIn({ ...who, zone: 'UTC', source: 'van' } as unknown as Caller, { events });
    return ((await answer.json()) as { results: { status: string }[] }).results.map((r) => r.status);
  };
  const visit = async () => deriveVisit(visitId, (await eventsOfVisits(who.householdId, [visitId])).get(visitId) ?? [], payloadProblem);
  const event = (kind: string, payload: object, more: object = {}) => ({ id: v7(), visitId, kind, at: '2025-10-14T13:52Z', payload, ...more });
  beforeEach(async () => {
    who = await newHousehold();
    const { siteId } = await addPlace(who);
    [visitId, plugged] = [v7(), v7()];
    first = [event('pulled_in', { siteId }), event('plugged', {}, { id: plugged }), event('note', { text: 'dry' }), event('note', { text: 'wet' })];
    expect(await send(first)).toEqual(['taken', 'taken', 'taken', 'taken']);
  });

  it('that take back, or take that back, in requests of their own do so, however often they are sent', async () => {
    expect((await visit()).attempts).toHaveLength(1);
    const back = event('withdrawal', { target: plugged });
    expect(await send([back])).toEqual(['taken']);
    expect((await visit()).attempts).toHaveLength(0);
    const again = event('withdrawal', { target: back.id });
    expect(await send([again])).toEqual(['taken']);
    expect((await visit()).attempts).toHaveLength(1);
    for (const events of [first, [back], [again]]) expect(new Set(await send(events))).toEqual(new Set(['already']));
  });
  it('that correct the same once more are the ones that count', async () => {
    const note = (first[2] as { id: string }).id;
    for (const text of ['damp', 'foggy', 'frozen', 'clear']) {
      expect(await send([event('correction', { target: note, set: { text } })])).toEqual(['taken']);
      expect((await visit()).line.flatMap((e) => (e.kind === 'note' ? [e.payload.text] : []))).toContain(text);
    }
  });
  it('of which one stands there twice are there once', async () => {
    const [note, more] = [event('note', { text: 'a' }), event('note', { text: 'b' })];
    expect(await send([note, note, more])).toEqual(['taken', 'already', 'taken']);
    expect(await send([note, more, note])).toEqual(['already', 'already', 'already']);
  });
  it('of which one was refused stand in their place when it is mended', async () => {
    const half = [event('note', { text: 'a' }), event('note', { text: 7 }), event('note', { text: 'c' })];
    expect(await send(half)).toEqual(['taken', 'refused', 'taken']);
    half[1] = { ...half[1], payload: { text: 'b' } } as never;
    expect(await send(half)).toEqual(['already', 'taken', 'already']);
    const said = (await visit()).line.flatMap((e) => (e.kind === 'note' ? [e.payload.text] : []));
    expect(said).toEqual(['dry', 'wet', 'a', 'b', 'c']);
  });
  it('with a field that is not known, or a source that may be a card, are refused at its place', async () => {
    const answer = await takeEventsIn({ ...who, zone: 'UTC', source: 'van' } as unknown as Caller, {
      events: first,
      source: '4111 1111 1111 1111',
      'a/b': 1,
      more: 2,
    });
    const { errors } = (await answer.json()) as { errors: { pointer: string; detail: string }[] };
    expect([answer.status, errors.map((e) => e.pointer)]).toEqual([422, ['/source', '/a~1b', '/more']]);
    expect(errors.map((e) => e.detail)).toEqual([expect.stringContaining('payment card'), 'is no field that is known here', 'is no field that is known here']);
  });
  it('of a driver who is nobody here are refused at their place: private, nobody would see them', async () => {
    const told = async (events: object[]) => {
      const answer = await takeEventsIn({ ...who, zone: 'UTC', source: 'van' } as unknown as Caller, { events });
      return ((await answer.json()) as { results: { status: string; pointer?: string }[] }).results.map((r) => [r.status, r.pointer]);
    };
    const pulledIn = (first[0] as { id: string }).id;
    const other = v7();
    expect(
      await told([
        event('pulled_in', { drivenBy: v7() }, { visitId: other }),
        event('pulled_in', { drivenBy: who.personId }, { visitId: other }),
        event('correction', { target: pulledIn, set: { drivenBy: v7() } }),
        event('correction', { target: pulledIn, set: { drivenBy: who.personId } }),
      ]),
    ).toEqual([
      ['refused', '/events/0/payload/drivenBy'],
      ['taken', undefined],
      ['refused', '/events/2/payload/set/drivenBy'],
      ['taken', undefined],
    ]);
  });
});
