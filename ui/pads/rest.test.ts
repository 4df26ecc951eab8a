import { noRest, takesTouch } from './rest';

test('a rested pad takes a touch', () => {
  expect(takesTouch(noRest, 0)).toBe(true);
});

test('while the rest lasts no touch counts', () => {
  expect(takesTouch({ now: true, until: 1700 }, 1100)).toBe(false);
});

test('a touch of the rest that is handed on after it does not count; a later one does', () => {
  const over = { now: false, until: 1700 };
  expect(takesTouch(over, 1100)).toBe(false);
  expect(takesTouch(over, 1700)).toBe(true);
});
