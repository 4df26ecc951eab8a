import { printConsumption, printKW } from '../../units/print';
import { carDCkW } from '../car-kw';
import { INLETS } from '../connector';
import { note, plain, same } from '../form-parts';
import { carSchema } from '../garage-schema';
import { PORTS } from '../place-schema';
import { garageType } from './record-type';

export const car = garageType({
  one: 'Car',
  many: 'Cars',
  schema: carSchema,
  name: (f) => f.name,
  columns: { name: 'text' },
  garage: {
    place: 1,
    row: (f, { consumption }) => {
      const kW = carDCkW(f);
      const uses = f.kWhPer100km !== null && printConsumption(Number(f.kWhPer100km), consumption);
      return {
        line: [`${f.usableKWh} kWh`, f.connectors.join(' and '), kW !== null && `${printKW(kW)} DC`, f.maxACkW !== null && `${f.maxACkW} kW AC`, uses],
      };
    },
  },
  form: [
    {
      head: 'Car',
      fields: [
        { kind: 'text', path: 'name', label: 'Name' },
        { kind: 'number', path: 'usableKWh', label: 'Usable battery', unit: 'kWh' },
        { kind: 'many', path: 'connectors', label: 'Inlets', options: plain(INLETS), required: true },
        { kind: 'choice', path: 'port', label: 'Port sits at', options: same(PORTS) },
        { kind: 'consumption', path: 'kWhPer100km', label: 'Usual consumption' },
      ],
    },
    {
      head: 'Power',
      fields: [
        { kind: 'number', path: 'maxDCkW', label: 'At most DC', unit: 'kW' },
        { kind: 'number', path: 'maxACkW', label: 'At most AC', unit: 'kW' },
        {
          kind: 'choice',
          path: 'acPhases',
          label: 'AC phases',
          options: [
            ['1', 'One'],
            ['2', 'Two'],
            ['3', 'Three'],
          ],
          numeric: true,
        },
        {
          kind: 'choice',
          path: 'voltClass',
          label: 'Volt class',
          options: [
            ['400', '400 V'],
            ['800', '800 V'],
          ],
          numeric: true,
        },
        { kind: 'number', path: 'packV0', label: 'Pack at 0 %', unit: 'V' },
        { kind: 'number', path: 'packV100', label: 'Pack at 100 %', unit: 'V' },
        { kind: 'number', path: 'boosterKW', label: 'Booster at low-volt stalls', unit: 'kW' },
        { kind: 'number', path: 'boosterV', label: 'Booster takes at most', unit: 'V' },
        { kind: 'curve', path: 'curve', label: 'Own charge curve', hint: 'A line per point: battery %, then kW, such as 10 121' },
      ],
    },
    { head: 'Note', fields: [note] },
  ],
});
