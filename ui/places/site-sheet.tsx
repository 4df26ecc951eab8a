import Link from 'next/link';
import type { ReactNode } from 'react';
import type { PlaceRecord } from '@/core/compare/place-record';
import { answerSentence } from '@/core/power/answer-words';
import type { StallAnswer } from '@/core/power/compatible-stalls';
import { aroundLines, arrivalLines, bayLines } from '@/core/records/place-lines';
import type { MileRecord, RecordFields } from '@/core/records/record-schema';
import { priceWords } from '@/core/tariff/price-words';
import { printCount } from '@/core/units/print';
import { printCalendarDate, printDate, printDay } from '@/core/units/zoned';
import { AnswerTable } from './answer-table';
import { Bays } from './bays';
import { FromFile } from './from-file';
import { PlaceSections, RecordRows } from './place-record';
import { Rows, Section } from './section';

export type SiteSheetData = {
  site: MileRecord<'site'>;
  network: MileRecord<'network'> | null;
  stalls: MileRecord<'stall'>[];
  archivedStalls: MileRecord<'stall'>[];
  cars: { id: string; name: string }[];
  carId: string | null;
  answers: StallAnswer[];
  best: string[];
  bestWords: string;
  adapters: { id: string; name: string }[];
  record: PlaceRecord;
  visits: number;
  lastAt: number | null;
  means: { id: string; label: string; kind: string; here: boolean; accepted: boolean | null; problem: string | null; power: number; attempts: number }[];
  tariff: RecordFields<'tariff'> | null;
  faults: { label: string; stall: string; at: number; visitId: string }[];
};

