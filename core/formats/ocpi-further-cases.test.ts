import ocpi from './fixtures/ocpi.json';
import further from './fixtures/ocpi-further.json';
import { cdrsIn } from './ocpi-cdrs';
import { locationsIn } from './ocpi-locations';
import { tariffsIn } from './ocpi-tariffs';
import { readJson } from './strict-json';

// biome-ignore lint/suspicious/noExplicitAny: a document is changed wherever a case says so.
type Any = any;
type Edit = { at: (string | number)[]; value?: unknown; again?: boolean };
const bases = new Map(ocpi.cases.map((c) => [`${c.kind} ${c.id}`, (c as Any).bytes as string]));
const document = (of: string): Any =>
  JSON.parse(
    Buffer.from(bases.get(of) as string, 'base64')
      .toString()
      .replace(/^\ufeff/, ''),
  );

function changed(base: Any, { at, again, ...edit }: Edit): void {
  const holder = at.slice(0, -1).reduce((v: Any, key) => v[key], base);
  const key = at.at(-1) as string | number;
  if (again) holder.push(structuredClone(holder[key]));
  else if ('value' in edit) holder[key] = edit.value;
  else if (Array.isArray(holder)) holder.splice(Number(key), 1);
  else delete holder[key];
}

/** What is said of sums and orders besides is told by the cases that stand in full. */
const ADDED_UP: ReadonlySet<string> = new Set(['sum', 'outside', 'unsorted', 'credit_sign']);

it.each(further.cases.map((c, i) => [i, c.of, c] as const))('document %d of %s', (_, _of, c) => {
  const base = document(`${c.kind} ${c.of}`);
  for (const edit of c.edits as Edit[]) changed(base, edit);
  const found = readJson(new TextEncoder().encode(JSON.stringify(base)));
  if (!found.ok) throw new Error(found.code);
  const got: Any = c.kind === 'ocpi-cdrs' ? cdrsIn(found.value) : c.kind === 'ocpi-tariffs' ? tariffsIn(found.value) : locationsIn(found.value);
  const breaches = (got.breaches as { pointer: string; code: string }[]).filter((b) => !ADDED_UP.has(b.code)).map((b) => `${b.pointer} ${b.code}`);
  expect([[...new Set(breaches)].sort(), [...got.kept].sort(), (got.bills ?? got.tariffs ?? got.sites).length]).toEqual([
    [...c.breaches].sort(),
    'kept' in c ? [...(c.kept as string[])].sort() : [],
    c.units,
  ]);
});
