import { countBays } from './bays';
import { correctableText, correctionSet } from './correction-set';
import { deriveVisit } from './derive';
import type { StoredEvent } from './event';
import { CARD, IN, idOf, KW, LIFE, PHONE, SECOND_PHONE, SITE, STALL_A, type Step, story, VISIT } from './fixtures/story';
import { joinedEvents, takenBackTo } from './join-visits';
import { correctableFields, eventDetail, KINDS } from './kinds/registry';
import { payloadProblem } from './payloads';
import { fieldAt, isFieldPath, setFields } from './set-fields';
import { type StopVisit, stopTimes } from './stop';

const visit = (...steps: Step[]) => deriveVisit(VISIT, story(...steps), payloadProblem);
const chosen: Step = [5, 'stall_chosen', { stallId: STALL_A }];
const charged: Step[] = [IN, chosen, [60, 'plugged'], [75, 'means_shown', CARD], [100, 'power_seen', KW]];
const given = (more: Record<string, unknown> = {}): Step => [
  400,
  'figure_given',
  { figure: 'handshake', seconds: 27, plusMinus_s: 2, startMark: 'card', endMark: 'kW', ...more },
];

describe('setting fields', () => {
  it('sets, takes out, reaches into an object, and leaves what was given alone', () => {
    const before = { siteId: SITE, seen: { free: 2 } };
    expect(setFields(before, { 'seen.total': 4, socPct: 20 })).toEqual({ siteId: SITE, seen: { free: 2, total: 4 }, socPct: 20 });
    expect(setFields(before, { 'seen.free': null })).toEqual({ siteId: SITE });
    expect(setFields({}, { 'seen.free': 1 })).toEqual({ seen: { free: 1 } });
    expect(before).toEqual({ siteId: SITE, seen: { free: 2 } });
  });
  it('reaches nothing behind the object', () => {
    expect(setFields({}, JSON.parse('{"__proto__.polluted":1,"constructor.x":1,"a.b.c":2,"":3}'))).toEqual({});
    expect(({} as { polluted?: number }).polluted).toBeUndefined();
  });
  it('reaches into an entry that a list has, and makes none', () => {
    const before = { stalls: [{ stallId: STALL_A, state: 'free' }] };
    expect(setFields(before, { 'stalls.0.state': 'dark' })).toEqual({ stalls: [{ stallId: STALL_A, state: 'dark' }] });
    expect(setFields(before, { 'stalls.7.state': 'dark', 'nothing.0.state': 'dark', 'stalls.0.__proto__': 'x' })).toEqual(before);
    expect([fieldAt(before, 'stalls.0.state'), fieldAt(before, 'stalls.7.state')]).toEqual(['free', undefined]);
  });
  it('knows a field’s name from what is none', () => {
    for (const path of ['socPct', 'attempts', 'seen.free', 'stalls.0.state', 'stalls.12.state', 'stalls.999.kW'])
      expect([path, isFieldPath(path)]).toEqual([path, true]);
    for (const path of [
      '',
      'at',
      '1st',
      'a.b.c',
      'x.stalls.1.state',
      '1stalls.1.state',
      'stalls.1.state.more',
      'stalls.1000.state',
      'stalls.1.2',
      '__proto__',
      'constructor',
    ])
      expect([path, isFieldPath(path)]).toEqual([path, false]);
  });
  it('sets one entry of a list and leaves the others, takes a field out, and passes by what is no object', () => {
    const before = { stalls: [{ kW: 5, state: 'free' }, { kW: 6 }, null, 'x'] };
    expect(setFields(before, { 'stalls.0.kW': 9 })).toEqual({ stalls: [{ kW: 9, state: 'free' }, { kW: 6 }, null, 'x'] });
    expect(setFields(before, { 'stalls.0.kW': null })).toEqual({ stalls: [{ state: 'free' }, { kW: 6 }, null, 'x'] });
    expect(setFields(before, { 'stalls.2.kW': 9, 'stalls.3.kW': 9 })).toEqual(before);
    expect([fieldAt(before, 'stalls.2.kW'), fieldAt(before, 'stalls.3.kW'), fieldAt(before, 'stalls.1.kW')]).toEqual([undefined, undefined, 6]);
    expect(setFields({ seen: null }, { 'seen.free': 1 })).toEqual({ seen: { free: 1 } });
    expect(setFields({ seen: 'much' }, { 'seen.free': 1 })).toEqual({ seen: { free: 1 } });
    expect([fieldAt({ seen: null }, 'seen.free'), fieldAt({ seen: 'much' }, 'seen.length')]).toEqual([undefined, undefined]);
    expect([fieldAt({ a: ['x', 'y'] }, 'a'), fieldAt({ a: ['x', 1] }, 'a'), fieldAt({ a: true }, 'a'), fieldAt({ a: {} }, 'a'), fieldAt({}, '')]).toEqual([
      ['x', 'y'],
      undefined,
      true,
      undefined,
      undefined,
    ]);
  });
  it('reads what it set', () => {
    expect(fieldAt({ seen: { free: 2 } }, 'seen.free')).toBe(2);
    expect(fieldAt({ seen: { free: 2 } }, 'seen')).toBeUndefined();
  });
});

