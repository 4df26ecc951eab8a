'use client';
import { useState } from 'react';
import type { Photo } from '@/client/photos/take-photo';
import type { AttemptChoice } from '@/core/visit/billed';
import { correctableText, correctionSet } from '@/core/visit/correction-set';
import { correctableFields } from '@/core/visit/kinds/registry';
import { type Payload, payloadProblem } from '@/core/visit/payloads';
import { setFields } from '@/core/visit/set-fields';
import { CorrectFields } from '@/ui/forms/correct-fields';
import { Sheet } from '@/ui/pads/sheet';
import { ReadReceipt } from '../new/read-receipt';
import { type Afterwards, KEPT_HERE, useRecordAfterwards, type VisitContext } from './use-record-afterwards';

/** A bill that came after the visit, or a parking ticket; read off its receipt where there is one, which is kept beside it. */
export function AddBill({ context, currency, attempts }: { context: VisitContext; currency: string; attempts: AttemptChoice[] }) {
  const [open, setOpen] = useState(false);
  const [said, setSaid] = useState('');
  const close = (kept: string) => {
    setOpen(false);
    setSaid(kept);
  };
  return (
    <>
      <button type="button" className="plate" onClick={() => setOpen(true)}>
        Add a bill or receipt
      </button>
      <p role="status" className="text-[13px] font-semibold empty:hidden">
        {said}
      </p>
      {open ? <BillForm context={context} currency={currency} attempts={attempts} onClose={close} /> : null}
    </>
  );
}

function BillForm({
  context,
  currency,
  attempts,
  onClose,
}: {
  context: VisitContext;
  currency: string;
  attempts: AttemptChoice[];
  /** Given what is still to be said of what was kept. */
  onClose: (kept: string) => void;
}) {
  const { record, busy } = useRecordAfterwards(context);
  const blank = { sessions: [] as string[], currency, state: 'charged' };
  const fields = correctableFields('bill', blank);
  const [values, setValues] = useState(() => correctableText('bill', blank));
  const [photo, setPhoto] = useState<Photo | null>(null);
  const [keep, setKeep] = useState(true);
  const [problems, setProblems] = useState<Record<string, string>>({});

  /** A refusal beside the field that it is of. */
  const said = (why: string): Record<string, string> => {
    const field = fields.find((f) => why.startsWith(`payload.${f.field}`))?.field;
    return { [field ?? 'form']: field ? why.slice(`payload.${field}`.length).trim() : why };
  };
  const save = async (timeStamp: number) => {
    const { set, problems: bad } = correctionSet('bill', blank, values);
    const receipt = photo && keep ? photo : null;
    const noAmount = (values.amount ?? '').trim() === '';
    // A receipt may be kept alone, where the bill is recorded already.
    const billed = !(noAmount && receipt && Object.keys(set).length === 0);
    if (billed && noAmount) bad.amount = 'How much was it?';
    setProblems(bad);
    if (Object.keys(bad).length > 0) return;
    const payload = setFields(blank, set) as Payload<'bill'>;
    // What the server would refuse is said before it is kept here.
    const refused = billed ? payloadProblem('bill', payload) : null;
    if (refused) return setProblems(said(`${refused.path} ${refused.reason}`));
    const drafts: Afterwards[] = [
      ...(billed ? [{ kind: 'bill' as const, payload, origin: 'typed' as const }] : []),
      ...(receipt ? [{ kind: 'receipt' as const, payload: { sha256: receipt.sha256 } }] : []),
    ];
    const why = await record(timeStamp, drafts, receipt ?? undefined);
    // A form that stayed would be kept a second time, as another bill.
    if (!why || why === KEPT_HERE) return onClose(why ?? '');
    setProblems(said(why));
  };

  return (
    <Sheet title="Add a bill or receipt" onClose={() => onClose('')} hint="Cover card and account numbers before you take a picture.">
      <ReadReceipt
        onPicture={setPhoto}
        onFill={(told) => {
          let filled = 0;
          const next = { ...values };
          for (const field of ['amount', 'kWh', 'minutes'] as const)
            if (told[field] !== null && (next[field] ?? '') === '') {
              next[field] = String(told[field]);
              filled += 1;
            }
          if (told.currency !== null && next.amount === String(told.amount) && told.currency !== next.currency) {
            next.currency = told.currency;
            filled += 1;
          }
          setValues(next);
          return filled;
        }}
      />
      {photo ? (
        <label className="mb-3 flex min-h-[44px] items-center gap-2 text-[15px]">
          <input type="checkbox" className="size-5" checked={keep} onChange={(e) => setKeep(e.target.checked)} />
          Keep the picture with the visit
        </label>
      ) : null}
      <CorrectFields fields={fields} values={values} problems={problems} choices={{ attempts }} distance="km" onChange={setValues} />
      {problems.form ? (
        <p role="alert" className="mb-2 text-sm font-semibold text-fault">
          {problems.form}
        </p>
      ) : null}
      <button type="button" className="plate plate-next !min-h-[52px] w-full" disabled={busy} onClick={(e) => void save(e.timeStamp)}>
        Keep it with the visit
      </button>
    </Sheet>
  );
}
