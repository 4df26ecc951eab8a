'use client';
import { useEffect, useRef, useState } from 'react';
import { type Photo, takePhoto } from '@/client/photos/take-photo';
import { fileKind, LOOKED_AT_BYTES } from '@/core/formats/file-kind';
import type { ReceiptField, ReceiptRead } from '@/core/formats/receipt-text';
import { useDroppedFile } from '@/ui/forms/use-dropped-file';

type At = { x: number; y: number; w: number; h: number };
type Field = ReceiptField | 'battery';
type Battery = { from: number | null; to: number } | { why: string };
type Told = ReceiptRead & { siteId: string | null; battery: Battery; seen: Partial<Record<Field, { confidence: number; at: At }>> };
/** What of a receipt goes into the form. */
export type ReceiptTold = Pick<Told['proposal'], 'kWh' | 'amount' | 'currency' | 'date'> & {
  /** As they are shown: to a tenth. */
  minutes: string | null;
  siteId: string | null;
  /** Per cents of the battery, where a screen says them. */
  battery: { from: number | null; to: number } | null;
};

const LABEL: Readonly<Record<Field, string>> = {
  battery: 'Battery',
  kWh: 'Energy',
  amount: 'Amount',
  currency: 'Currency',
  minutes: 'Minutes',
  date: 'Day',
  site: 'Site',
};
const WHY: Readonly<Record<string, string>> = {
  not_printed: 'not on it',
  several: 'several differ: look which one counts',
  mark: 'its decimal mark is not plain',
  bounds: 'beyond what can be',
  form: 'its form is not plain',
  symbol: 'several currencies have this sign',
  date_order: 'day or month first is not plain',
  unknown: 'none that is known here',
};
/** Below this a figure is looked at twice. */
const SURE = 0.85;

/** Reads a receipt's picture or text, and shows what it is proposed to say beside where that stands. What is typed already stays. */
export function ReadReceipt({
  onFill,
  onPicture,
}: {
  onFill: (told: ReceiptTold) => number /** Where the picture can be kept: it is given as it would be. */;
  onPicture?: (photo: Photo | null) => void;
}) {
  const [picture, setPicture] = useState<{ url: string; width: number; height: number } | null>(null);
  const [told, setTold] = useState<Told | null>(null);
  const [text, setText] = useState('');
  const [said, setSaid] = useState('');
  const [busy, setBusy] = useState(false);
  useEffect(() => () => (picture ? URL.revokeObjectURL(picture.url) : undefined), [picture]);

  const read = async (body: Blob | string, type: string) => {
    setBusy(true);
    setTold(null);
    setSaid(typeof body === 'string' ? '' : 'Reading the picture: some seconds …');
    try {
      const answer = await fetch('/api/v1/read-receipt', { method: 'POST', headers: { 'content-type': type }, body });
      const found = await answer.json();
      if (answer.ok) {
        setTold(found);
        setSaid('');
      } else setSaid(found.error ?? 'It could not be read.');
    } catch {
      setSaid('The server could not be reached: it reads the picture. What is typed stays.');
    } finally {
      setBusy(false);
    }
  };
  const input = useRef<HTMLInputElement>(null);
  useDroppedFile(input);
  const choose = async (file: File) => {
    setTold(null);
    setSaid('');
    // One that was chosen before is no longer meant, and none is chosen while this one is made smaller.
    onPicture?.(null);
    setBusy(true);
    try {
      const photo = await takePhoto(file);
      const { bytes } = photo;
      onPicture?.(photo);
      const { width, height } = await createImageBitmap(bytes);
      setPicture({ url: URL.createObjectURL(bytes), width, height });
      await read(bytes, bytes.type || 'image/jpeg');
    } catch {
      setBusy(false);
      setPicture(null);
      onPicture?.(null);
      const kind = await file
        .slice(0, LOOKED_AT_BYTES)
        .arrayBuffer()
        .then((bytes) => fileKind(new Uint8Array(bytes)))
        .catch(() => null);
      setSaid(kind === 'pdf' ? 'This is a PDF: choose a picture of its page, or paste its text below.' : 'This is no picture that can be read.');
    }
  };
  return (
    <details className="mb-4 border-y-2 border-ink bg-card px-3 py-2">
      <summary className="flex min-h-[44px] cursor-pointer items-center text-[15px] font-semibold">Read it off a receipt or the last screen</summary>
      <p className="mb-2 text-[13.5px] text-ink-2">
        It is read on this machine{onPicture ? '' : ' and kept nowhere'}. Each figure is a proposal: hold it against the picture. What you have typed stays as
        it is.
      </p>
      <label className="mb-3 block text-[15px] font-semibold">
        A picture of it
        <input
          ref={input}
          type="file"
          accept="image/*"
          disabled={busy}
          className="mt-1 block min-h-[44px] w-full max-w-full"
          onClick={(e) => {
            e.currentTarget.value = '';
          }}
          onChange={(e) => {
            const file = e.target.files?.[0];
            if (file) void choose(file);
          }}
        />
      </label>
      <label className="mb-2 block text-[15px] font-semibold">
        or its text
        <textarea className="field num mt-1 min-h-[88px]" value={text} maxLength={20_000} onChange={(e) => setText(e.target.value)} />
      </label>
      <button
        type="button"
        className="plate !min-h-[44px]"
        disabled={busy || text.trim() === ''}
        onClick={() => {
          setPicture(null);
          void read(text, 'text/plain');
        }}
      >
        Read the text
      </button>
      <p role="status" className="my-2 min-h-6 text-[15px] font-semibold">
        {said}
      </p>
      {told ? (
        <>
          <dl className="border-t border-rule">
            {(Object.keys(LABEL) as Field[]).map((field) => (
              <Figure key={field} field={field} told={told} picture={picture} />
            ))}
          </dl>
          <button
            type="button"
            className="plate mt-3 !min-h-[44px]"
            onClick={() => {
              const { kWh, amount, currency, date } = told.proposal;
              const minutes = saidOf(told, 'minutes').value;
              const filled = onFill({ kWh, minutes, amount, currency, date, siteId: told.siteId, battery: 'why' in told.battery ? null : told.battery });
              setSaid(filled > 0 ? `${filled} filled in below. Look at each before you keep it.` : 'Nothing was filled in: what it says is typed already.');
            }}
          >
            Fill in what is empty
          </button>
        </>
      ) : null}
    </details>
  );
}

