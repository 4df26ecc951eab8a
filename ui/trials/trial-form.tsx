'use client';
import { useRouter } from 'next/navigation';
import { useState } from 'react';
import { v7 } from 'uuid';
import { POWER_TIMES } from '@/core/figures/populations';
import { MEANS_KINDS } from '@/core/records/means-kind';
import { LABEL_MAX, MOST_ROUNDS, NAME_MAX, SIDE_LETTERS, TRIAL_KINDS, type TrialPlan, trialSchema } from '@/core/records/trial-schema';
import { bestVerdict, roundsFor } from '@/core/trials/best-verdict';
import { trialOrder } from '@/core/trials/trial-order';
import { TIME_RULES } from '@/core/visit/attempt-times';
import { FormAlert } from '../forms/form-alert';
import { FormField, fieldState } from '../forms/form-field';
import { OneOf } from '../forms/one-of';
import { PickOne } from '../forms/pick-one';
import { postJson } from '../forms/post-json';

/** What can be tried: `siteId` where it is known where. */
export type Triable = { id: string; name: string; siteId: string | null };
const KIND_WORDS = { stall: 'Stalls', network: 'Networks', means: 'Ways to pay' } as const;
const VERDICT = { clearly: 'At best: clearly.', probably: 'At best: probably.', cannot_tell: 'Too few to tell anything, even all one way.' } as const;
const MEANS: Triable[] = MEANS_KINDS.map((m) => ({ id: m.kind, name: m.label, siteId: null }));

