// Takes batches of events into the database until it is killed, and prints the id of each acknowledged event.
import { v7 } from 'uuid';
import { signUp } from '@/server/accounts/accounts';
import { takeBatch } from '@/server/outbox/take-batch';

const who = await signUp({ name: 'x', householdName: 'x', email: `${v7()}@example.invalid`, password: 'a long enough one', currency: 'EUR', zone: 'UTC' });
if (!who) throw new Error('no account');
const deviceId = v7();
for (let n = 1; ; n++) {
  const visitId = v7();
  const event = (seq: number) => ({
    id: v7(),
    ...who,
    visitId,
    kind: 'plugged',
    v: 1,
    at: Date.now(),
    precision: 'ms',
    zone: 'UTC',
    deviceId,
    life: deviceId,
    mono: n,
    awake: true,
    seq,
    origin: 'tap',
    role: 'recorder',
    payload: {},
  });
  const result = await takeBatch({ ...who, role: 'owner' }, { items: [1, 2, 3].map((seq) => ({ type: 'event', event: event(seq) })) });
  if (result.ok) for (const r of result.results) if (r.status === 'taken') console.log(r.id);
}
