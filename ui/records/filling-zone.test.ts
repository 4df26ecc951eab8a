import { fillingZone } from './filling-zone';

const HOME = 'Europe/Ljubljana';
/** A form whose fields a test types into, and a server that answers when the test says so. */
function open(start: { latitude: number | null; longitude: number | null } | null = null) {
  const form = { latitude: start?.latitude ? String(start.latitude) : '', longitude: start?.longitude ? String(start.longitude) : '', zone: HOME };
  const asked: { at: [number, number]; answer: (zone: string | null) => void }[] = [];
  const fill = fillingZone((...at) => new Promise((answer) => asked.push({ at, answer })), start);
  const leave = () =>
    fill({
      latitude: () => form.latitude,
      longitude: () => form.longitude,
      zone: () => form.zone,
      setZone: (zone) => {
        form.zone = zone;
      },
    });
  return { form, asked, leave };
}

describe('the zone of a position that is typed', () => {
  it('is filled in once both coordinates are there, with comma or point', async () => {
    const { form, asked, leave } = open();
    form.latitude = '51,5';
    await leave();
    expect(asked).toEqual([]);
    form.longitude = '-1.2';
    const left = leave();
    expect(asked.map((a) => a.at)).toEqual([[51.5, -1.2]]);
    asked[0]?.answer('Europe/London');
    await left;
    expect(form.zone).toBe('Europe/London');
  });
  it('goes by the last position, in whatever order the answers come', async () => {
    for (const order of [
      [0, 1],
      [1, 0],
    ]) {
      const { form, asked, leave } = open({ latitude: 46, longitude: 14 });
      form.latitude = '41.9';
      const first = leave();
      form.longitude = '-75.1';
      const second = leave();
      for (const i of order) asked[i]?.answer(i === 1 ? 'America/New_York' : 'Europe/Rome');
      await Promise.all([first, second]);
      expect(form.zone).toBe('America/New_York');
    }
  });
  it('is not touched by going through the fields of a site whose position stays', async () => {
    const { form, asked, leave } = open({ latitude: 46.1, longitude: 13.6 });
    await leave();
    form.latitude = '46.10';
    await leave();
    expect(asked).toEqual([]);
    form.latitude = '46.2';
    const left = leave();
    await leave();
    expect(asked).toHaveLength(1);
    asked[0]?.answer(null);
    await left;
    expect(form.zone).toBe(HOME);
  });
  it('does not go over a zone that was typed meanwhile, nor is anything asked of what is no position', async () => {
    const { form, asked, leave } = open();
    [form.latitude, form.longitude] = ['46', '14'];
    const left = leave();
    form.zone = 'Europe/Vienna';
    asked[0]?.answer('Europe/Rome');
    await left;
    expect(form.zone).toBe('Europe/Vienna');
    for (const [latitude, longitude] of [
      ['91', '14'],
      ['46', '181'],
      ['-90.1', '0'],
      ['46', 'x'],
      ['', '14'],
    ] as const) {
      Object.assign(form, { latitude, longitude });
      await leave();
    }
    expect(asked).toHaveLength(1);
    Object.assign(form, { latitude: '-90', longitude: '-180' });
    void leave();
    expect(asked).toHaveLength(2);
  });
  it('a position taken out while it was asked about fills in nothing', async () => {
    const { form, asked, leave } = open();
    [form.latitude, form.longitude] = ['46', '14'];
    const left = leave();
    form.longitude = '';
    await leave();
    asked[0]?.answer('Europe/Rome');
    await left;
    expect(form.zone).toBe(HOME);
  });
});
