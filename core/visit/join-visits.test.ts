import { IN, idOf, type Step, story } from './fixtures/story';
import { joinedEvents } from './join-visits';

const INTO = idOf(2);
/** The payload of the last event of a recording, as it stands in the one that it is joined into. */
const copied = (kind: string, payload: object) => {
  const all = joinedEvents(INTO, story(IN, [60, kind, payload] as Step), (id) => `copy of ${id}`);
  const { joinedFrom, recordedIn, ...rest } = all.at(-1)?.payload ?? {};
  expect([joinedFrom, recordedIn]).toEqual([story(IN)[0]?.visitId, story(IN)[0]?.visitId]);
  return rest;
};

it('what names an event of a recording names its copy in the one that it is joined into', () => {
  const id = idOf(100);
  expect(copied('correction', { target: id, set: { sessions: [id], kW: 50 } })).toEqual({
    target: `copy of ${id}`,
    set: { sessions: [`copy of ${id}`], kW: 50 },
  });
  expect(copied('bill', { sessions: [id], amount: '1', currency: 'EUR', state: 'charged' })).toMatchObject({ sessions: [`copy of ${id}`], amount: '1' });
  expect(copied('hold_released', { hold: id, on: '2025-10-17' })).toEqual({ hold: `copy of ${id}`, on: '2025-10-17' });
  expect(copied('trial_voided', { trialId: idOf(70), run: id, reason: 'queue' })).toEqual({ trialId: idOf(70), run: `copy of ${id}`, reason: 'queue' });
  expect(copied('means_shown', { meansKind: 'contactless', meansId: id })).toEqual({ meansKind: 'contactless', meansId: id });
});
