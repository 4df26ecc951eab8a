import { placeLabels } from './place-labels';
import { uprightLayout } from './upright-layout';

const width = (text: string) => text.length * 6.6 + 10;

describe('labels above a tape', () => {
  const crowd = placeLabels(
    [
      { text: 'Pulled in', x: 0 },
      { text: 'Stall 2 chosen', x: 14 },
      { text: 'Plugged in', x: 20 },
      { text: 'Start error', x: 32 },
      { text: 'Pressed stop', x: 700 },
      { text: 'Unplugged', x: 780 },
      { text: 'Pulled out', x: 840 },
    ],
    842,
    3,
  );
  it('overlap nowhere', () => {
    for (const a of crowd) {
      for (const b of crowd) {
        if (a === b || a.row !== b.row) continue;
        const [l, r] = [a, b].map((p) => (p.anchor === 'start' ? [p.x, p.x + width(p.text)] : [p.x - width(p.text), p.x])) as [
          [number, number],
          [number, number],
        ];
        expect(l[1] <= r[0] || r[1] <= l[0]).toBe(true);
      }
    }
  });
  it('no stem of a higher one crosses a text', () => {
    for (const low of crowd)
      for (const high of crowd)
        if (high.row > low.row && low.anchor === 'start' && high.anchor === 'start') expect(high.x <= low.x || high.x >= low.x + width(low.text)).toBe(true);
  });
  it('the outermost always has its place', () => expect([crowd[0]?.text, crowd.at(-1)?.anchor]).toEqual(['Pulled in', 'end']));
  it('a lone label stands next to the tape', () => expect(placeLabels([{ text: 'Pulled in', x: 0 }], 842, 3)[0]?.row).toBe(0));
});

describe('the upright tape', () => {
  it('keeps marks of one instant apart and shortens long waits', () => {
    const { marks } = uprightLayout([0, 0, 1000, 3_600_000]);
    const gaps = marks.slice(1).map((y, i) => y - (marks[i] as number));
    expect(Math.min(...gaps)).toBeGreaterThanOrEqual(44);
    expect(Math.max(...gaps)).toBeLessThanOrEqual(96.001);
  });
  it('time runs down', () => {
    const { y, height } = uprightLayout([0, 1000, 60_000]);
    expect(y(500)).toBeLessThan(y(1000));
    expect(y(90_000)).toBe(height);
  });
});
