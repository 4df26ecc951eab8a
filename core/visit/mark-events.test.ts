import { deriveVisit } from './derive';
import { IN, type Step, story, VISIT } from './fixtures/story';
import { markEvents } from './mark-events';
import { payloadProblem } from './payloads';
import { privateTo, seesAll } from './private';

const OTHER = '01900000-0000-7000-8000-0000000000aa';
const visit = (...steps: Step[]) => deriveVisit(VISIT, story(IN, ...steps), payloadProblem);
const idsOf = (v: ReturnType<typeof visit>, as: string) => v.line.flatMap((e) => (e.kind === 'mark' && e.payload.as === as ? [e.id] : []));

describe('marking a visit', () => {
  it('says it once', () => {
    expect(markEvents(visit(), 'business', '')).toEqual([{ kind: 'mark', payload: { as: 'business' } }]);
    expect(markEvents(visit([100, 'mark', { as: 'business' }]), 'business', '')).toEqual([]);
    expect(markEvents(visit([100, 'mark', { as: 'business' }]), 'private', '')).toEqual([{ kind: 'mark', payload: { as: 'private' } }]);
    expect(markEvents(visit(), 'left_out', 'a trial')).toEqual([{ kind: 'mark', payload: { as: 'left_out', reason: 'a trial' } }]);
    expect(markEvents(visit([100, 'mark', { as: 'left_out', reason: 'a trial' }]), 'left_out', 'a trial')).toEqual([]);
    expect(markEvents(visit(), 'withdraw', '')).toEqual([{ kind: 'withdrawal', payload: { target: VISIT } }]);
  });
  it('takes back what was said before of the same kind, and nothing else', () => {
    const both = visit([100, 'mark', { as: 'business' }], [110, 'mark', { as: 'private' }], [120, 'mark', { as: 'left_out', reason: 'a trial' }]);
    const targets = (as: 'plain' | 'counted') => markEvents(both, as, '').map((d) => (d.payload as { target: string }).target);
    expect(targets('plain')).toEqual([...idsOf(both, 'business'), ...idsOf(both, 'private')]);
    expect(targets('counted')).toEqual(idsOf(both, 'left_out'));
    expect(markEvents(visit(), 'plain', '')).toEqual([]);
  });
  it('a withdrawn visit is not withdrawn twice, and is restored by taking each withdrawal back', () => {
    const gone = visit([100, 'withdrawal', { target: VISIT }]);
    expect(markEvents(gone, 'withdraw', '')).toEqual([]);
    expect(markEvents(gone, 'restore', '')).toEqual(gone.visitWithdrawals.map((target) => ({ kind: 'withdrawal', payload: { target } })));
    expect(gone.visitWithdrawals).toHaveLength(1);
    expect(markEvents(visit(), 'restore', '')).toEqual([]);
  });
});

describe('a visit marked private', () => {
  it('shows itself to who drove alone: whom the arrival names, else who recorded it', () => {
    const own = visit([100, 'mark', { as: 'private' }]);
    const recorder = own.driverId as string;
    expect([privateTo(own), seesAll(own, recorder), seesAll(own, OTHER)]).toEqual([recorder, true, false]);
    const [arrival] = own.line;
    const driven = visit([100, 'mark', { as: 'private' }], [110, 'correction', { target: arrival?.id as string, set: { drivenBy: OTHER } }]);
    expect([driven.driverId, privateTo(driven), seesAll(driven, recorder)]).toEqual([OTHER, OTHER, false]);
    for (const v of [visit(), visit([100, 'mark', { as: 'business' }])]) expect([privateTo(v), seesAll(v, OTHER)]).toEqual([null, true]);
  });
});
