import { printSeen } from '../../units/zoned';
import { stepsLeft } from '../enrolment-steps';
import { note } from '../form-parts';
import { enrolmentSchema } from '../garage-schema';
import { meansLabel } from '../means-kind';
import { garageType } from './record-type';

export const enrolment = garageType({
  one: 'Enrolment',
  many: 'Enrolments',
  schema: enrolmentSchema,
  name: () => '',
  columns: { kind: 'text', carId: 'id', networkId: 'id', providerId: 'id' },
  garage: {
    place: 5,
    row: (f, { nameOf }) => {
      const left = stepsLeft(f.steps).length;
      const name = `${meansLabel(f.kind)} at ${nameOf(f.networkId)}`;
      if (f.chargedOn !== null) return { name, line: [nameOf(f.carId), `charging by it since ${printSeen(f.chargedOn)}`] };
      if (f.enrolledOn !== null)
        return {
          name,
          line: [nameOf(f.carId), `enrolled ${printSeen(f.enrolledOn)}${f.kind === 'autocharge' ? ' by the car itself' : ''}`],
          heed: 'no charge by it seen yet',
        };
      return { name, line: [nameOf(f.carId), 'not enrolled yet'], heed: left > 0 ? `${left} ${left === 1 ? 'step' : 'steps'} left` : null };
    },
  },
  form: [
    {
      head: 'Enrolment',
      fields: [
        {
          kind: 'choice',
          path: 'kind',
          label: 'Kind',
          options: [
            ['autocharge', 'Autocharge'],
            ['plug_and_charge', 'Plug & Charge'],
          ],
          required: true,
        },
        { kind: 'ref', path: 'carId', label: 'Car', type: 'car' },
        { kind: 'ref', path: 'networkId', label: 'Network', type: 'network', makes: true },
        { kind: 'ref', path: 'providerId', label: 'Contract with', type: 'provider', makes: true },
        { kind: 'date', path: 'enrolledOn', label: 'Enrolled on', hint: 'The network or the car says so' },
        { kind: 'date', path: 'chargedOn', label: 'First charged by it on', hint: 'Power came with nothing else shown' },
      ],
    },
    {
      head: 'Steps',
      fields: [
        {
          kind: 'list',
          path: 'steps',
          label: 'Steps',
          rowName: 'Step',
          most: 20,
          blank: { where: 'home' },
          row: [
            {
              kind: 'choice',
              path: 'where',
              label: 'Where',
              options: [
                ['home', 'At home'],
                ['stall', 'At the stall'],
              ],
              required: true,
            },
            { kind: 'text', path: 'act', label: 'What to do' },
            { kind: 'text', path: 'shows', label: 'What shows that it worked' },
            { kind: 'date', path: 'doneOn', label: 'Done on' },
          ],
        },
        note,
      ],
    },
  ],
});
