'use client';
import { useState } from 'react';
import { type FieldDifference, recordDifference, settleDifference } from '@/core/records/record-difference';
import type { MileRecord, RecordItem } from '@/core/records/record-schema';
import type { RecordType } from '@/core/records/record-types';
import { TYPES } from '@/core/records/types/registry';
import { Sheet } from '../pads/sheet';
import type { Names } from './form-fields';
import { fieldLabel } from './record-fields';

export type UnsettledRecord = {
  type: RecordType;
  id: string;
  mine: RecordItem;
  base?: Record<string, unknown> | undefined;
  theirs?: MileRecord | undefined;
  path?: string | undefined;
  reason: string;
};

/** A change that met another, or was refused: both versions side by side, and a choice for each field. */
export function DifferenceSheet({
  unsettled: u,
  names,
  onSettle,
  onDrop,
  onClose,
}: {
  unsettled: UnsettledRecord;
  names: Names;
  onSettle: (item: RecordItem) => void;
  /** Leaves what stands at the server. */
  onDrop: () => void;
  onClose: () => void;
}) {
  const mine: Record<string, unknown> = { ...u.mine.fields, archived: u.mine.archived ?? false };
  const theirs: Record<string, unknown> | null = u.theirs ? { ...u.theirs.fields, archived: u.theirs.archived } : null;
  const [choice, setChoice] = useState<FieldDifference[]>(() =>
    theirs ? recordDifference(mine, theirs, u.base ? { ...u.base, archived: false } : undefined) : [],
  );
  const name = 'name' in u.mine.fields ? u.mine.fields.name : 'label' in u.mine.fields ? u.mine.fields.label : '';
  const title = `${TYPES[u.type].one} ${name}`.trim();
  if (!theirs || !u.theirs)
    return (
      <Sheet title={`${title}: refused`} onClose={onClose} hint="Kept on this device. Nothing is lost until you choose.">
        <p className="text-[15px]">
          {u.path ? `${fieldLabel(u.type, u.path.replace(/^fields\./, ''))}: ` : ''}
          {u.reason}
        </p>
        <div className="mt-4 flex flex-wrap gap-2">
          <button type="button" className="plate plate-next" onClick={() => onSettle(u.mine)}>
            Send it again
          </button>
          <button type="button" className="plate plate-bad" onClick={onDrop}>
            Drop what I typed
          </button>
        </div>
      </Sheet>
    );
  const there = u.theirs;
  const take = (field: string, take: 'mine' | 'theirs') => setChoice((all) => all.map((d) => (d.field === field ? { ...d, take } : d)));
  return (
    <Sheet title={`${title}: changed elsewhere too`} onClose={onClose} hint="Somebody changed it while you did. Choose for each field which stands.">
      <ul>
        {choice.map((d) => (
          <li key={d.field} className="mb-3 border-b border-rule-2 pb-3">
            <fieldset>
              <legend className="mb-1 text-sm font-bold">{d.field === 'archived' ? 'Archived' : fieldLabel(u.type, d.field)}</legend>
              {(['mine', 'theirs'] as const).map((whose) => (
                <label
                  key={whose}
                  className={`mb-1 flex min-h-[44px] items-center gap-3 border-2 px-3 py-1.5 text-[14.5px] ${d.take === whose ? 'border-ink bg-picked' : 'border-rule'}`}
                >
                  <input type="radio" name={d.field} checked={d.take === whose} onChange={() => take(d.field, whose)} className="size-5 accent-ink" />
                  <span>
                    <span className="block text-[12.5px] text-ink-2">{whose === 'mine' ? 'Mine' : 'Theirs'}</span>
                    {printValue(d[whose], names)}
                  </span>
                </label>
              ))}
            </fieldset>
          </li>
        ))}
      </ul>
      <div className="flex flex-wrap gap-2 pb-2">
        <button
          type="button"
          className="plate plate-next"
          onClick={() => {
            const { archived, ...fields } = settleDifference(theirs, choice);
            onSettle({ ...u.mine, baseRev: there.rev, archived: archived === true, fields } as RecordItem);
          }}
        >
          Keep this choice
        </button>
        <button type="button" className="plate" onClick={onDrop}>
          Leave theirs as it is
        </button>
      </div>
    </Sheet>
  );
}

/** A field's value in words. */
export function printValue(value: unknown, names: Names): string {
  if (value === null || value === undefined || value === '' || (Array.isArray(value) && value.length === 0)) return 'nothing noted';
  if (typeof value === 'boolean') return value ? 'yes' : 'no';
  if (Array.isArray(value)) return value.map((v) => printValue(v, names)).join('; ');
  if (typeof value === 'object')
    return Object.entries(value)
      .filter(([, v]) => v !== null && v !== '')
      .map(([k, v]) => (k === 'ratedKW' ? `${v} kW` : k === 'sha256' ? 'photo' : String(v)))
      .join(', ');
  const known = Object.values(names)
    .flat()
    .find((n) => n?.id === value);
  return known?.name ?? String(value);
}
