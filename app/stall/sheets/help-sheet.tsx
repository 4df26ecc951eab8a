'use client';
import { phoneNow } from '@/client/touch/touch-time';
import type { Visit } from '@/core/visit/derive';
import { helplineCard } from '@/core/visit/helpline-card';
import { HELP_RESULTS } from '@/core/visit/kinds/help-ended';
import type { Payload } from '@/core/visit/payloads';
import { RunningClock } from '@/ui/pads/running-clock';
import { Sheet } from '@/ui/pads/sheet';
import type { LiveFacts } from '../live-facts';
import type { StallHands } from '../stall-state';
import { Plate, PlateList } from './plate-list';

/** For the call: the number, what to read aloud, a stopwatch, and what came of it. It stays open while one talks. */
export function HelpSheet({ visit, facts, onClose, onRecord }: { visit: Visit; facts: LiveFacts; onClose: () => void; onRecord: StallHands['act'] }) {
  const { site, network, stall } = facts;
  const used = visit.attempts.at(-1)?.connectorId;
  const card = helplineCard(visit, {
    site: site ? { name: site.fields.name, entrance: site.fields.entrance, helpline: site.fields.helpline } : null,
    network: network ? { name: network.fields.name, helpline: network.fields.helpline } : null,
    stall: stall
      ? {
          name: stall.fields.name,
          otherName: stall.fields.otherName,
          evseUids: stall.fields.evseUids,
          connector: used ?? stall.fields.outlets.map((o) => o.connector).join(', '),
        }
      : null,
  });
  const calls = visit.line.filter((e) => e.kind === 'help_called' || e.kind === 'help_answered' || e.kind === 'help_ended');
  const last = calls.at(-1);
  const running = last && last.kind !== 'help_ended' ? last : null;
  const record = (draft: Parameters<StallHands['act']>[1]) => (t: number) => void onRecord(t, draft);
  return (
    <Sheet title="Helpline" onClose={onClose} hint="Read this aloud. Closing does not stop the clock.">
      {card.number ? (
        <a className="plate plate-next !min-h-[56px] w-full text-[20px]" href={`tel:${card.number.replaceAll(/[^\d+]/g, '')}`}>
          {card.number}
        </a>
      ) : (
        <p className="text-[15px]">
          {facts.inDanger ? 'The operator’s number is not noted. Do not go back to the post for it.' : 'No number is noted. It stands on the post.'}
        </p>
      )}
      <dl className="mt-3 border-t-2 border-ink">
        {card.lines.map(([label, text]) => (
          <div key={label} className="flex gap-3 border-b border-rule-2 py-1.5">
            <dt className="w-[116px] shrink-0 text-[13.5px] font-semibold text-ink-2">{label}</dt>
            <dd className="text-[17px] font-semibold leading-snug">{text}</dd>
          </div>
        ))}
      </dl>
      {running ? (
        <div className="mt-3">
          <RunningClock from={running.t} label={running.kind === 'help_called' ? 'Ringing' : 'Talking'} now={phoneNow} />
        </div>
      ) : null}
      <div className="mt-3">
        {!running ? (
          <PlateList>
            <Plate onPress={record({ kind: 'help_called', payload: {} })}>Called</Plate>
          </PlateList>
        ) : (
          <>
            {running.kind === 'help_called' ? (
              <PlateList>
                <Plate onPress={record({ kind: 'help_answered', payload: {} })}>Answered</Plate>
              </PlateList>
            ) : null}
            <p className="mb-1.5 mt-3 text-[15px] font-bold">Ended, and</p>
            <PlateList>
              {(Object.entries(HELP_RESULTS) as [NonNullable<Payload<'help_ended'>['result']>, string][]).map(([result, label]) => (
                <Plate key={result} onPress={record({ kind: 'help_ended', payload: { result } })}>
                  {label}
                </Plate>
              ))}
            </PlateList>
          </>
        )}
      </div>
    </Sheet>
  );
}
