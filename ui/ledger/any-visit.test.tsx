import fc from 'fast-check';
import { renderToStaticMarkup } from 'react-dom/server';
import { type OnFile, sessionDoubts } from '@/core/power/session-doubts';
import { checkEvent } from '@/core/visit/check-event';
import { deriveVisit, visitState } from '@/core/visit/derive';
import { describeEnd, describeStart } from '@/core/visit/describe-visit';
import type { StoredEvent } from '@/core/visit/event';
import { anyAccepted } from '@/core/visit/fixtures/any-accepted';
import { IN, idOf, KW, story, T0, VISIT } from '@/core/visit/fixtures/story';
import { payloadProblem } from '@/core/visit/payloads';
import { thinTape } from '@/core/visit/tape';
import { ThinTape } from '../tape/thin-tape';
import { VisitSheet } from './visit-sheet';

const nobody = () => '';
const ON_FILE: OnFile = { stall: () => ({ outlets: [{ connector: 'CCS2', ratedKW: 150 }] as never }), usableKWh: 62 };
/** What a page and a list row of a visit show of it, as markup. */
function shown(events: readonly StoredEvent[]): string {
  const visit = deriveVisit(VISIT, events, payloadProblem);
  const names = { site: nobody, network: nobody, stall: nobody, car: nobody, adapter: nobody, means: nobody, person: nobody };
  const state = visitState(visit, T0 + 90_000_000);
  describeEnd({ state, ended: visit.ended, leftReason: visit.leftReason });
  describeStart({ attempts: visit.attempts.length, failed: 0, ended: visit.ended, handshake_s: null, handshakeBound: null });
  return renderToStaticMarkup(
    <>
      <VisitSheet
        page={{
          visit,
          state,
          names,
          networkId: null,
          doubts: sessionDoubts(visit, ON_FILE),
          stalls: [],
          checked: null,
          today: '2025-10-15',
          people: [],
          stop: null,
          clocks_s: [],
          joinedFrom: [],
        }}
        withdraw={null}
        correct={() => null}
      />
      <ThinTape tape={thinTape(visit.tape)} />
    </>,
  );
}
const raw = (kind: string, payload: Record<string, unknown>, more: Partial<StoredEvent> = {}): StoredEvent => ({
  ...(story(IN)[0] as StoredEvent),
  id: idOf(500),
  kind,
  payload,
  seq: 2,
  ...more,
});

describe('any set of accepted events shows', () => {
  it('and every set that the generator makes is accepted', () => {
    fc.assert(
      fc.property(anyAccepted(), (events) => {
        for (const e of events) expect(checkEvent(e, T0 + 86_400_000)).toMatchObject({ ok: true });
      }),
      { seed: 11, numRuns: 200 },
    );
  });
  it('as a page and as a row, with no figure that is none', () => {
    fc.assert(
      fc.property(anyAccepted(), (events) => {
        const markup = shown(events);
        expect(markup).not.toMatch(/NaN|Infinity|undefined|Invalid Date|\[object/);
      }),
      { seed: 20261126, numRuns: 300 },
    );
  });
  it.each<[string, StoredEvent[], string]>([
    ['its only event was taken back', [...story(IN), raw('withdrawal', { target: idOf(100) })], 'Taken back, kept and not counted: Pulled in'],
    ['only an unknown kind', [raw('hologram_shown', {})], '“hologram shown” of a newer version'],
    ['only a newer version', [raw('pulled_in', {}, { v: 2 })], '“pulled in” of a newer version'],
    ['a lone correction', [raw('correction', { target: idOf(999), at: T0 })], 'a correction of something that is not here yet'],
    ['a lone withdrawal', [raw('withdrawal', { target: idOf(999) })], 'the taking back of something that is not here yet'],
  ])('when it holds %s: at the time of what was said, with what is kept beside the line', (_what, events, said) => {
    const markup = shown(events);
    expect(markup).toContain(said);
    expect(markup).toContain('Tuesday 14 October 2025');
  });
  it('an old correction whose fields are none is left unapplied and untold', () => {
    const markup = shown([...story(IN, [30, 'power_seen', KW]), raw('correction', { target: idOf(101), set: { at: 'x', 'a b': 1 } })]);
    expect(markup).not.toContain('corrected:');
  });
});
