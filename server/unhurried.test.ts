import { unhurried } from './unhurried';

/** Steps that take so long each, by a clock of their own. */
let clock = 0;
function* busy(steps: number, ms: number): Generator<void, number> {
  for (let i = 0; i < steps; i++) {
    clock += ms;
    yield;
  }
  return steps;
}
/** How often others had their turn while work was done. */
async function turnsBeside(work: Promise<number>): Promise<number> {
  let [turns, over] = [0, false];
  const others = () => {
    if (over) return;
    turns += 1;
    setImmediate(others);
  };
  setImmediate(others);
  await work;
  over = true;
  return turns;
}

describe('work in steps', () => {
  beforeEach(() => void jest.spyOn(performance, 'now').mockImplementation(() => clock));
  afterEach(() => void jest.restoreAllMocks());

  it('ends with what it came to', async () => expect(await unhurried(busy(30, 5))).toBe(30));
  it('lets others have their turn after every fifteen milliseconds', async () => {
    expect(await turnsBeside(unhurried(busy(30, 5)))).toBeGreaterThanOrEqual(30 / 3);
  });
  it('is done at once where it is short', async () => {
    expect(await turnsBeside(unhurried(busy(3, 4)))).toBe(0);
  });
});