describe('correcting any field', () => {
  it('a form that was not touched changes nothing; a decimal comma is a point; emptied is not read', () => {
    const reading = { screen: 'stall', socPct: 20, kWh: '3.1' };
    const typed = correctableText('reading', reading);
    expect(correctionSet('reading', reading, typed)).toEqual({ set: {}, problems: {} });
    expect(correctionSet('reading', reading, { ...typed, kWh: '13,1', socPct: '', kW: 'x' })).toEqual({
      set: { kWh: '13.1', socPct: null },
      problems: { kW: 'Not a number' },
    });
  });
  it('reads what was typed as the field is', () => {
    const set = (kind: 'bill' | 'power_seen' | 'note' | 'reading', payload: object, typed: Record<string, string>) =>
      correctionSet(kind, payload as never, typed);
    const seen = { screen: 'stall', mark: 'kW' };
    expect(set('power_seen', seen, { ...seen, late: 'true' })).toEqual({ set: { late: true }, problems: {} });
    expect(set('power_seen', { ...seen, late: true }, { ...seen, late: 'false' })).toEqual({ set: { late: false }, problems: {} });
    expect(set('note', { text: 'Dark' }, { text: '  Lit again ' })).toEqual({ set: { text: 'Lit again' }, problems: {} });
    expect(set('note', { text: 'Dark' }, { text: ' Dark  ' })).toEqual({ set: {}, problems: {} });
    const bill = { sessions: [idOf(102), idOf(104)], amount: '9.00', currency: 'EUR', state: 'charged' };
    const typed = correctableText('bill', bill);
    expect(typed.sessions).toBe(`${idOf(102)} ${idOf(104)}`);
    expect(set('bill', bill, typed)).toEqual({ set: {}, problems: {} });
    expect(set('bill', bill, { ...typed, sessions: `${idOf(102)}  ${idOf(106)}` }).set).toEqual({ sessions: [idOf(102), idOf(106)] });
    expect(set('bill', bill, { ...typed, sessions: '' }).set).toEqual({ sessions: [] });
    for (const bad of ['9.', 'x9', '9x', '1.2.3', '--1', '€9'])
      expect(set('bill', bill, { ...typed, amount: bad }).problems).toEqual({ amount: 'Not a number' });
    expect(set('bill', bill, { ...typed, amount: '12,345' }).set).toEqual({ amount: '12.345' });
    expect(set('reading', { screen: 'stall' }, { screen: 'stall', kW: '-1.25' }).set).toEqual({ kW: -1.25 });
  });
  it('a distance is typed as it is read and kept in km', () => {
    const arrived = { siteId: SITE, odometerKm: 61233.931 };
    const typed = correctableText('pulled_in', arrived, 'mi');
    expect(typed.odometerKm).toBe('38049');
    expect(correctableText('pulled_in', arrived).odometerKm).toBe('61233.9');
    expect(correctionSet('pulled_in', arrived, typed, 'mi')).toEqual({ set: {}, problems: {} });
    expect(correctionSet('pulled_in', arrived, { ...typed, odometerKm: '100' }, 'mi')).toEqual({ set: { odometerKm: 160.934 }, problems: {} });
    expect(correctionSet('pulled_in', arrived, { ...typed, odometerKm: '100' })).toEqual({ set: { odometerKm: 100 }, problems: {} });
    expect(correctionSet('pulled_in', arrived, { ...typed, odometerKm: 'far' }, 'mi').problems).toEqual({ odometerKm: 'Not a number' });
    expect(
      eventDetail(
        { kind: 'pulled_in', payload: arrived } as never,
        () => '',
        () => null,
        'mi',
      ),
    ).toBe('38049 mi');
  });
  it('what a choice offers is within the record’s own bounds', () => {
    const least: Partial<Record<string, Record<string, unknown>>> = {
      fault: { code: 'start_error', side: 'network' },
      means_shown: CARD,
      means_accepted: CARD,
      means_refused: CARD,
      change: { what: 'rain' },
      power_seen: KW,
      reading: { screen: 'car' },
      mark: { reason: 'a test' },
      bill: { sessions: [], amount: '1', currency: 'EUR', state: 'charged' },
    };
    for (const kind of KINDS)
      for (const f of correctableFields(kind, {}))
        if (f.is === 'choice')
          for (const [value] of f.options) expect([kind, payloadProblem(kind, { ...least[kind], [f.field]: value })]).toEqual([kind, null]);
  });
  it('each bay of a survey, within its bounds', () => {
    const survey = { stalls: [{ stallId: STALL_A, state: 'free' }] };
    const slow = { stalls: [{ stallId: STALL_A, state: 'derated', kW: 60 }] };
    expect(correctionSet('survey', slow, { ...correctableText('survey', slow), 'stalls.0.kW': '50' })).toEqual({ set: { 'stalls.0.kW': 50 }, problems: {} });
    expect(correctionSet('survey', survey, { 'stalls.0.state': 'dark' })).toEqual({ set: { 'stalls.0.state': 'dark' }, problems: {} });
    const v = visit(
      IN,
      [2, 'survey', survey],
      [300, 'stall_chosen', { stallId: STALL_A }],
      [310, 'correction', { target: idOf(101), set: { 'stalls.0.state': 'charging' } }],
    );
    expect(v.times.queue).toMatchObject({ known: true, s: 300 });
    const bad = visit(IN, [2, 'survey', survey], [310, 'correction', { target: idOf(101), set: { 'stalls.0.state': 'on fire' } }]);
    expect(bad.line[1]?.payload).toEqual(survey);
  });
  it('figures on arrival are set into pulling in by a correction', () => {
    const v = visit(...charged, [110, 'correction', { target: idOf(100), set: { 'seen.free': 0, 'seen.total': 4, socPct: 18 } }]);
    expect(v.line[0]?.payload).toEqual({ siteId: SITE, seen: { free: 0, total: 4 }, socPct: 18 });
    expect(v.socFrom).toBe(18);
    // No free stall was seen: what lies before the stall was chosen was a queue.
    expect(v.times.queue).toMatchObject({ known: true, s: 5 });
  });
});

