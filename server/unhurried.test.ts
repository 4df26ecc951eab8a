import { unhurried } from './unhurried';

function* busy(steps: number, ms: number): Generator<void, number> {
  for (let i = 0; i < steps; i++) {
    for (const until = performance.now() + ms; performance.now() < until; );
    yield;
  }
  return steps;
}

describe('work in steps', () => {
  it('lets others have their turn, and ends with what it came to', async () => {
    let turns = 0;
    let over = false;
    const others = () => {
      if (over) return;
      turns += 1;
      setImmediate(others);
    };
    setImmediate(others);
    expect(await unhurried(busy(30, 5))).toBe(30);
    over = true;
    // Every fifteen milliseconds of a hundred and fifty, or more often where the machine is slow.
    expect(turns).toBeGreaterThanOrEqual(5);
  });
  it('short work is done at once', async () => {
    let turned = false;
    setImmediate(() => {
      turned = true;
    });
    expect(await unhurried(busy(3, 0))).toBe(3);
    expect(turned).toBe(false);
  });
});
