import { fromKm } from '../../units/distance';
import { distance, number, reference, yesNo } from '../correctable-field';
import { printCode } from '../visit-code';
import { type KindFile, unit } from './kind';

export const pulledIn: KindFile<'pulled_in'> = {
  label: 'Pulled in',
  detail: ({ siteId, position, seen, socPct, odometerKm, airC, preconditioned, drivenBy, joins }, nameOf, _, unitOf) => [
    !siteId && position ? `${position.latitude.toFixed(5)}, ${position.longitude.toFixed(5)}` : null,
    seen?.free === undefined ? null : `${seen.free}${seen.total === undefined ? '' : ` of ${seen.total}`} free`,
    unit(seen?.outOfOrder, 'out of order'),
    unit(socPct, '%'),
    odometerKm === undefined ? null : `${fromKm(odometerKm, unitOf)} ${unitOf}`,
    unit(airC, '°C'),
    preconditioned ? 'battery preconditioned' : null,
    drivenBy ? `driven by ${nameOf('person', drivenBy) || 'somebody else'}` : null,
    joins ? `also recorded as ${printCode(joins)}` : null,
  ],
  fields: [
    reference('site', 'siteId', 'Site'),
    reference('car', 'carId', 'Car'),
    reference('person', 'drivenBy', 'Who drove'),
    number('socPct', 'Battery on arrival, %'),
    number('seen.free', 'Free stalls seen'),
    number('seen.total', 'Stalls in all'),
    number('seen.outOfOrder', 'Out of order'),
    distance('odometerKm', 'Odometer'),
    number('airC', 'Air, °C'),
    yesNo('preconditioned', 'Battery preconditioned'),
  ],
  seenByMany: true,
  attempt: (w, e) => {
    if (!e.onlySeen) w.unnamed = !e.payload.siteId;
  },
};