/** Plans a head-to-head; says beforehand what its rounds can tell at best. @param seed by which the order is drawn */
export function TrialForm({ stalls, networks, seed }: { stalls: Triable[]; networks: Triable[]; seed: number }) {
  const router = useRouter();
  const [id] = useState(() => v7());
  const [kind, setKind] = useState<TrialPlan['kind']>('stall');
  const [keys, setKeys] = useState<string[]>(['', '']);
  const [rounds, setRounds] = useState('8');
  const [time, setTime] = useState<TrialPlan['time']>('handshake');
  const [mark, setMark] = useState<TrialPlan['mark']>('kW');
  const [observers, setObservers] = useState('1');
  const [equal, setEqual] = useState('');
  const [odd, setOdd] = useState<Record<string, string>>({});
  const [problem, setProblem] = useState<string | null>(null);
  const [busy, setBusy] = useState(false);
  const list = kind === 'stall' ? stalls : kind === 'network' ? networks : MEANS;
  const labels = keys.map((key) => (list.find((t) => t.id === key)?.name ?? '').slice(0, LABEL_MAX).trim());
  const planned = { rounds: Number(rounds), seed, sides: keys.map((key, i) => ({ key, label: labels[i] ?? '', siteId: null })) };
  const fits = Number.isInteger(planned.rounds) && planned.rounds >= 1 && planned.rounds <= MOST_ROUNDS;
  const best = fits ? bestVerdict(planned.rounds, keys.length) : null;
  const field = 'field !min-h-[44px] w-full';
  const plan = async () => {
    const parsed = trialSchema.safeParse({
      // Names of long places are cut to what a plan holds: nobody types them here.
      name: labels.filter(Boolean).join(' or ').slice(0, NAME_MAX).trim(),
      kind,
      sides: keys.map((key, i) => ({ key, label: labels[i] ?? '', siteId: list.find((t) => t.id === key)?.siteId ?? null })),
      rounds: Number(rounds),
      seed,
      time,
      mark,
      observers: Number(observers),
      heldEqual: equal,
    });
    if (!parsed.success) {
      // The name comes of the sides: what is missing there is said there. Of several problems of a field the first.
      const issues = parsed.error.issues.filter((x) => x.path[0] !== 'name').map((x) => [String(x.path[0]), x.message] as const);
      setOdd(Object.fromEntries(issues.reverse()));
      return;
    }
    setOdd({});
    setBusy(true);
    const answer = await postJson('/api/v1/outbox', {
      sentAt: Date.now(),
      items: [{ type: 'record', record: { type: 'trial', id, baseRev: 0, archived: false, fields: parsed.data } }],
    });
    const [result] = answer.ok ? (answer.body as { results: { status: string; reason?: string }[] }).results : [];
    setBusy(false);
    if (result?.status === 'taken' || result?.status === 'already') return router.push(`/compare/trials/${id}`);
    setProblem(result?.reason ?? (answer.ok ? null : answer.error) ?? 'The server did not take this.');
  };
  return (
    <form
      noValidate
      className="max-w-[560px]"
      onSubmit={(e) => {
        e.preventDefault();
        plan();
      }}
    >
      <OneOf
        label="What is held against each other"
        value={kind}
        choices={TRIAL_KINDS.map((k) => [k, KIND_WORDS[k]] as const)}
        onChoose={(k: TrialPlan['kind']) => {
          setKind(k);
          setKeys(keys.map(() => ''));
        }}
      />
      <div className="mt-3">
        {keys.map((key, i) => (
          // biome-ignore lint/suspicious/noArrayIndexKey: the sides keep their places
          <FormField key={i} id={`side-${i}`} label={`Side ${(SIDE_LETTERS[i] ?? '').toUpperCase()}`} {...(i === 0 && odd.sides ? { error: odd.sides } : {})}>
            <PickOne
              id={`side-${i}`}
              none="Choose"
              list={list}
              value={key}
              className={field}
              {...(i === 0 ? fieldState('side-0', odd.sides) : {})}
              onPick={(picked) => setKeys(keys.map((k, j) => (j === i ? picked : k)))}
            />
          </FormField>
        ))}
        <div className="mb-3 flex gap-2">
          {keys.length < SIDE_LETTERS.length ? (
            <button type="button" className="plate !min-h-[44px]" onClick={() => setKeys([...keys, ''])}>
              One more side
            </button>
          ) : null}
          {keys.length > 2 ? (
            <button type="button" className="plate !min-h-[44px]" onClick={() => setKeys(keys.slice(0, -1))}>
              One side less
            </button>
          ) : null}
        </div>
      </div>
      <FormField
        id="rounds"
        label="Rounds"
        hint={`${best ? VERDICT[best] : ''} All one way, ${roundsFor('probably', keys.length)} say probably, ${roundsFor('clearly', keys.length)} clearly. It may stop as soon as it is decided.`}
        {...(odd.rounds ? { error: odd.rounds } : {})}
      >
        <input id="rounds" inputMode="numeric" autoComplete="off" className={field} value={rounds} onChange={(e) => setRounds(e.target.value)} />
      </FormField>
      <div className="grid grid-cols-2 gap-x-3">
        <FormField id="trial-time" label="Timed from and to">
          <select id="trial-time" className={field} value={time} onChange={(e) => setTime(e.target.value as TrialPlan['time'])}>
            {POWER_TIMES.map((t) => (
              <option key={t} value={t}>
                {TIME_RULES[t].label}
              </option>
            ))}
          </select>
        </FormField>
        <FormField id="trial-mark" label="Ends with the first">
          <select id="trial-mark" className={field} value={mark} onChange={(e) => setMark(e.target.value as TrialPlan['mark'])}>
            {(['kW', 'kWh', 'A'] as const).map((m) => (
              <option key={m} value={m}>
                {m}
              </option>
            ))}
          </select>
        </FormField>
      </div>
      <p className="mb-3 text-[13px] text-ink-2 first-letter:uppercase">{TIME_RULES[time].rule}.</p>
      <OneOf
        label="Who watches"
        value={observers}
        choices={[
          ['1', 'One phone'],
          ['2', 'Two phones'],
        ]}
        onChoose={setObservers}
      />
      <div className="mt-3">
        <FormField
          id="trial-equal"
          label="What is held equal"
          hint="Car, battery, means, weather: as far as you can"
          {...(odd.heldEqual ? { error: odd.heldEqual } : {})}
        >
          <input id="trial-equal" autoComplete="off" maxLength={300} className={field} value={equal} onChange={(e) => setEqual(e.target.value)} />
        </FormField>
      </div>
      <p className="mb-3 text-[13px] text-ink-2">
        Order by lot within each round, seed {seed}
        {fits
          ? `: ${trialOrder({ ...planned, rounds: Math.min(3, planned.rounds) })
              .map((s) => `${s.round}${s.side.toUpperCase()}`)
              .join(', ')}${planned.rounds > 3 ? ' …' : ''}`
          : ''}
        .
      </p>
      <FormAlert message={problem} />
      <button type="submit" disabled={busy} className="plate plate-next !min-h-[48px]">
        Plan this trial
      </button>
    </form>
  );
}
