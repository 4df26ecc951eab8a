import { attempt, failed, visit } from './fixtures/rows';
import { calledBy, FIGURES, saidOf } from './said';
import type { Watch } from './watch';

const ASKED = { time: 'handshake', mark: 'kW' } as const;
const NAMES = calledBy('network', (g) => `${g.by} ${g.key}`);
/** So many rounds of a visit to each, the first by far the quicker and surer. */
const rounds = (n: number) =>
  Array.from({ length: n }, (_, i) =>
    (['A', 'B'] as const).map((networkId) =>
      visit({
        arose: String(i * 2 + (networkId === 'A' ? 0 : 1)).padStart(4, '0'),
        at: i * 1000,
        networkId,
        siteId: `${networkId}${i % 4}`,
        driverId: 'd',
        carId: 'c',
        firstTry: networkId === 'A' ? 'yes' : 'no',
        attempts: [networkId === 'A' ? attempt(10, { meansKind: 'app' }) : { ...failed, meansKind: 'app' }],
      }),
    ),
  ).flat();

describe('what a comparison says', () => {
  it('of starts and of waiting, each held to as many figures as the page looks at', () => {
    const { sentences, watched } = saidOf(rounds(40), 'network', ASKED, NAMES, []);
    expect(sentences.map((s) => s.text)).toEqual([
      'network A clearly started at the first try more often than network B: 39 of 39 visits against 0 of 39 visits.',
      'network A clearly gave power sooner than network B: in 40 of 40 pairs of starts.',
    ]);
    for (const s of sentences) expect(s.working.find(([head]) => head === 'Held to')?.[1]).toContain(`found among ${FIGURES} pairs and figures`);
    expect(watched).toEqual([]);
  });
  it('of each pair on watch, what came since', () => {
    const watch = { id: 'w', by: 'network', a: 'A', b: 'B', figure: 'first_try', since: 20_000 } as const satisfies Watch;
    const { watched } = saidOf(rounds(40), 'network', ASKED, NAMES, [watch]);
    expect(watched.map((w) => [w.watch.id, w.said.kind])).toEqual([['w', 'clearly']]);
  });
  it('of months nothing: two share none', () => {
    expect(saidOf(rounds(40), 'month', ASKED, NAMES, [])).toEqual({ sentences: [], watched: [] });
  });
});

it('groups and sites are called by their names; sites and stalls are places themselves', () => {
  expect([NAMES.one, NAMES.many, NAMES.group('x'), NAMES.site('y'), NAMES.place]).toEqual(['network', 'networks', 'network x', 'site y', false]);
  const called = (by: 'site' | 'stall' | 'car') => calledBy(by, (g) => `${g.by} ${g.key}`);
  expect([called('site').place, called('stall').place, called('car').place]).toEqual([true, true, false]);
  expect([called('stall').group('1'), called('stall').site('1')]).toEqual(['stall 1', 'site 1']);
});
