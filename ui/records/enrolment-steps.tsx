import { stepsLeft } from '@/core/records/enrolment-steps';
import type { RecordFields } from '@/core/records/record-schema';
import { printSeen } from '@/core/units/zoned';

type Enrolment = RecordFields<'enrolment'>;

/** The steps of an enrolment: what to do at home, what at the stall, what shows that it worked. One press marks a step done today. */
export function EnrolmentSteps({
  enrolment: f,
  today,
  busy,
  onChange,
}: {
  enrolment: Enrolment;
  today: string;
  busy: boolean;
  onChange: (fields: Partial<Enrolment>) => void;
}) {
  const next = stepsLeft(f.steps)[0];
  const mark = (i: number) => onChange({ steps: f.steps.map((s, n) => (n === i ? { ...s, doneOn: s.doneOn === null ? today : null } : s)) });
  return (
    <>
      <ol>
        {f.steps.map((s, i) => (
          // biome-ignore lint/suspicious/noArrayIndexKey: steps have no id, and keep their places
          <li key={i} className={`flex items-center gap-3 border-b border-rule-2 px-3 py-2 ${s === next ? 'bg-picked' : ''}`}>
            <span className="num w-6 text-right text-[15px] font-bold">{i + 1}</span>
            <span className="min-w-0 grow">
              <span className="block text-[12.5px] text-ink-2">{s.where === 'home' ? 'At home' : 'At the stall'}</span>
              <b className="block text-[15px]">{s.act}</b>
              {s.shows ? <span className="block text-[13px] text-ink-2">It worked when: {s.shows}</span> : null}
            </span>
            <button
              type="button"
              disabled={busy}
              className={`plate shrink-0 ${s === next ? 'plate-next' : ''}`}
              aria-pressed={s.doneOn !== null}
              onClick={() => mark(i)}
            >
              {s.doneOn ? `Done ${printSeen(s.doneOn)}` : 'Done today'}
            </button>
          </li>
        ))}
      </ol>
      <div className="flex flex-wrap items-center gap-3 px-3 py-2.5">
        <p className="min-w-0 grow text-[14px]">
          <b>Enrolled</b> {f.enrolledOn ? printSeen(f.enrolledOn) : 'not yet'}. <b>Charging by it</b>{' '}
          {f.chargedOn ? `since ${printSeen(f.chargedOn)}` : 'not seen yet'}.
        </p>
        {f.enrolledOn === null ? (
          <button type="button" disabled={busy} className="plate" onClick={() => onChange({ enrolledOn: today })}>
            Enrolled today
          </button>
        ) : null}
        {f.chargedOn === null ? (
          <button type="button" disabled={busy} className="plate" onClick={() => onChange({ chargedOn: today })}>
            Charged by it today
          </button>
        ) : null}
      </div>
    </>
  );
}
