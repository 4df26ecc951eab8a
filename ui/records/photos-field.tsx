'use client';
import { useContext, useState } from 'react';
import { useFieldArray, useFormContext } from 'react-hook-form';
import { FormContext } from './form-context';

const MOST = 12;

/** Photos of a place: taken or chosen, scaled down and freed of their position before they are kept. */
export function PhotosField({ path, className }: { path: string; className: string }) {
  const { control, register } = useFormContext();
  const { idBase, messages, onPhoto, photoSource } = useContext(FormContext);
  const { fields, append, remove } = useFieldArray({ control, name: path });
  const [problem, setProblem] = useState<string | null>(null);
  const [busy, setBusy] = useState(false);
  const photos = fields as unknown as { id: string; sha256: string; text: string | null }[];
  const id = `${idBase}-${path}`;
  const take = async (files: FileList | null) => {
    setProblem(null);
    setBusy(true);
    try {
      for (const file of [...(files ?? [])].slice(0, MOST - photos.length)) {
        const sha256 = await onPhoto?.(file);
        if (sha256 && !photos.some((p) => p.sha256 === sha256)) append({ sha256, text: '' });
      }
    } catch (error) {
      setProblem(error instanceof Error ? error.message : String(error));
    } finally {
      setBusy(false);
    }
  };
  if (!onPhoto) return null;
  return (
    <div className={`mb-3 ${className}`}>
      <ul className="flex flex-wrap gap-3">
        {photos.map((p, i) => (
          <li key={p.id} className="w-[200px]">
            {/* biome-ignore lint/performance/noImgElement: a household's own photo, sent as it is kept */}
            <img src={photoSource?.(p.sha256)} alt={p.text || `Photo ${i + 1}`} className="h-[130px] w-full border border-rule bg-band object-cover" />
            <label className="mt-1 block text-[13px] font-semibold">
              What it shows
              <input {...register(`${path}.${i}.text`)} className="field !min-h-[38px]" autoComplete="off" />
            </label>
            {messages[`${path}.${i}.text`] ? (
              <p role="alert" className="text-[13px] font-semibold text-fault">
                {messages[`${path}.${i}.text`]}
              </p>
            ) : null}
            <button type="button" className="mt-1 text-sm font-semibold text-shake underline" onClick={() => remove(i)}>
              Remove
            </button>
          </li>
        ))}
      </ul>
      {photos.length < MOST ? (
        <>
          <label htmlFor={id} className="mb-1 mt-2 block text-sm font-semibold">
            Add photos
          </label>
          <input id={id} type="file" accept="image/*" multiple disabled={busy} onChange={(e) => void take(e.target.files)} className="w-full text-sm" />
          <p className="mt-1 text-[13px] text-ink-2">Scaled to 1600 pixels; where it was taken is removed. At most {MOST}.</p>
        </>
      ) : null}
      {problem ? (
        <p role="alert" className="mt-1 text-[13px] font-semibold text-fault">
          {problem}
        </p>
      ) : null}
    </div>
  );
}
