import { choice } from '../correctable-field';

export const SCREEN = choice('screen', 'Whose screen', [
  ['stall', 'Stall’s screen'],
  ['car', 'Car’s screen'],
]);
