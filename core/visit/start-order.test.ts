import { orderInWords, orderOf } from './start-order';

it.each([
  ['card, then plug', 'pay_first'],
  ['plug, then card', 'plug_first'],
  ['Cables first, app later', 'plug_first'],
  ['connecting comes before the tap', 'plug_first'],
  ['plug', 'plug_first'],
  ['card', 'pay_first'],
  ['start, then card', 'plug_first'],
  ['  Start, then card', 'plug_first'],
  ['press start, then card', 'pay_first'],
  ['restart, then card', 'pay_first'],
  ['starting fee by card', 'pay_first'],
  ['windy corner', null],
  ['', null],
  [null, null],
] as const)('%j names %j', (note, order) => expect(orderInWords(note)).toBe(order));

describe('the order of an attempt', () => {
  const at = (place: number) => ({ place }) as never;
  const of = (plugged: number | null, shown: number | null, more: object = {}) =>
    orderOf({
      proof: at(9),
      pluggedEarlier: false,
      shows: shown === null ? [] : [at(shown)],
      ...(plugged === null ? {} : { plugged: at(plugged) }),
      ...more,
    } as never);
  it.each<[number | null, number | null, object, string | null]>([
    [2, 3, {}, 'plug_first'],
    [3, 2, {}, 'pay_first'],
    [2, 2, {}, 'plug_first'],
    [null, 2, {}, null],
    [2, null, {}, null],
    [2, 3, { proof: undefined }, null],
    [2, 3, { pluggedEarlier: true }, null],
  ])('plugged at %j, shown at %j, %j: %j', (plugged, shown, more, order) => expect(of(plugged, shown, more)).toBe(order));
});
