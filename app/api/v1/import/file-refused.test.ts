import { fileRefused } from './file-refused';

it.each([
  ['too_many', 'The file cannot be taken in at once.'],
  ['too_many_rows', 'The file cannot be taken in at once.'],
  ['too_many_visits', 'The file cannot be taken in at once.'],
  ['too_many_columns', 'The file cannot be read.'],
  ['nul_byte', 'The file cannot be read.'],
])('a file refused as %s: “%s”, with the reason and where it is, kept nowhere', async (code, error) => {
  const answer = fileRefused({ code, where: { line: 7 } } as { code: string });
  expect([answer.status, answer.headers.get('cache-control'), await answer.json()]).toEqual([
    422,
    'no-store',
    { error, refused: { code, where: { line: 7 } } },
  ]);
});
