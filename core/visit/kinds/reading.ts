import type { EndMark } from '../attempts/attempt';
import { attemptFor, prove } from '../attempts/walk';
import { decimal, number, text } from '../correctable-field';
import type { Payload } from '../payloads';
import { markOf } from '../timing';
import { type KindFile, unit } from './kind';
import { SCREEN } from './screen';

/** Numbers above zero on a screen are proof of power. Volts alone are not. */
function proofIn(p: Payload<'reading'>): EndMark | null {
  if ((p.kW ?? 0) > 0) return 'kW';
  if ((p.A ?? 0) > 0) return 'A';
  if (Number(p.kWh ?? 0) > 0) return 'kWh';
  return null;
}

/** The meter before a charge: of the attempt that is to come. */
const startsMeter = (p: Payload<'reading'>): boolean => p.meterStart !== undefined && p.meterEnd === undefined;

export const reading: KindFile<'reading'> = {
  label: 'Reading',
  detail: (p) => [
    unit(p.socPct, '%'),
    unit(p.kW, 'kW'),
    unit(p.kWh, 'kWh'),
    unit(p.meterStart, 'kWh on the meter at the start'),
    unit(p.meterEnd, 'kWh on the meter at the end'),
    unit(p.V, 'V'),
    unit(p.A, 'A'),
    unit(p.batteryC, '°C battery'),
    `${p.screen}’s screen`,
  ],
  fields: [
    SCREEN,
    number('socPct', 'Battery, %'),
    number('kW', 'Power, kW'),
    decimal('kWh', 'Delivered, kWh'),
    decimal('cost', 'Cost'),
    text('currency', 'Currency'),
    number('V', 'Volts'),
    number('A', 'Amps'),
    decimal('meterStart', 'Meter at the start, kWh'),
    decimal('meterEnd', 'Meter at the end, kWh'),
    number('batteryC', 'Battery, °C'),
  ],
  attempt: (w, e) => {
    const proof = proofIn(e.payload);
    const flows = proof === 'kW' || proof === 'A';
    // kWh that still stand on the screen after a session are its own.
    const opens = !w.current && !e.onlySeen && proof !== null && (flows || !w.here?.proof);
    const a = opens ? attemptFor(w, e) : w.current;
    const read = { ...e.payload, mark: markOf(e) };
    if (a) {
      a.readings.push(read);
      // A figure read again after power went is the screen's memory unless power itself is on it.
      if (proof && (flows || !a.paused)) prove(a, e, proof, false);
    } else if (w.here && (w.here.proof || !startsMeter(e.payload))) w.here.readings.push(read);
    else w.waiting.push(read);
  },
};
