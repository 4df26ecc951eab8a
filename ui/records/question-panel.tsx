import type { PlaceQuestion } from '@/core/records/place-questions';

/** What looks like a slip: taken as offered, or said to be right. Nothing is refused. */
export function QuestionPanel({
  questions,
  onUse,
  onRight,
}: {
  questions: readonly PlaceQuestion[];
  onUse: (better: NonNullable<PlaceQuestion['better']>) => void;
  onRight: (question: PlaceQuestion) => void;
}) {
  if (questions.length === 0) return null;
  return (
    <div role="alert" className="mb-3 border-l-4 border-paint bg-picked px-3 py-2">
      {questions.map((q) => (
        <div key={q.text} className="mb-2">
          <p className="text-sm font-semibold">{q.text}</p>
          <div className="mt-2 flex flex-wrap gap-2">
            {q.better ? (
              <button type="button" className="plate" onClick={() => onUse(q.better ?? {})}>
                Use {Object.values(q.better).join(', ')}
              </button>
            ) : null}
            <button type="button" className="plate" onClick={() => onRight(q)}>
              It is right as typed
            </button>
          </div>
        </div>
      ))}
    </div>
  );
}
