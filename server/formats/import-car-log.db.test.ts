import { v7 } from 'uuid';
import { chargeOf } from '@/core/power/charge-of';
import { seriesOf } from '@/core/power/series';
import { deriveVisit } from '@/core/visit/derive';
import { CARD, KW, type Step } from '@/core/visit/fixtures/story';
import { payloadProblem } from '@/core/visit/payloads';
import type { Member } from '../accounts/who';
import { pool } from '../db/pool';
import { addPlace, addSomebody, addVisit, describeWithDatabase, newHousehold, type Place } from '../fixtures/household';
import { eventsOfVisits } from '../visits/event-rows';
import { withdrawalFor } from '../visits/follow-joins';
import { joinVisits } from '../visits/join-visits';
import { markVisits } from '../visits/mark-visits';
import { carLogsOf, importCarLog, undoCarLog } from './import-car-log';
import { importedEvent, sendImported } from './imported-events';

afterAll(() => (process.env.DATABASE_URL ? pool().end() : undefined));

/** A taper from 110 kW to 40 over twenty minutes. */
const power = (t: number) => (t < 0 || t > 1200 ? 0 : 110 - Math.max(0, t - 300) * (70 / 900));
const LOOKS: Step[] = [60, 300, 480, 720, 960, 1140].map(
  (t): Step => [60 + t, 'reading', { screen: 'stall', kW: Math.round(power(t)), kWh: String((t / 40).toFixed(1)) }],
);
const STEPS: Step[] = [
  [10, 'plugged'],
  [20, 'means_shown', CARD],
  // Tapped four seconds late.
  [64, 'power_seen', KW],
  ...LOOKS,
  [1262, 'power_gone', { why: 'asked' }],
  [1300, 'unplugged'],
  [1320, 'pulled_out', { reason: 'enough' }],
];
const log = (by = power) =>
  new TextEncoder().encode(
    ['time;kW;soc', ...Array.from({ length: 900 }, (_, i) => `${i * 2};${by(i * 2 - 200).toFixed(1)};${(20 + i / 18).toFixed(1)}`)].join('\n'),
  );

