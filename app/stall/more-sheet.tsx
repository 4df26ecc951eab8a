'use client';
import { useState } from 'react';
import { MEANS_KINDS, meansPad } from '@/core/records/means-kind';
import { privateNumber } from '@/core/records/private-number';
import { CHANGE_LABELS } from '@/core/visit/event-label';
import type { Payload } from '@/core/visit/payloads';
import { Sheet } from '@/ui/pads/sheet';
import type { Draft, Records } from './use-stall';
import type { UsualMeans } from './usual-means';

type Section = { title: string; acts: { label: string; draft: Draft }[] };

/** Every other thing that can be recorded, in the order of a visit. */
export function MoreSheet({
  records,
  means,
  onClose,
  onAct,
  onSheet,
  onAnother,
}: {
  records: Records;
  means: UsualMeans;
  onClose: () => void;
  onAct: (timeStamp: number, draft: Draft) => void;
  onSheet: (sheet: 'stall' | 'leave' | 'bill' | 'reading') => void;
  onAnother: () => void;
}) {
  const [note, setNote] = useState('');
  const paid = { meansKind: means.meansKind, ...(means.meansId ? { meansId: means.meansId } : {}) };
  const rank = (kind: string) => MEANS_KINDS.findIndex((m) => m.kind === kind);
  const inOrder = [...records.means].sort((a, b) => rank(a.fields.kind) - rank(b.fields.kind) || a.fields.label.localeCompare(b.fields.label));
  const held = inOrder.map((m) => ({
    label: `${meansPad(m.fields.kind)}: ${m.fields.label}`,
    draft: { kind: 'means_shown', payload: { meansKind: m.fields.kind, meansId: m.id } } satisfies Draft,
  }));
  const heldKinds = new Set(records.means.map((m) => m.fields.kind));
  const other = MEANS_KINDS.filter((m) => !heldKinds.has(m.kind)).map((m) => ({
    label: m.pad,
    draft: { kind: 'means_shown', payload: { meansKind: m.kind } } satisfies Draft,
  }));
  const sections: Section[] = [
    {
      title: 'Arriving',
      acts: [
        { label: 'Queue joined', draft: { kind: 'queue_joined', payload: {} } },
        { label: 'Stall free', draft: { kind: 'stall_free', payload: {} } },
      ],
    },
    {
      title: 'Starting',
      acts: [
        { label: 'Handle taken', draft: { kind: 'first_act', payload: { what: 'handle' } } },
        { label: 'Plugged in', draft: { kind: 'plugged', payload: {} } },
        { label: 'Says charging', draft: { kind: 'claimed', payload: { by: 'screen' } } },
      ],
    },
    {
      title: 'Paying',
      acts: [
        ...held,
        ...other,
        { label: 'Accepted', draft: { kind: 'means_accepted', payload: paid } },
        { label: 'Refused', draft: { kind: 'means_refused', payload: paid } },
      ],
    },
    {
      title: 'Power',
      acts: [
        { label: 'I see power, late', draft: { kind: 'power_seen', payload: { screen: 'stall', mark: 'kW', late: true } } },
        { label: 'kWh counts up', draft: { kind: 'power_seen', payload: { screen: 'stall', mark: 'kWh' } } },
        { label: 'Amps flow', draft: { kind: 'power_seen', payload: { screen: 'stall', mark: 'A' } } },
        { label: 'Power on the car’s screen', draft: { kind: 'power_seen', payload: { screen: 'car', mark: 'kW' } } },
        { label: 'Power gone', draft: { kind: 'power_gone', payload: {} } },
        { label: 'Stopped in the app', draft: { kind: 'stop_asked', payload: { by: 'app' } } },
        { label: 'Stopped with the card', draft: { kind: 'stop_asked', payload: { by: 'card' } } },
        { label: 'Stopped from the car', draft: { kind: 'stop_asked', payload: { by: 'car' } } },
      ],
    },
    {
      title: 'Leaving',
      acts: [
        { label: 'Unlocked', draft: { kind: 'unlocked', payload: {} } },
        { label: 'Handle stuck', draft: { kind: 'stuck', payload: { end: 'car' } } },
        { label: 'Unplugged', draft: { kind: 'unplugged', payload: {} } },
      ],
    },
    {
      title: 'Helpline',
      acts: [
        { label: 'Called', draft: { kind: 'help_called', payload: {} } },
        { label: 'Answered', draft: { kind: 'help_answered', payload: {} } },
        { label: 'Ended', draft: { kind: 'help_ended', payload: {} } },
      ],
    },
  ];
  const why = privateNumber(note);
  return (
    <Sheet title="More" onClose={onClose} hint="The time is that of your touch here.">
      <div className="mb-4 grid grid-cols-2 gap-2">
        <button type="button" className="plate !min-h-[48px]" onClick={() => onSheet('stall')}>
          Another stall
        </button>
        <button type="button" className="plate !min-h-[48px]" onClick={() => onSheet('reading')}>
          Reading
        </button>
        <button type="button" className="plate !min-h-[48px]" onClick={() => onSheet('bill')}>
          Bill
        </button>
        <button type="button" className="plate !min-h-[48px]" onClick={() => onSheet('leave')}>
          Pulled out …
        </button>
      </div>
      {sections.map((s) => (
        <section key={s.title} className="mb-4">
          <h3 className="mb-1.5 text-[15px]">{s.title}</h3>
          <div className="grid grid-cols-2 gap-2">
            {s.acts.map((a) => (
              <button key={a.label} type="button" className="plate !min-h-[48px]" onClick={(e) => onAct(e.timeStamp, a.draft)}>
                {a.label}
              </button>
            ))}
          </div>
        </section>
      ))}
      <section>
        <h3 className="mb-1.5 text-[15px]">Note</h3>
        <textarea
          className="field"
          rows={3}
          maxLength={2000}
          value={note}
          onChange={(e) => setNote(e.target.value)}
          aria-label="Note"
          aria-invalid={why ? true : undefined}
        />
        {why ? (
          <p role="alert" className="mt-1 text-[13px] font-semibold text-fault">
            {why}
          </p>
        ) : null}
        <button
          type="button"
          className="plate mt-2 !min-h-[48px]"
          disabled={note.trim() === '' || why !== null}
          onClick={(e) => onAct(e.timeStamp, { kind: 'note', payload: { text: note.trim() } })}
        >
          Keep the note
        </button>
      </section>
      <section className="mt-4 border-t border-rule pt-3">
        <button type="button" className="plate !min-h-[48px] w-full" onClick={onAnother}>
          Leave this visit open, begin another
        </button>
      </section>
    </Sheet>
  );
}

