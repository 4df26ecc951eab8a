import { printSeen } from '../../units/zoned';
import { text } from '../correctable-field';
import type { KindFile } from './kind';

export const holdReleased: KindFile<'hold_released'> = {
  label: 'Hold released',
  detail: ({ on }) => [`on ${printSeen(on)} ${on.slice(0, 4)}`],
  fields: [text('on', 'On, such as 2025-10-17')],
  afterwards: true,
};