function Figure({ field, told, picture }: { field: Field; told: Told; picture: { url: string; width: number; height: number } | null }) {
  const { value, why } = saidOf(told, field);
  const seen = told.seen[field];
  return (
    <div className="flex flex-wrap items-center gap-x-3 gap-y-1 border-b border-rule-2 py-1.5">
      <dt className="w-[84px] shrink-0 text-[14px] font-semibold">{LABEL[field]}</dt>
      <dd className="min-w-0 grow text-[15px]">
        {value === null ? (
          <span className="text-ink-2">{WHY[why] ?? 'not told'}</span>
        ) : (
          <>
            <span className="num">{value}</span>
            {seen ? <span className="ml-2 text-[13px] text-ink-2">{seen.confidence >= SURE ? 'read plainly' : 'read with doubt: look'}</span> : null}
          </>
        )}
      </dd>
      {value !== null && seen && picture ? <Clipping at={seen.at} picture={picture} /> : null}
    </div>
  );
}

/** A figure as it is proposed, or why it is not. */
function saidOf(told: Told, field: Field): { value: string | null; why: string } {
  if (field === 'battery') {
    if ('why' in told.battery) return { value: null, why: told.battery.why };
    const { from, to } = told.battery;
    return { value: from === null ? `${to} %` : `${from} to ${to} %`, why: '' };
  }
  const value = told.proposal[field];
  const text = value === null ? null : field === 'minutes' ? String(Math.round(Number(value) * 10) / 10) : String(value);
  return { value: text, why: told.emptyBecause[field] ?? '' };
}

/** The part of the picture where a figure was read, a little more around it. */
function Clipping({ at, picture }: { at: At; picture: { url: string; width: number; height: number } }) {
  const around = at.h * 0.4;
  const [x, y] = [Math.max(0, at.x - 0.01), Math.max(0, at.y - around)];
  const [w, h] = [Math.min(1 - x, at.w + 0.02), Math.min(1 - y, at.h + 2 * around)];
  const ratio = (w * picture.width) / (h * picture.height);
  return (
    <svg
      role="img"
      aria-label="Where it stands in the picture"
      className="h-auto max-h-[44px] w-full max-w-[260px] border border-rule"
      viewBox={`${x * picture.width} ${y * picture.height} ${w * picture.width} ${h * picture.height}`}
      style={{ aspectRatio: ratio }}
    >
      <image href={picture.url} width={picture.width} height={picture.height} />
    </svg>
  );
}