describe('given figures', () => {
  it('stand beside the derived one, which counts', () => {
    const v = visit(...charged, given());
    expect(v.given).toHaveLength(1);
    expect(v.attempts[0]?.times.handshake).toMatchObject({ known: true, s: 25 });
  });
  it('count in its place once somebody chose them', () => {
    const v = visit(...charged, given(), [500, 'correction', { target: idOf(105), set: { used: true } }]);
    expect(v.attempts[0]?.times.handshake).toMatchObject({ known: true, s: 27, pm_s: 2 });
    expect(v.attempts[0]?.times.plugToPower).toMatchObject({ s: 40 });
  });
});

describe('a clock that ran back between two page lives', () => {
  const later = { life: SECOND_PHONE };
  it('leaves the order alone: the card was shown, only the time across is unknown', () => {
    const v = visit(IN, chosen, [60, 'plugged'], [75, 'means_shown', CARD], [-3500, 'power_seen', KW, later]);
    expect(v.attempts[0]?.times.handshake).toEqual({ known: false, why: 'the phone’s clock ran back in between' });
  });
  it('what lies wholly after it is known', () => {
    const v = visit(IN, chosen, [60, 'plugged'], [-3520, 'means_shown', CARD, later], [-3500, 'power_seen', KW, later]);
    expect(v.attempts[0]?.times.handshake).toMatchObject({ known: true, s: 20 });
    expect(v.attempts[0]?.times.plugToPower).toMatchObject({ known: false });
  });
});