/** The page of a site: what is there, what to know on arrival, what its visits say. @param carChoice the control that asks for another car */
export function SiteSheet({ page, carChoice, actions }: { page: SiteSheetData; carChoice: ReactNode; actions: ReactNode }) {
  const { site, network, stalls, answers, record } = page;
  const f = site.fields;
  const stallName = (id: string) => stalls.find((s) => s.id === id)?.fields.name ?? '';
  const car = page.cars.find((c) => c.id === page.carId);
  const arrival = arrivalLines(f, network?.fields.helpline ?? null);
  const notes: [string, string[]][] = stalls.map((s): [string, string[]] => [s.fields.name, bayLines(s.fields)]).filter(([, lines]) => lines.length > 0);
  const photos = [...f.photos, ...stalls.flatMap((s) => s.fields.photos.map((p) => ({ ...p, text: `Stall ${s.fields.name}${p.text ? `: ${p.text}` : ''}` })))];
  const filter = { site: site.id };
  return (
    <article aria-labelledby="site-head" className="px-4 py-4 sm:px-6">
      {site.archived ? (
        <p className="mb-3 border-l-4 border-fault bg-fault-card px-4 py-2 text-sm font-semibold">
          Archived. Its visits still count; it is not offered at the Stall.
        </p>
      ) : null}
      <div className="mb-3 flex flex-wrap items-end gap-3">
        <div className="min-w-0">
          <p className="text-[12.5px] font-semibold text-ink-2">
            {network ? (
              <Link href={`/places/networks/${network.id}`} className="inline-block min-h-6 underline">
                {network.fields.name}
              </Link>
            ) : (
              'Unknown network'
            )}
            ,{' '}
            {[page.lastAt === null ? 'not visited' : `last here ${printDate(page.lastAt, f.zone)}`, f.latitude === null ? 'no coordinates' : null]
              .filter(Boolean)
              .join(', ')}
          </p>
          <h1 id="site-head" className="mt-1 text-[26px]">
            {f.name}
          </h1>
        </div>
        <span className="grow" />
        {actions}
      </div>
      {stalls.length > 0 ? (
        <Bays
          stalls={stalls}
          answers={answers}
          best={page.best}
          bestWords={page.bestWords}
          sentence={car ? answerSentence(answers, page.best, page.bestWords, car.name, stallName) : 'Add a car to see which stalls it can use.'}
          href={(id) => `/places/${site.id}/stalls/${id}`}
        />
      ) : (
        <div className="bg-card p-5">
          <h2 className="text-[16px]">No stalls yet</h2>
          <p className="mt-1 text-sm text-ink-2">Add them from the posts: number or name, connector and the kW on the plate.</p>
        </div>
      )}
      <div className="mt-6 grid gap-x-6 gap-y-7 md:grid-cols-2 xl:grid-cols-3">
        <Section head="On arrival">
          {arrival.length === 0 ? (
            <p className="text-sm text-ink-2">Nothing noted yet: entrance, hours, the order that works, the helpline on the post.</p>
          ) : (
            <ul className="list-disc pl-5 text-[14.5px] leading-snug">
              {arrival.map((l) => (
                <li key={l} className="mb-1.5">
                  {l}
                </li>
              ))}
            </ul>
          )}
        </Section>
        <Section head="Ways to pay" beside="that you hold">
          <Rows
            rows={page.means.filter((m) => (m.accepted !== false && m.here) || m.attempts > 0).map((m) => [m.label, payWords(m)])}
            empty="No way to pay is noted in the garage."
          />
          <p className="mt-2 text-[13px] text-ink-2">
            {page.tariff ? `Price, guest: ${priceWords(page.tariff)}, since ${printCalendarDate(page.tariff.validFrom)}. ` : 'No price is on file. '}
            <Link href={`/places/${site.id}/prices`} className="inline-block min-h-6 font-semibold text-shake underline">
              Prices
            </Link>
          </p>
        </Section>
        <Section head="What the visits say" beside={printCount(page.visits, 'visit')}>
          <RecordRows filter={filter} record={record} empty="Nobody of this household was here yet." />
        </Section>
      </div>
      {stalls.length > 0 && page.cars.length > 0 ? (
        <Section head="What can be used here" beside={carChoice} className="mt-7">
          <AnswerTable
            answers={answers}
            stallName={stallName}
            adapterName={(id) => page.adapters.find((a) => a.id === id)?.name ?? 'an adapter'}
            meansLabel={(id) => page.means.find((m) => m.id === id)?.label ?? ''}
          />
          <p className="mt-2 max-w-[760px] text-[13px] text-ink-2">
            An estimate from what was noted. Adapters only within their rated amps and volts, approved by the car’s maker, never two in a row. The signs on the
            stall and the car’s manual go before this page.
          </p>
        </Section>
      ) : null}
      <div className="mt-7 grid gap-x-6 gap-y-7 md:grid-cols-2 xl:grid-cols-3">
        <PlaceSections
          filter={filter}
          record={record}
          choose="stall"
          nameOf={(id) => `Stall ${stallName(id) || 'not known'}`}
          hrefOf={(id) => `/places/${site.id}/stalls/${id}`}
        />
        <Section head="Around">
          <Rows rows={aroundLines(f)} empty="Nothing noted yet." />
        </Section>
        <Section head="Faults, newest first">
          <Rows
            rows={page.faults.slice(0, 8).map((x) => [
              <Link key="what" href={`/ledger/${x.visitId}`} className="inline-block min-h-6 underline decoration-rule underline-offset-4">
                {x.label}
                {x.stall ? `, stall ${x.stall}` : ''}
              </Link>,
              <span key="when" className="num text-[13px]">
                {printDay(x.at, f.zone)}
              </span>,
            ])}
            empty="None recorded here."
          />
        </Section>
        <Section head="Notes and photos" beside={photos.length > 0 ? printCount(photos.length, 'photo') : null}>
          {f.note ? <p className="mb-2 whitespace-pre-line text-[14.5px]">{f.note}</p> : null}
          {notes.map(([name, lines]) => (
            <p key={name} className="mb-2 text-[14px]">
              <b className="num">{name}</b> {lines.join('. ')}
            </p>
          ))}
          {!f.note && notes.length === 0 && photos.length === 0 ? <p className="text-sm text-ink-2">None yet.</p> : null}
          <ul className="flex flex-wrap gap-3">
            {photos.map((p) => (
              <li key={p.sha256} className="w-[150px]">
                <a href={`/api/v1/photos/${p.sha256}`} target="_blank" rel="noreferrer">
                  {/* biome-ignore lint/performance/noImgElement: a household's own photo, sent as it is kept */}
                  <img
                    src={`/api/v1/photos/${p.sha256}`}
                    alt={p.text || `Photo of ${f.name}`}
                    loading="lazy"
                    className="h-[104px] w-full border border-rule object-cover"
                  />
                </a>
                {p.text ? <p className="text-[13px] text-ink-2">{p.text}</p> : null}
              </li>
            ))}
          </ul>
        </Section>
      </div>
      <FromFile from={f.fromFile} />
      {page.archivedStalls.length > 0 ? (
        <p className="mt-6 text-[14px] text-ink-2">
          Archived stalls:{' '}
          {page.archivedStalls.map((s, i) => (
            <span key={s.id}>
              {i > 0 ? ', ' : ''}
              <Link href={`/places/${site.id}/stalls/${s.id}`} className="font-semibold text-shake underline">
                {s.fields.name}
              </Link>
            </span>
          ))}
        </p>
      ) : null}
    </article>
  );
}

function payWords(m: SiteSheetData['means'][number]): string {
  const seen = m.attempts > 0 ? `power ${m.power} of ${m.attempts}` : null;
  if (m.problem) return [m.problem, seen].filter(Boolean).join('; ');
  if (m.accepted === false) return `not taken here; ${seen}`;
  return seen ?? (m.accepted === null ? 'not tried here' : 'taken, not tried yet');
}
