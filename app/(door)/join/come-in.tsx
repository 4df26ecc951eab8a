'use client';
import { useEffect, useState } from 'react';
import { askWho } from '@/client/store/who';
import { codeForm, invitedForm, signInForm } from '@/core/records/account-forms';
import { type MemberRole, ROLES } from '@/core/records/roles';
import { FormAlert } from '@/ui/forms/form-alert';
import { FormField, fieldState } from '@/ui/forms/form-field';
import { postJson } from '@/ui/forms/post-json';
import { useCheckedForm } from '@/ui/forms/use-checked-form';
import { EmailAndPassword } from '../email-and-password';

type Found = { code: string; householdName: string; role: MemberRole; by: string };
const enter = async () => {
  await askWho();
  location.assign('/');
};

/** An invitation: what it leads to, then the way in. @param me who is signed in here */
export function ComeIn({ me }: { me: string | null }) {
  const [found, setFound] = useState<Found | null>(null);
  if (!found) return <Code onFound={setFound} />;
  return (
    <>
      <h1 className="text-2xl">{found.householdName}</h1>
      <p className="mt-2">
        {found.by} invites you. You come as {ROLES[found.role].label.toLowerCase()}: {ROLES[found.role].may}.
      </p>
      <p className="mt-2 text-sm text-ink-2">Everybody in a household sees where and when each of them charged.</p>
      {me ? <AsMyself me={me} code={found.code} /> : <WithAnAccount code={found.code} />}
    </>
  );
}

function Code({ onFound }: { onFound: (found: Found) => void }) {
  const [code, setCode] = useState('');
  const [problem, setProblem] = useState<string | undefined>();
  const look = async (typed: string) => {
    const checked = codeForm.safeParse({ code: typed.trim() });
    if (!checked.success) return setProblem('Enter the code');
    const answer = await postJson('/api/v1/invitations/look', { code: typed });
    if (answer.ok) onFound({ code: typed, ...(answer.body as Omit<Found, 'code'>) });
    else setProblem(answer.fields.code ?? answer.error ?? undefined);
  };
  // A link carries the code behind its #, which no server sees.
  // biome-ignore lint/correctness/useExhaustiveDependencies: once, when the page opens
  useEffect(() => {
    const linked = location.hash.slice(1);
    if (!linked) return;
    setCode(linked);
    void look(linked);
  }, []);
  return (
    <>
      <h1 className="text-2xl">An invitation</h1>
      <p className="mt-2 text-sm text-ink-2">Somebody who owns a household here gave you a code of twelve signs, or a link that holds it.</p>
      <form
        noValidate
        className="mt-4"
        onSubmit={(e) => {
          e.preventDefault();
          void look(code);
        }}
      >
        <FormField id="code" label="Code" error={problem}>
          <input
            type="text"
            autoComplete="off"
            autoCapitalize="characters"
            value={code}
            onChange={(e) => setCode(e.target.value)}
            {...fieldState('code', problem)}
          />
        </FormField>
        <button type="submit" className="plate plate-next !min-h-[52px] w-full text-[17px]">
          Look
        </button>
      </form>
    </>
  );
}

function AsMyself({ me, code }: { me: string; code: string }) {
  const [problem, setProblem] = useState<string | null>(null);
  const come = async () => {
    const answer = await postJson('/api/v1/members', { code });
    if (answer.ok) return enter();
    setProblem(answer.fields.code ?? answer.error);
  };
  return (
    <div className="mt-5">
      <button type="button" className="plate plate-next !min-h-[52px] w-full text-[17px]" onClick={() => void come()}>
        Come in as {me}
      </button>
      <p className="my-2 text-sm text-ink-2">The households you belong to already stay yours; you go from one to the other in the settings.</p>
      <FormAlert message={problem} />
    </div>
  );
}

/** Two ways for who is not signed in: a new account, or the one they have. */
function WithAnAccount({ code }: { code: string }) {
  const [have, setHave] = useState(false);
  return (
    <>
      {have ? <SignInAndCome code={code} /> : <NewAccount code={code} />}
      <p className="mt-5 text-sm">
        <button type="button" className="min-h-[24px] font-semibold text-shake underline" onClick={() => setHave(!have)}>
          {have ? 'Make a new account instead' : 'I have an account'}
        </button>
      </p>
    </>
  );
}

function NewAccount({ code }: { code: string }) {
  // The code goes with the form: account and belonging are made at once, or neither.
  const { register, submit, busy, message, rootMessage } = useCheckedForm(
    '/api/v1/members',
    invitedForm,
    { name: '', email: '', password: '' },
    enter,
    'POST',
    { code },
  );
  return (
    <form onSubmit={submit} noValidate className="mt-5">
      <FormField id="name" label="Your name" error={message('name')}>
        <input type="text" autoComplete="name" {...register('name')} {...fieldState('name', message('name'))} />
      </FormField>
      <EmailAndPassword email={register('email')} password={register('password')} message={message} made />
      <FormAlert message={rootMessage} />
      <button type="submit" className="plate plate-next !min-h-[52px] w-full text-[17px]" disabled={busy}>
        Make the account and come in
      </button>
    </form>
  );
}

function SignInAndCome({ code }: { code: string }) {
  const [problem, setProblem] = useState<string | null>(null);
  const { register, submit, busy, message, rootMessage } = useCheckedForm('/api/v1/session', signInForm, { email: '', password: '' }, async () => {
    const answer = await postJson('/api/v1/members', { code });
    if (answer.ok) return enter();
    setProblem(answer.fields.code ?? answer.error);
  });
  return (
    <form onSubmit={submit} noValidate className="mt-5">
      <EmailAndPassword email={register('email')} password={register('password')} message={message} />
      <FormAlert message={problem ?? rootMessage} />
      <button type="submit" className="plate plate-next !min-h-[52px] w-full text-[17px]" disabled={busy}>
        Sign in and come in
      </button>
    </form>
  );
}