/** Things that explain the curve. */
export function ChangeSheet({ onClose, onAct }: { onClose: () => void; onAct: (timeStamp: number, draft: Draft) => void }) {
  return (
    <Sheet title="Changed" onClose={onClose}>
      <div className="grid grid-cols-2 gap-2">
        {Object.entries(CHANGE_LABELS)
          .filter(([what]) => what !== 'other')
          .map(([what, label]) => (
            <button
              key={what}
              type="button"
              className="plate !min-h-[56px]"
              onClick={(e) => onAct(e.timeStamp, { kind: 'change', payload: { what: what as Payload<'change'>['what'] } })}
            >
              {label}
            </button>
          ))}
      </div>
    </Sheet>
  );
}

const REASONS: [Payload<'pulled_out'>['reason'], string][] = [
  ['enough', 'Enough charged'],
  ['gave_up', 'Gave up'],
  ['queue', 'The queue'],
  ['price', 'The price'],
  ['unsafe', 'Felt unsafe'],
  ['closed', 'Closed'],
  ['called_away', 'Called away'],
];

export function LeaveSheet({ onClose, onAct }: { onClose: () => void; onAct: (timeStamp: number, draft: Draft) => void }) {
  return (
    <Sheet title="Pulled out" onClose={onClose} hint="Why did you leave?">
      <div className="grid grid-cols-2 gap-2">
        {REASONS.map(([reason, label]) => (
          <button key={reason} type="button" className="plate !min-h-[56px]" onClick={(e) => onAct(e.timeStamp, { kind: 'pulled_out', payload: { reason } })}>
            {label}
          </button>
        ))}
      </div>
    </Sheet>
  );
}