describe('two recordings of one visit', () => {
  const other = idOf(900);
  const newId = (id: string) => id.replace(/^0190/, '0191');
  const from = story(
    [2, 'pulled_in', { siteId: SITE }],
    [6, 'stall_chosen', { stallId: STALL_A }],
    [61, 'plugged'],
    [62, 'correction', { target: idOf(102), at: 0 }],
    [700, 'withdrawal', { target: other }],
  ).map((e) => ({ ...e, visitId: other, deviceId: SECOND_PHONE, life: LIFE }));
  it('become observations of one, corrections follow their events, and the taking back of the whole stays behind', () => {
    const copies = joinedEvents(VISIT, from, newId);
    expect(copies.map((e) => [e.kind, e.role, e.visitId])).toEqual(['pulled_in', 'stall_chosen', 'plugged', 'correction'].map((k) => [k, 'observer', VISIT]));
    expect(copies[3]?.payload).toMatchObject({ target: newId(idOf(102)), joinedFrom: other });
    expect(joinedEvents(VISIT, from, newId)).toEqual(copies);
  });
  it('take a bill’s attempts along, and bring nothing back to where it was recorded', () => {
    const bill = story([900, 'bill', { sessions: [idOf(102)], amount: '9.00', currency: 'EUR', state: 'charged' }]).map((e) => ({ ...e, visitId: other }));
    const copies = joinedEvents(VISIT, [...from, ...bill], newId);
    expect(copies.at(-1)?.payload.sessions).toEqual([newId(idOf(102))]);
    expect(joinedEvents(other, copies, newId)).toEqual([]);
  });
  it('stand together until the other is restored', () => {
    const [end, back] = story(
      ...Array.from({ length: 2 }, (_, i): Step => [800 + i, 'withdrawal', { target: i === 0 ? other : idOf(500), joinedInto: VISIT }]),
    ).map((e, i) => ({ ...e, id: idOf(500 + i), visitId: other, seq: 50 + i })) as [StoredEvent, StoredEvent];
    expect(deriveVisit(other, [...from.slice(0, 3), end], payloadProblem).joinedInto).toBe(VISIT);
    expect(deriveVisit(other, [...from.slice(0, 3), end, back], payloadProblem)).toMatchObject({ joinedInto: null, withdrawn: false });
    expect(joinedEvents(VISIT, [...from.slice(0, 3), end, back], newId)).toHaveLength(3);
  });
  it('what the copies name are copies too, in corrections of lists as well, and odd lists stay as they are', () => {
    const at = (n: number, kind: Step[1], payload: Record<string, unknown>) =>
      story([800 + n, kind, payload]).map((e) => ({ ...e, id: idOf(700 + n), visitId: other }));
    const copies = joinedEvents(
      VISIT,
      [
        ...from.slice(0, 3),
        ...at(1, 'correction', { target: idOf(102), set: { sessions: [idOf(102), 7] } }),
        ...at(2, 'correction', { target: idOf(102), set: null }),
        ...at(3, 'correction', { target: idOf(102), set: [1] }),
      ],
      newId,
    );
    expect(copies.slice(3).map((e) => e.payload.set)).toEqual([{ sessions: [newId(idOf(102)), 7] }, null, [1]]);
    expect(copies.slice(3).map((e) => e.payload.target)).toEqual([1, 2, 3].map(() => newId(idOf(102))));
  });
  it('only withdrawals take a visit back: a correction that names it comes along', () => {
    const odd = story([800, 'correction', { target: other }]).map((e) => ({ ...e, id: idOf(701), visitId: other }));
    expect(joinedEvents(VISIT, [...from.slice(0, 3), ...odd], newId)).toHaveLength(4);
  });
  it('joining again takes back what parted from this recording, and nothing else', () => {
    const copies = joinedEvents(VISIT, from, newId);
    const own = (n: number, target: string | undefined, more: object) =>
      story([820 + n, 'withdrawal', { target, ...more }]).map((e) => ({ ...e, id: idOf(620 + n), seq: 70 + n }));
    const all = [...copies, ...own(1, copies[0]?.id, { partedFrom: other }), ...own(2, copies[1]?.id, { partedFrom: idOf(999) }), ...own(3, copies[2]?.id, {})];
    expect(takenBackTo('join_again', all, VISIT, other)).toEqual([idOf(621)]);
    // Copies of corrections and of withdrawals are none of what is taken back.
    expect(takenBackTo('part', all, VISIT, other)).toEqual([]);
    expect(takenBackTo('part', copies, VISIT, other)).toEqual(copies.slice(0, 3).map((e) => e.id));
    expect(takenBackTo('part', copies, VISIT, idOf(999))).toEqual([]);
  });
  it('are parted by taking the copies back, save what somebody had taken back before', () => {
    const copies = joinedEvents(VISIT, from.slice(0, 3), newId);
    const [own, parting] = story([810, 'withdrawal', { target: copies[1]?.id }], [820, 'withdrawal', { target: copies[0]?.id, partedFrom: other }]).map(
      (e, i) => ({
        ...e,
        id: idOf(600 + i),
        seq: 60 + i,
      }),
    ) as [StoredEvent, StoredEvent];
    expect(takenBackTo('part', copies, VISIT, other)).toEqual(copies.map((e) => e.id));
    expect(takenBackTo('part', [...copies, own], VISIT, other)).toEqual([copies[0]?.id, copies[2]?.id]);
    expect(takenBackTo('join_again', [...copies, own, parting], VISIT, other)).toEqual([parting.id]);
  });
  it('differ by half as ±, with the recorder’s time', () => {
    const mine = story(IN, chosen, [60, 'plugged']).map((e) => ({ ...e, deviceId: PHONE }));
    const v = deriveVisit(VISIT, [...mine, ...joinedEvents(VISIT, from.slice(0, 3), newId)], payloadProblem);
    expect(v.line.map((e) => [e.kind, e.pm_s, e.looks?.[0]?.differs_s])).toEqual([
      ['pulled_in', 1, 2],
      ['stall_chosen', 0.5, 1],
      ['plugged', 0.5, 1],
    ]);
  });
});

