'use client';
import { useRouter } from 'next/navigation';
import { useState } from 'react';
import { printCount, printDuration } from '@/core/units/print';
import type { CarLogTold } from '@/server/formats/import-car-log';
import { ChooseFile, useFileWork } from '@/ui/forms/file-work';
import { Rows, Section } from '@/ui/places/section';

const REFUSED: Readonly<Record<string, string>> = {
  no_time: 'No column of it is a time: its heading should say “time”.',
  no_power: 'No column of it is power in kW, and it has not both volts and amps.',
  too_many_days: 'It goes over more than eight days: send those of the charge.',
  too_short: 'It has fewer than ten lines with a time and a figure.',
  too_long: 'It has more than 100,000 lines.',
  nul_byte: 'It holds a NUL byte: is it a CSV file?',
};
/** By how much a tap came after the log, or before it. */
const tapWords = (s: number | null): string =>
  s === null ? 'not in the log' : Math.abs(s) < 0.5 ? 'on it' : `${printDuration(Math.abs(s))} ${s > 0 ? 'late' : 'early'}`;

/** A car's own log laid beside this visit: where it lies, how far each tap is from it, and its readings taken in, or back. */
export function CarLog({ visitId, logs }: { visitId: string; logs: readonly { importId: string; readings: number }[] }) {
  const router = useRouter();
  const [file, setFile] = useState<File | null>(null);
  const [told, setTold] = useState<CarLogTold | null>(null);
  const { busy, said, say, working, reading } = useFileWork('car_log');
  const send = async (of: File, take: boolean): Promise<(CarLogTold & { taken?: number }) | null> => {
    const answer = await fetch(`/api/v1/import/car-log?visit=${visitId}${take ? '&take=yes' : ''}`, {
      method: 'POST',
      headers: { 'content-type': 'text/csv' },
      body: of,
    });
    const body = await answer.json();
    if (!answer.ok) {
      say(`${body.error ?? 'It was refused.'} ${REFUSED[body.refused?.code] ?? ''}`.trim());
      setTold(null);
      return null;
    }
    setTold(body);
    return body;
  };
  const undo = (importId: string) =>
    void working(async () => {
      const answer = await fetch('/api/v1/import/car-log', {
        method: 'DELETE',
        headers: { 'content-type': 'application/json' },
        body: JSON.stringify({ visit: visitId, id: importId }),
      });
      const { undone } = await answer.json();
      say(answer.ok ? `${printCount(undone ?? 0, 'reading')} taken back.` : 'It could not be taken back just now.');
      setTold(null);
      router.refresh();
    }, 'takes back');
  const session = told?.session ?? null;
  return (
    <Section head="A log of the car’s own" beside="as CSV: time, kW, %, V, A" className="no-print mt-7 max-w-[820px]">
      <ChooseFile
        label="The file"
        accept=".csv,.txt,.tsv,text/csv,text/plain"
        busy={busy}
        said={said}
        onChoose={(chosen) => {
          setFile(chosen);
          setTold(null);
          if (chosen) void reading(chosen, async () => void (await send(chosen, false)));
        }}
      />
      {told ? (
        <>
          <p className="mb-2 text-[15px]">
            {session === null
              ? 'It fits no session of this visit: three readings of power, and a log of most of the session, are needed to tell.'
              : session.told
                ? `It goes with attempt ${session.n}: correlation ${session.aligned.r.toFixed(2)}, next best place ${Math.max(0, session.aligned.next).toFixed(2)}.${told.also.length > 0 ? ` By the same clock it has attempt ${told.also.map((s) => s.n).join(' and ')}.` : ''}`
                : `It cannot be told where it lies: correlation ${session.aligned.r.toFixed(2)} at best, ${Math.max(0, session.aligned.next).toFixed(2)} somewhere else. A log that begins before power is on and ends after it went tells most.`}{' '}
            {printCount(told.samples, 'sample')}
            {told.skipped > 0 ? `, ${printCount(told.skipped, 'line')} left out` : ''}
            {told.turned ? '; it counts charging as less than nothing, and was turned' : ''}.
            {session?.told && told.there === 0 && told.readings === 0 ? ' All that it says of this session stands here already, of another log.' : ''}
          </p>
          {session?.told ? (
            <Rows
              rows={[session, ...told.also].flatMap(({ n, errors }): [string, string][] => {
                const of = told.also.length > 0 ? `Attempt ${n}: ` : '';
                return [
                  [`${of}Power seen, tapped`, tapWords(errors.power_s)],
                  [`${of}The end, tapped`, tapWords(errors.end_s)],
                  ...errors.looks.map((l): [string, string] => [
                    `${of}Read ${l.kW.toFixed(0)} kW at ${printDuration(l.t_s)}`,
                    `log ${l.log_kW.toFixed(1)} kW, ${l.kW - l.log_kW >= 0 ? '+' : '\u2212'}${Math.abs(l.kW - l.log_kW).toFixed(1)}`,
                  ]),
                ];
              })}
              empty=""
            />
          ) : null}
          {session?.told && told.there === 0 && told.readings > 0 ? (
            <button
              type="button"
              className="plate plate-next mt-3 !min-h-[44px]"
              disabled={busy}
              onClick={() =>
                void working(async () => {
                  const done = file ? await send(file, true) : null;
                  if (done) say(`${printCount(done.taken ?? 0, 'reading')} taken in as the car’s.`);
                  router.refresh();
                }, 'takes in')
              }
            >
              Take in {printCount(told.readings, 'reading')}
            </button>
          ) : null}
        </>
      ) : null}
      {logs.map((l) => (
        <p key={l.importId} className="mt-2 flex flex-wrap items-center gap-3 text-[14px]">
          {printCount(l.readings, 'reading')} of a log stand in this visit.
          <button type="button" className="plate !min-h-[44px]" disabled={busy} onClick={() => undo(l.importId)}>
            Take them back
          </button>
        </p>
      ))}
      <p className="mt-2 text-[13px] text-ink-2">
        Only how far its lines are apart is used of its clock. Its readings are the car’s: nothing of what was read at the stall is written over.
      </p>
    </Section>
  );
}
