import { readLevel } from './receipt-level';

// Screens as they commonly stand; common practice, no source.
it.each([
  ['beside its name', 'CCS 2\nBattery 78 %\n41.3 kWh', { from: null, to: 78, line: 1 }],
  ['under its name', 'State of charge\n62%\nPower 88 kW', { from: null, to: 62, line: 1 }],
  ['in other languages', 'Ladestand: 55 %', { from: null, to: 55, line: 0 }],
  ['from one to another', 'SoC 20 % → 80 %', { from: 20, to: 80, line: 0 }],
  ['from one to another, in words', 'Batteria da 20% a 80%\nIVA 22 %', { from: 20, to: 80, line: 0 }],
  ['alone on a line', '41.3 kWh\r\n78 %\r\n0:24', { from: null, to: 78, line: 1 }],
  ['said twice', 'Battery 78 %\nSoC 78 %', { from: null, to: 78, line: 0 }],
  ['beside one that stands alone', 'Battery 78 %\n12 %', { from: null, to: 78, line: 0 }],
  ['full', 'Battery 100 %', { from: null, to: 100, line: 0 }],
])('a level %s', (_what, text, level) => expect(readLevel(text)).toEqual(level));

it.each([
  ['none', '41.3 kWh\n€23.10', 'not_printed'],
  ['tax', 'VAT 22 %\n22 %\nincl. IVA\n', 'not_printed'],
  ['a tax under its name', 'MwSt\n19 %', 'not_printed'],
  ['a discount on the battery', 'battery discount 10 %', 'not_printed'],
  ['more than all', 'Battery 780 %', 'not_printed'],
  ['two that differ', 'Battery 78 %\nSoC 62 %', 'several'],
  ['two on a line, and no way between', 'Battery 20 % 80 %', 'several'],
  ['one that falls', 'Battery 80 % → 20 %', 'form'],
  ['a word that only holds one', 'Socket 50 % busy', 'not_printed'],
])('no level: %s', (_what, text, why) => expect(readLevel(text)).toEqual({ why }));
