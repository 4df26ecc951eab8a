import { byStall, dangersOf, withDangers } from './dangers';
import type { VisitEvent } from './event';
import { IN, STALL_A, STALL_B, type Step, story } from './fixtures/story';
import { placeEvents } from './timeline/place-events';

const dangers = (...steps: Step[]) => dangersOf(placeEvents(story(IN, ...steps) as VisitEvent[]));
const chosen = (at: number, stallId: string): Step => [at, 'stall_chosen', { stallId }];
const fault = (at: number, code: string): Step => [at, 'fault', { code, side: 'site' }];

describe('dangers reported at a stall', () => {
  it('are of the stall one stood at, with the day', () => {
    expect(dangers(chosen(1, STALL_A), fault(2, 'danger'))).toEqual([{ stallId: STALL_A, is: 'danger', on: '2025-10-14' }]);
    expect(dangers(chosen(1, STALL_A), chosen(2, STALL_B), fault(3, 'hot_connector'))).toEqual([{ stallId: STALL_B, is: 'hot', on: '2025-10-14' }]);
    expect(dangers(chosen(1, STALL_A), fault(2, 'start_error'))).toEqual([]);
    expect(dangers(fault(2, 'danger'))).toEqual([]);
  });
  it('each once, both kinds beside each other', () => {
    expect(dangers(chosen(1, STALL_A), fault(2, 'hot_connector'), fault(3, 'danger'), fault(4, 'danger')).map((d) => d.is)).toEqual(['hot', 'danger']);
  });
  it('until they are cleared: those of the stall that is named, or all; what is reported after that stands', () => {
    const cleared = (at: number, stallId?: string): Step => [at, 'danger_cleared', { ...(stallId ? { stallId } : {}), reason: 'looked at by the operator' }];
    const both: Step[] = [chosen(1, STALL_A), fault(2, 'danger'), chosen(3, STALL_B), fault(4, 'danger')];
    expect(dangers(...both, cleared(900, STALL_A)).map((d) => d.stallId)).toEqual([STALL_B]);
    expect(dangers(...both, cleared(900))).toEqual([]);
    expect(dangers(...both, cleared(900), fault(1000, 'danger')).map((d) => d.stallId)).toEqual([STALL_B]);
  });
  it('of two kinds at one stall the repeated one is noted anew, behind the other, and at another stall beside it', () => {
    const said = (...steps: Step[]) => dangers(...steps).map((d) => [d.stallId === STALL_A ? 'A' : 'B', d.is]);
    expect(said(chosen(1, STALL_A), fault(2, 'danger'), fault(3, 'hot_connector'), fault(4, 'danger'))).toEqual([
      ['A', 'hot'],
      ['A', 'danger'],
    ]);
    expect(said(chosen(1, STALL_A), fault(2, 'danger'), chosen(3, STALL_B), fault(4, 'danger'))).toEqual([
      ['A', 'danger'],
      ['B', 'danger'],
    ]);
  });
  it('only a fault reports: a note that names its code does not', () =>
    expect(dangers(chosen(1, STALL_A), [2, 'note', { text: 'hm', code: 'danger' }])).toEqual([]));
  it('a visit’s dangers join those of the household', () => {
    const old = byStall([{ stallId: STALL_A, is: 'hot', on: '2025-01-01' }]);
    expect(withDangers(old, [])).toBe(old);
    expect(withDangers(old, [{ stallId: STALL_A, is: 'danger', on: '2025-10-14' }])).toEqual({
      [STALL_A]: [
        { stallId: STALL_A, is: 'danger', on: '2025-10-14' },
        { stallId: STALL_A, is: 'hot', on: '2025-01-01' },
      ],
    });
  });
  it('by stall stand with the graver first, then the newest', () => {
    const of = (is: 'danger' | 'hot', on: string) => ({ stallId: STALL_A, is, on });
    expect(byStall([of('danger', '2025-02-01'), of('danger', '2025-01-01'), of('danger', '2025-03-01')])[STALL_A]?.map((d) => d.on)).toEqual([
      '2025-03-01',
      '2025-02-01',
      '2025-01-01',
    ]);
    expect(byStall([of('danger', '2025-01-01'), of('hot', '2025-02-01')])[STALL_A]?.map((d) => d.is)).toEqual(['danger', 'hot']);
    expect(
      byStall([of('hot', '2025-10-14'), of('danger', '2025-01-01'), of('danger', '2025-02-01'), { ...of('hot', '2025-01-01'), stallId: STALL_B }]),
    ).toEqual({
      [STALL_A]: [of('danger', '2025-02-01'), of('danger', '2025-01-01'), of('hot', '2025-10-14')],
      [STALL_B]: [{ stallId: STALL_B, is: 'hot', on: '2025-01-01' }],
    });
  });
});
