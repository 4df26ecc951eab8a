import type { Metadata } from 'next';
import Link from 'next/link';
import { OPERATIONS } from '@/server/api/openapi';
import { signedInHere } from '@/server/http/signed-in-here';

export const metadata: Metadata = { title: 'What programs can ask' };

const STATUS: readonly (readonly [string, string])[] = [
  ['400', 'the body is not JSON'],
  ['401', 'no token, or one that opens nothing'],
  ['403', 'the token does not do that, or not in that household'],
  ['404', 'there is no such thing'],
  ['413', 'the body is larger than 1 MB'],
  ['422', 'something is not understood: “errors” says what, each by its pointer'],
  ['429', 'more than 600 requests in a minute: Retry-After says how long to wait'],
  ['503', 'the server cannot do this just now'],
];

/** The API as a page, made of the same description as its OpenAPI document; nothing of it comes from elsewhere. */
export default async function ApiPage() {
  await signedInHere();
  return (
    <div className="mx-auto w-full max-w-3xl p-6 max-sm:px-4">
      <Link href="/settings/programs" className="inline-block min-h-6 text-[13px] font-semibold text-shake underline">
        Back to the programs
      </Link>
      <h1 className="mt-1 text-[22px]">What programs can ask</h1>
      <p className="mt-1 text-sm text-ink-2">
        Below <code className="num">/api/v1</code>, with the header <code className="num break-all">Authorization: Bearer mile_…</code>. Answers are JSON;
        decimals such as kWh and money are text, times have their offset, and what is not known is null with its reason in “unknown”. The{' '}
        <a href="/api/v1/openapi.json" download className="font-semibold text-shake underline">
          OpenAPI 3.1 document
        </a>{' '}
        says all of it to a program.
      </p>
      {Object.entries(OPERATIONS).map(([path, methods]) =>
        Object.entries(methods).map(([method, o]) => (
          <section key={o.id} aria-labelledby={o.id} className="mt-5 border-t-2 border-ink pt-2">
            <h2 id={o.id} className="break-words text-[16px]">
              <span className="num">{method.toUpperCase()}</span> <span className="num">{path}</span>
            </h2>
            <p className="text-[15px]">{o.summary}.</p>
            {o.parameters ? (
              <dl className="mt-1 text-[14px]">
                {o.parameters.map((p) => (
                  <div key={p.name} className="flex flex-wrap gap-x-3 border-b border-rule-2 py-1">
                    <dt className="num w-[130px] shrink-0">{p.name}</dt>
                    <dd className="min-w-0 grow basis-[14rem] break-words text-ink-2">
                      {p.description}
                      {'enum' in p.schema ? `: ${(p.schema.enum as readonly string[]).join(', ')}` : ''}
                    </dd>
                  </div>
                ))}
              </dl>
            ) : null}
          </section>
        )),
      )}
      <section aria-labelledby="refusals" className="mt-5 border-t-2 border-ink pt-2">
        <h2 id="refusals" className="text-[16px]">
          Refusals
        </h2>
        <p className="text-[15px]">As problems of RFC 9457, in application/problem+json.</p>
        <dl className="mt-1 text-[14px]">
          {STATUS.map(([status, words]) => (
            <div key={status} className="flex gap-x-3 border-b border-rule-2 py-1">
              <dt className="num w-[52px] shrink-0">{status}</dt>
              <dd className="text-ink-2">{words}</dd>
            </div>
          ))}
        </dl>
      </section>
    </div>
  );
}
