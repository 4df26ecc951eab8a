import { binLiteral, binLiterals, toBin } from './binary-id';

describe('an id as SQL', () => {
  const id = '018e983e-3f00-7043-8e3b-6f3133b82a4e';
  it('is its bytes', () => expect(binLiteral(id)).toBe(`x'${toBin(id).toString('hex')}'`));
  it('or several', () => expect(binLiterals([id, id.toUpperCase()])).toBe(`${binLiteral(id)},${binLiteral(id.toUpperCase())}`));
  it.each(['', 'x', `${id}0`, id.slice(1), `${id.slice(0, 35)}'`, `${id.slice(0, 10)}g${id.slice(11)}`, id.replaceAll('-', ''), `' OR 1=1 -- ${id.slice(12)}`])(
    'nothing else gets into a statement: %s',
    (text) => expect(() => binLiteral(text)).toThrow(TypeError),
  );
});
