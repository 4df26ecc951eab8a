import { starts } from './fixtures/starts';
import type { Waited } from './waiting-pairs';
import { endForm, type Watch, watchForm, watchSentence } from './watch';

const NAMES = { one: 'network', many: 'networks', group: (id: string) => `Network ${id}`, site: (id: string) => `Site ${id}` };
const watch = (more: Partial<Watch> = {}): Watch => ({ id: 'w', by: 'network', a: 'A', b: 'B', figure: 'first_try', since: 0, ...more });
const all = [...starts('A', 24, 0), ...starts('B', 3, 9), ...starts('C', 0, 40)];

describe('a pair on watch', () => {
  it('is held to 24 and 7, whatever else there is', () => {
    const said = watchSentence(watch(), all, [], NAMES);
    expect(said).toMatchObject({
      kind: 'clearly',
      text: 'Network A clearly started at the first try more often than Network B: 24 of 24 visits against 3 of 12 visits.',
    });
    expect(said.working.at(-1)).toEqual(['Held to', 'probably from 7, clearly from 24']);
  });
  it('counts from the watch on: what came before tells nothing', () => {
    // One first visit of a person stands apart on either side, as always.
    expect(watchSentence(watch({ since: 8 }), all, [], NAMES).text).toMatch(/: 16 of 16 visits against 0 of 4 visits\.$/);
    expect(watchSentence(watch({ since: 13 }), all, [], NAMES).text).toBe('Cannot tell yet: no start at Network B since.');
    expect(watchSentence(watch({ since: 1e9 }), all, [], NAMES).text).toBe('Cannot tell yet: no start at Network A or Network B since.');
    // The moment itself is in.
    expect(watchSentence(watch({ since: 12 }), all, [], NAMES).text).not.toMatch(/no start at/);
  });
  it('says how many more visits would probably tell', () => {
    const few = [...starts('A', 5, 0), ...starts('B', 2, 3)];
    expect(watchSentence(watch(), few, [], NAMES).text).toMatch(
      /^Cannot tell yet which .* Going on like this, some \d+ more visits? to each would probably tell\.$/,
    );
    const same = [...starts('A', 30, 10), ...starts('B', 30, 10)];
    expect(watchSentence(watch(), same, [], NAMES).text).not.toMatch(/Going on/);
  });
  it('names the sites where there are few', () => {
    const few = [...starts('A', 24, 0, 1), ...starts('B', 3, 9, 1)];
    expect(watchSentence(watch(), few, [], NAMES).text).toMatch(/^Site A1 \(Network A\) clearly started .* This is said of the sites named/);
    expect(watchSentence(watch(), few, [], { ...NAMES, place: true }).text).not.toMatch(/Site/);
  });
  it('or who gives power sooner, of its own pair', () => {
    const waited = (group: string, i: number, s: number): Waited => ({
      n: i,
      group,
      siteId: 'x',
      arose: String(100 + i),
      at: i,
      carId: 'c',
      means: 'app',
      mark: 'kW',
      s,
      pm_s: 0.5,
    });
    const rows = Array.from({ length: 8 }, (_, i) => [waited('A', 2 * i, 10), waited('B', 2 * i + 1, 40), waited('C', 2 * i + 1, 1)]).flat();
    expect(watchSentence(watch({ figure: 'waiting' }), [], rows, NAMES)).toMatchObject({ kind: 'clearly', text: expect.stringContaining('in 8 of 8 pairs') });
    expect(watchSentence(watch({ figure: 'waiting', since: 8 }), [], rows, NAMES)).toMatchObject({
      kind: 'cannot_tell',
      text: expect.stringContaining('4 of 4 pairs'),
    });
  });
});

it('a form says which two and what for', () => {
  const id = '01900000-0000-7000-8000-000000000001';
  expect(watchForm.safeParse({ id, by: 'network', a: 'x', b: 'y', figure: 'waiting' }).success).toBe(true);
  for (const odd of [{ by: 'moon' }, { a: '' }, { b: 'x'.repeat(81) }, { figure: 'price' }, { id: 'x' }])
    expect(watchForm.safeParse({ id, by: 'network', a: 'x', b: 'y', figure: 'waiting', ...odd }).success).toBe(false);
  expect(endForm.safeParse({ id: 'x' }).success).toBe(false);
});
