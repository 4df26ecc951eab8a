import { createHash } from 'node:crypto';
import { chainedHash, itemsText } from './writing';

const batch = { rev: 7, personId: '01900000-0000-7000-8000-000000000002', at: 1_760_000_000_000, items: '[]' };

describe('the chain of batches', () => {
  it('is SHA-256 over the hash before and the batch, its names in order', () => {
    const before = Buffer.alloc(32, 5);
    const text = `{"at":1760000000000,"items":"[]","personId":"${batch.personId}","rev":7}`;
    expect(chainedHash(before, batch).toString('hex')).toBe(createHash('sha256').update(before).update(text).digest('hex'));
  });
  it.each([
    ['what came before', chainedHash(Buffer.alloc(32, 1), batch)],
    ['its rev', chainedHash(Buffer.alloc(0), { ...batch, rev: 8 })],
    ['who wrote it', chainedHash(Buffer.alloc(0), { ...batch, personId: '' })],
    ['when', chainedHash(Buffer.alloc(0), { ...batch, at: batch.at + 1 })],
    ['what it wrote', chainedHash(Buffer.alloc(0), { ...batch, items: '[1]' })],
  ])('is another when another is %s', (_what, other) => expect(other.equals(chainedHash(Buffer.alloc(0), batch))).toBe(false));
  it('names each item by type, id and hash', () => expect(itemsText([{ type: 'event', id: 'a', hash: '01ff' }])).toBe('[["event","a","01ff"]]'));
});