describe('the bays on arrival', () => {
  const bays = (...states: string[]) => ({ stalls: states.map((state) => ({ stallId: STALL_A, state })) });
  it('are counted as seen; what was not looked at is in none', () => {
    expect(countBays(bays('free', 'derated', 'charging', 'idle_car', 'blocked', 'dark', 'closed', 'not_looked').stalls as never)).toEqual({
      free: 2,
      taken: 3,
      outOfOrder: 2,
      looked: 7,
    });
  });
  it('none of them free before a stall was chosen: that was a queue, from pulling in', () => {
    expect(visit(IN, [10, 'survey', bays('charging', 'dark', 'not_looked')], [300, 'stall_chosen', { stallId: STALL_A }]).times.queue).toMatchObject({
      s: 300,
    });
    expect(visit(IN, [10, 'survey', bays('charging', 'free')], [300, 'stall_chosen', { stallId: STALL_A }]).times.queue.known).toBe(false);
    expect(visit(IN, [10, 'survey', bays('not_looked')], [300, 'stall_chosen', { stallId: STALL_A }]).times.queue.known).toBe(false);
    expect(visit(IN, chosen, [10, 'survey', bays('charging')]).times.queue.known).toBe(false);
  });
  it('a count that was given is believed before the bays', () => {
    const free = [0, 'pulled_in', { siteId: SITE, seen: { free: 1 } }] as Step;
    expect(visit(free, [10, 'survey', bays('charging')], [300, 'stall_chosen', { stallId: STALL_A }]).times.queue.known).toBe(false);
  });
});

describe('a stop of several visits', () => {
  const at = (min: number) => Date.UTC(2025, 9, 14, 12, min);
  const one = (id: number, from: number, to: number | null, more: Partial<StopVisit> = {}): StopVisit => ({
    id: idOf(id),
    siteId: SITE,
    zone: 'UTC',
    pulledInAt: at(from),
    pulledOutAt: to === null ? null : at(to),
    ended: 'none',
    lost_s: 300,
    ...more,
  });
  it('loses at its stalls, and on the way from a site that gave nothing', () => {
    const stop = stopTimes([one(2, 20, 50, { ended: 'charge', lost_s: 0 }), one(1, 0, 9)]);
    expect(stop.visits.map((v) => v.id)).toEqual([idOf(1), idOf(2)]);
    expect([stop.atStalls_s, stop.onTheWay_s]).toEqual([300, 660]);
  });
  it('is unknown where one of its parts is', () => {
    expect(stopTimes([one(1, 0, null), one(2, 20, 50)]).onTheWay_s).toBeNull();
    expect(stopTimes([one(1, 0, 9, { lost_s: null }), one(2, 20, 50)]).atStalls_s).toBeNull();
  });
});
