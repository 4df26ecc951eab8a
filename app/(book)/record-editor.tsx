'use client';
import { useRouter } from 'next/navigation';
import { useRef, useState } from 'react';
import { dropUnsettled, keepAndSend, keepPhotoHere } from '@/client/outbox/keep-and-send';
import { askAboutPlace, zoneAt } from '@/client/places/position';
import type { Position } from '@/core/records/place-questions';
import type { MileRecord, RecordItem } from '@/core/records/record-schema';
import { TYPES } from '@/core/records/types/registry';
import { NO_WISHES } from '@/core/records/wishes';
import type { ConsumptionUnit } from '@/core/units/consumption';
import { DifferenceSheet, type UnsettledRecord } from '@/ui/records/difference-sheet';
import { fillingZone } from '@/ui/records/filling-zone';
import type { Names } from '@/ui/records/form-fields';
import { type FormType, RecordForm } from '@/ui/records/record-form';

export type EditorProps = {
  type: FormType;
  record: MileRecord | null;
  start?: Record<string, unknown>;
  names: Names;
  today: string;
  person: string;
  /** In how many visits it was used. */
  used: number;
  /** Where to go when it is kept; `:id` stands for the record's id. */
  then: string;
  /** In which consumption is typed. */
  unit?: ConsumptionUnit;
  /** Positions of the household's other sites, to ask about slips. */
  others?: Position[];
  /** The household's zone. */
  homeZone?: string;
};

/** A record's page: its form, how often it was used, and putting it away. By the same way as at the Stall. */
export function RecordEditor({ type, record, start, names, today, person, used, then, unit = NO_WISHES.consumption, others, homeZone = 'UTC' }: EditorProps) {
  const router = useRouter();
  const [unsettled, setUnsettled] = useState<UnsettledRecord | null>(null);
  const [said, setSaid] = useState<string | null>(null);
  const pictures = useRef(new Map<string, string>());
  const what = TYPES[type].one.toLowerCase();
  const [filling] = useState(() => fillingZone(zoneAt, record?.type === 'site' ? record.fields : null));
  const fillZone = (path: string, value: (path: string) => string, set: (path: string, value: string) => void): void => {
    if (path !== 'latitude' && path !== 'longitude') return;
    void filling({ latitude: () => value('latitude'), longitude: () => value('longitude'), zone: () => value('zone'), setZone: (zone) => set('zone', zone) });
  };

  const keep = async (items: RecordItem[], leave: boolean): Promise<{ fields?: Record<string, string>; form?: string } | null> => {
    setSaid(null);
    const kept = await keepAndSend(items, record ? [record] : []);
    if (kept.is === 'failed') return { form: `This browser could not keep it: ${kept.why}` };
    if (kept.is === 'unsettled') {
      const { path, reason, theirs } = kept.unsettled;
      if (theirs) setUnsettled(kept.unsettled);
      else return path ? { fields: { [path.replace(/^fields\./, '')]: reason } } : { form: reason };
      return null;
    }
    if (kept.is === 'kept_here') setSaid('Kept on this device: it is sent when the server can be reached.');
    else if (leave) router.push(then.replace(':id', items.at(-1)?.id ?? ''));
    router.refresh();
    return null;
  };
  const archive = () => {
    if (!record) return;
    const item = { type: record.type, id: record.id, baseRev: record.rev, archived: !record.archived, fields: record.fields } as RecordItem;
    void keep([item], false).then((p) => p?.form && setSaid(p.form));
  };

  return (
    <div>
      {record ? (
        <div className="mb-4 flex flex-wrap items-center gap-3 border-l-4 border-rule bg-card px-3 py-2">
          <p className="text-[14px] text-ink-2">
            {used === 0 ? `No visit used this ${what} yet.` : `Used in ${used} ${used === 1 ? 'visit' : 'visits'}.`}
            {record.archived ? ' Archived: kept for its visits, offered nowhere.' : ''}
          </p>
          <span className="grow" />
          <button type="button" className="plate" onClick={archive}>
            {record.archived ? 'Bring back' : 'Archive'}
          </button>
        </div>
      ) : null}
      {said ? (
        <p role="status" className="mb-3 border-l-4 border-paint bg-card px-3 py-2 text-sm font-semibold">
          {said}
        </p>
      ) : null}
      <RecordForm
        key={record?.rev ?? 0}
        type={type}
        record={record}
        {...(start ? { start } : {})}
        names={names}
        today={today}
        person={person}
        unit={unit}
        submitText={record ? 'Save' : `Add the ${what}`}
        onSave={(items) => keep(items, true)}
        ask={type === 'site' && others ? (fields) => askAboutPlace(fields, others, homeZone) : undefined}
        onLeave={type === 'site' ? fillZone : undefined}
        onPhoto={
          type === 'site' || type === 'stall'
            ? async (file) => {
                const sha256 = await keepPhotoHere(file);
                pictures.current.set(sha256, URL.createObjectURL(file));
                return sha256;
              }
            : undefined
        }
        photoSource={(sha256) => pictures.current.get(sha256) ?? `/api/v1/photos/${sha256}`}
      />
      {unsettled ? (
        <DifferenceSheet
          unsettled={unsettled}
          names={names}
          onClose={() => setUnsettled(null)}
          onDrop={() => {
            void dropUnsettled(unsettled as never).then(() => {
              setUnsettled(null);
              router.push(then.replace(':id', unsettled.id));
              router.refresh();
            });
          }}
          onSettle={(item) => {
            setUnsettled(null);
            void keep([item], true).then((p) => p && setSaid(p.form ?? Object.values(p.fields ?? {}).join(' ')));
          }}
        />
      ) : null}
    </div>
  );
}
