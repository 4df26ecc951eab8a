import { addressHere, pairHere, payloadHere, payloadOfNobody } from './people-here';

const INES = '0199aaaa-0000-7000-8000-000000000001';
const TONE = '0199aaaa-0000-7000-8000-000000000002';
const HERE: Readonly<Record<string, string>> = { [INES]: '0199bbbb-0000-7000-8000-000000000009', [TONE]: '0199bbbb-0000-7000-8000-000000000003' };
const personHere = (id: unknown) => HERE[id as string] ?? null;

it('who drove is the one of here, as it was noted and as it was corrected; a stranger stays one', () => {
  expect(payloadHere({ siteId: INES, drivenBy: INES }, personHere)).toEqual({ siteId: INES, drivenBy: HERE[INES] });
  expect(payloadHere({ target: 'x', set: { drivenBy: TONE, socPct: 3 } }, personHere)).toEqual({ target: 'x', set: { drivenBy: HERE[TONE], socPct: 3 } });
  expect(payloadHere({ target: 'x', set: { drivenBy: null } }, personHere)).toEqual({ target: 'x', set: { drivenBy: null } });
  expect(payloadHere({ drivenBy: 'nobody' }, personHere)).toEqual({ drivenBy: 'nobody' });
  expect(payloadHere({ at: 5, set: ['drivenBy'] }, personHere)).toEqual({ at: 5, set: ['drivenBy'] });
  expect(payloadHere({ set: null }, personHere)).toEqual({ set: null });
});
it('said to be somebody else it is still the same event, and another field is another', () => {
  expect(payloadOfNobody({ siteId: 's', drivenBy: INES })).toEqual(payloadOfNobody({ siteId: 's' }));
  expect(payloadOfNobody({ set: { drivenBy: INES } })).toEqual(payloadOfNobody({ set: { drivenBy: TONE } }));
  expect(payloadOfNobody({ set: { drivenBy: INES } })).not.toEqual(payloadOfNobody({ set: { carId: INES } }));
});
it('a comparison of one driver’s visits is of the one of here; of a stranger it cannot be', () => {
  expect(addressHere(`?driver=${INES}&by=site`, personHere)).toBe(`?driver=${HERE[INES]}&by=site`);
  expect(addressHere('?by=site&car=5', personHere)).toBe('?by=site');
  expect(addressHere('?driver=0199aaaa-0000-7000-8000-000000000007', personHere)).toBeNull();
});
it('a pair of drivers on watch is of those of here, in the order of their ids here; others stay as they are', () => {
  const pair = { by: 'driver', a: INES, b: TONE, since: 5 } as const;
  expect(pairHere(pair, personHere)).toEqual({ ...pair, a: HERE[TONE], b: HERE[INES] });
  expect(pairHere({ ...pair, b: 'nobody' }, personHere)).toBeNull();
  expect(pairHere({ ...pair, a: 'nobody' }, personHere)).toBeNull();
  expect(pairHere(pair, () => INES)).toBeNull();
  expect(pairHere({ ...pair, by: 'site' }, personHere)).toEqual({ ...pair, by: 'site' });
});
