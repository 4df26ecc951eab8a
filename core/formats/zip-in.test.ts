import { configure, Uint8ArrayWriter, ZipWriter, type ZipWriterAddDataOptions } from '@zip.js/zip.js';
import zips from './fixtures/zips.json';
import { openZip, ZIP_MOST } from './zip-in';

configure({ useWebWorkers: false });
const text = (of: string) => new TextEncoder().encode(of);
type Made = [name: string, content: Uint8Array, options?: ZipWriterAddDataOptions];
async function zipOf(...entries: Made[]): Promise<Uint8Array> {
  const zip = new ZipWriter(new Uint8ArrayWriter());
  for (const [name, content, options] of entries) await zip.add(name, new Blob([new Uint8Array(content)]).stream(), options);
  return zip.close();
}
/** Opens and unpacks all of it, as a reader does. */
async function read(bytes: Uint8Array) {
  const zip = await openZip(bytes);
  if (!zip.ok) return { code: zip.code, entry: zip.entry };
  const out: Record<string, string> = {};
  for (const e of zip.value) {
    const content = await e.read();
    if (!content.ok) return { code: content.code, entry: content.entry };
    out[e.name] = new TextDecoder().decode(content.value);
  }
  return out;
}

describe('a zip', () => {
  it.each(zips.cases.map((c) => [c.id, c.title, c] as const))('%s: %s', async (_id, _title, c) => {
    expect(await read(Uint8Array.from(Buffer.from(c.base64, 'base64')))).toEqual({ code: c.code, entry: c.entry });
  });
  it('is read whole, packed or not, its folders left out', async () => {
    const bytes = await zipOf(['a.json', text('{"a":1}')], ['photos/', text(''), { directory: true }], ['photos/ü.jpg', text('x'.repeat(5000)), { level: 0 }]);
    expect(await read(bytes)).toEqual({ 'a.json': '{"a":1}', 'photos/ü.jpg': 'x'.repeat(5000) });
    expect(await read(await zipOf())).toEqual({});
  });
  it.each([
    ['/etc/passwd', 'zip_name'],
    ['C:stuff', 'zip_name'],
    ['a\\b', 'zip_name'],
    ['..', 'zip_name'],
    ['a/../b', 'zip_name'],
    ['a\u0001b', 'zip_name'],
    ['x'.repeat(256), 'zip_name'],
    ['é'.repeat(128), 'zip_name'],
    ['x'.repeat(255), null],
    ['a..b/c', null],
  ])('a name %j', async (name, code) => {
    expect(await read(await zipOf([name, text('1')]))).toEqual(code === null ? { [name]: '1' } : { code, entry: name });
  });
  it('refuses two names that differ in capitals alone, and what is encrypted', async () => {
    expect(await read(await zipOf(['Ledger.json', text('1')], ['ledger.json', text('2')]))).toEqual({ code: 'zip_duplicate', entry: 'ledger.json' });
    expect(await read(await zipOf(['ledger.json', text('1'), { password: 'secret' }]))).toEqual({ code: 'zip_encrypted', entry: 'ledger.json' });
  });
  it('refuses an entry beyond the size, and a way of packing that is not known', async () => {
    expect(await read(await zipOf(['big', new Uint8Array(ZIP_MOST.entryBytes + 1), { level: 0 }]))).toEqual({ code: 'zip_size', entry: 'big' });
    const packed = await zipOf(['a', text('aaaa'), { level: 0 }]);
    // The method stands 10 bytes into an entry of the directory.
    const view = new DataView(packed.buffer, packed.byteOffset);
    const directory = view.getUint32(packed.length - 22 + 16, true);
    view.setUint16(directory + 10, 12, true);
    expect(await read(packed)).toMatchObject({ code: 'zip_method', entry: 'a' });
  }, 60_000);
  it('takes much from little where both are small, and refuses a little more of it', async () => {
    // Zeros pack about a thousand to one.
    expect(await read(await zipOf(['zeros', new Uint8Array(ZIP_MOST.ratioFrom - 1)]))).toEqual({ zeros: '\0'.repeat(ZIP_MOST.ratioFrom - 1) });
    expect(await read(await zipOf(['zeros', new Uint8Array(ZIP_MOST.ratioFrom)]))).toEqual({ code: 'zip_ratio', entry: 'zeros' });
  }, 60_000);
  it('whatever is changed or cut in it, it is read as it was or refused, never fallen over', async () => {
    const good = await zipOf(['ledger.json', text(JSON.stringify({ a: 'b'.repeat(60) }))], ['photos/x.jpg', text('picture'), { level: 0 }]);
    const known = new Set(['zip_broken', 'zip_entries', 'zip_encrypted', 'zip_name', 'zip_duplicate', 'zip_method', 'zip_size', 'zip_ratio']);
    const whole = await read(good);
    for (let i = 0; i < good.length; i++) {
      const bent = Uint8Array.from(good);
      bent[i] = (bent[i] as number) ^ 0x55;
      const got = (await read(bent)) as { code?: string };
      // What stands beside the content, such as a date or a name, may be another; the content may not.
      if (got.code === undefined) expect(Object.values(got)).toEqual(expect.arrayContaining(Object.values(whole).slice(0, Object.keys(got).length)));
      else expect(known).toContain(got.code);
    }
    for (let i = 0; i < good.length; i += 7) expect(await read(good.subarray(0, i))).toMatchObject({ code: 'zip_broken' });
  }, 60_000);
});
