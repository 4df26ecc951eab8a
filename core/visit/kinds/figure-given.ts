import { printDuration } from '../../units/print';
import { number, yesNo } from '../correctable-field';
import type { KindFile } from './kind';

export const figureGiven: KindFile<'figure_given'> = {
  label: 'Stopwatch figure',
  detail: ({ figure, seconds, plusMinus_s }) => [figure, `${printDuration(seconds)} ± ${plusMinus_s ?? 2} s`],
  fields: [number('seconds', 'Seconds'), number('plusMinus_s', '± seconds'), yesNo('used', 'Use it in place of the derived figure')],
  afterwards: true,
};