describeWithDatabase('a car’s own log beside a visit', () => {
  let ines: Member;
  let place: Place;
  let visitId: string;
  beforeEach(async () => {
    ines = await newHousehold();
    place = await addPlace(ines);
    visitId = await addVisit(ines, place, Date.UTC(2025, 9, 1, 12), STEPS);
  }, 30_000);
  const ask = async (take: boolean, file = log(), who = ines) => {
    const answer = await importCarLog(who, visitId, file, take);
    if (!answer?.ok) throw new Error(answer ? answer.refused.code : 'no visit');
    return answer;
  };
  const derived = async () => deriveVisit(visitId, (await eventsOfVisits(ines.householdId, [visitId])).get(visitId) ?? [], payloadProblem);

  it('is told where it lies and how far each tap is from it, and nothing is written', async () => {
    const { told } = await ask(false);
    expect(told.session).toMatchObject({ n: 1, told: true });
    expect(told.session?.aligned.r).toBeGreaterThan(0.97);
    // Power began 60 s after the arrival: the log was begun 200 s before that.
    expect(Math.abs((told.session?.aligned.offset_s ?? 0) + 204)).toBeLessThan(8);
    expect(Math.abs((told.session?.errors.power_s ?? 0) - 4)).toBeLessThan(9);
    expect(told.session?.errors.looks).toHaveLength(6);
    expect(told.readings).toBeGreaterThan(80);
    expect((await derived()).attempts[0]?.readings).toHaveLength(6);
  });
  it('fills the curve as the car’s, once however often it is sent; taken back it is as it was, and comes in again', async () => {
    const { told, taken } = await ask(true);
    expect(taken).toBe(told.readings);
    expect((await ask(true)).taken).toBe(0);
    const v = await derived();
    const charge = chargeOf(v.attempts[0] as never, v);
    expect(charge && seriesOf(charge).source).toEqual({ soc: 'car', kWh: 'stall', kW: 'car' });
    // Its own readings do not tell where it lies: the same as before.
    expect((await ask(false)).told.session?.errors.looks).toHaveLength(6);
    expect(await carLogsOf(ines, visitId)).toEqual([{ importId: told.importId, readings: told.readings }]);
    expect(await undoCarLog(ines, visitId, told.importId)).toBe(told.readings);
    expect(await undoCarLog(ines, visitId, told.importId)).toBe(0);
    expect((await derived()).attempts[0]?.readings).toHaveLength(6);
    expect((await ask(true)).taken).toBe(told.readings);
    expect((await derived()).attempts[0]?.readings).toHaveLength(6 + told.readings);
    expect(await undoCarLog(ines, visitId, told.importId)).toBe(told.readings);
  });
  it('fills all sessions of the visit that it has by one clock; one that it has not stays as it was', async () => {
    // Five minutes at 50 kW before, of which one look was taken; and after the log's end another.
    const shift = (by: number) => STEPS.map(([at, ...what]): Step => [at + by, ...what]);
    const short = (at: number): Step[] => [
      [at, 'plugged'],
      [at + 10, 'means_shown', CARD],
      [at + 20, 'power_seen', KW],
      [at + 100, 'reading', { screen: 'stall', kW: 50 }],
      [at + 320, 'power_gone', { why: 'fault' }],
      [at + 330, 'unplugged'],
    ];
    visitId = await addVisit(ines, place, Date.UTC(2025, 9, 2, 12), [
      ...short(10),
      ...shift(400).slice(0, -1),
      ...short(3000),
      [3400, 'pulled_out', { reason: 'enough' }],
    ]);
    const first = (t: number) => (t >= -430 && t < -130 ? 50 : 0);
    const file = new TextEncoder().encode(
      ['time;kW', ...Array.from({ length: 1100 }, (_, i) => `${i * 2};${(first(i * 2 - 600) + power(i * 2 - 600)).toFixed(1)}`)].join('\n'),
    );
    const { told, taken } = await ask(true, file);
    expect(told.session).toMatchObject({ n: 2, told: true });
    expect(told.also.map((s) => [s.n, Math.round(s.errors.power_s ?? 99) < 10, s.errors.looks.length])).toEqual([[1, true, 1]]);
    const counts = async () => (await derived()).attempts.map((a) => a.readings.filter((r) => r.screen === 'car').length);
    const [one, two, three] = await counts();
    expect([one, two, three]).toEqual([expect.closeTo(29, -0.5), expect.closeTo(119, -0.5), 0]);
    expect((one ?? 0) + (two ?? 0)).toBe(taken);
    expect((await ask(true, file)).taken).toBe(0);
    expect(await undoCarLog(ines, visitId, told.importId)).toBe(taken);
    expect(await counts()).toEqual([0, 0, 0]);
  });
  it('beside another log of the same charge brings what that has not, and tells each tap the same', async () => {
    const part = new TextEncoder().encode(new TextDecoder().decode(log()).split('\n').slice(0, 500).join('\n'));
    const first = await ask(true, part);
    expect(first.taken).toBeGreaterThan(40);
    const { told } = await ask(false);
    expect(told.session?.errors.looks).toHaveLength(6);
    const whole = (await ask(true)).taken ?? 0;
    expect(whole).toBeGreaterThan(20);
    const times =
      (await derived()).attempts[0]?.readings
        .filter((r) => r.screen === 'car')
        .map((r) => r.mark.t)
        .sort((a, b) => a - b) ?? [];
    expect(times).toHaveLength((first.taken ?? 0) + whole);
    expect(Math.min(...times.slice(1).map((t, i) => t - (times[i] as number)))).toBeGreaterThanOrEqual(9_500);
    // The same once more with a line that says nothing new.
    const again = new TextEncoder().encode(`${new TextDecoder().decode(log())}\n`);
    expect(await ask(true, again)).toMatchObject({ told: { readings: 0, there: 0 } });
  });
  it('goes with its recording into another, apart and together again; what a sheet or a program told is no log', async () => {
    const { told } = await ask(true);
    const into = await addVisit(ines, place, Date.UTC(2025, 9, 1, 13), [[20, 'pulled_out', { reason: 'enough' }]]);
    const logsIn = () => carLogsOf(ines, into);
    const both = { into, from: visitId };
    for (const _ of [1, 2]) {
      expect(await joinVisits(ines, both)).toMatchObject({ ok: true });
      expect(await logsIn()).toEqual([{ importId: told.importId, readings: told.readings }]);
      const own = (await eventsOfVisits(ines.householdId, [visitId])).get(visitId) ?? [];
      const join = own.findLast((e) => e.kind === 'withdrawal' && e.payload.joinedInto === into);
      await sendImported(ines, [withdrawalFor(ines, own, { target: String(join?.id) }, Date.now())]);
      expect(await logsIn()).toEqual([]);
    }
    expect(await undoCarLog(ines, visitId, told.importId)).toBe(told.readings);
    const by = (deviceId: string, kind: string, payload: Record<string, unknown>, seq: number) =>
      importedEvent(ines, { id: v7(), visitId, zone: 'UTC', seq, kind, payload, importId: deviceId, at: Date.UTC(2025, 9, 1, 12, 5), precision: 's' });
    const [sheet, program] = [v7(), v7()];
    const level = { screen: 'car', socPct: 60 };
    await sendImported(ines, [
      by(sheet, 'note', { text: 'of a sheet' }, 900),
      by(sheet, 'reading', level, 901),
      by(program, 'reading', { ...level, kW: 110, source: 'x' }, 902),
    ]);
    expect(await carLogsOf(ines, visitId)).toEqual([]);
    expect(await undoCarLog(ines, visitId, sheet)).toBe(0);
    expect((await ask(false)).told.session?.errors.looks).toHaveLength(7);
  });
  it('of another charge is not taken in, and what is no log is refused', async () => {
    const other = await ask(
      true,
      log((t) => 60 + 40 * Math.sin(t / 40)),
    );
    expect([other.told.session?.told ?? false, other.told.readings, other.taken]).toEqual([false, 0, undefined]);
    expect(await importCarLog(ines, visitId, new TextEncoder().encode('a,b\n1,2'), true)).toMatchObject({ ok: false, refused: { code: 'no_time' } });
  });
  it('is laid beside no visit that is somebody else’s, elsewhere or not there', async () => {
    const tone = await addSomebody(ines.householdId, 'driver');
    await markVisits(ines, { ids: [visitId], as: 'private' });
    expect(await importCarLog(tone, visitId, log(), true)).toBeNull();
    expect(await importCarLog(await newHousehold(), visitId, log(), true)).toBeNull();
    expect(await importCarLog(ines, v7(), log(), true)).toBeNull();
    expect(await undoCarLog(tone, visitId, v7())).toBe(0);
  });
});
