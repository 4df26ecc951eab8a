'use client';
import { useRouter } from 'next/navigation';
import { useState } from 'react';
import { INVITATION_DAYS, invitationLink } from '@/core/records/invitation';
import { GIVEN_ROLES, ROLES } from '@/core/records/roles';
import { FormAlert } from '@/ui/forms/form-alert';
import { OneOf } from '@/ui/forms/one-of';
import { postJson } from '@/ui/forms/post-json';
import { QrCode } from '@/ui/forms/qr-code';
import { useSetting } from '../use-setting';

type Given = (typeof GIVEN_ROLES)[number];

/** Makes a link for one person, shown once as text and as a QR code: nothing is sent from here. */
export function Invite({ open }: { open: { id: string; text: string }[] }) {
  const router = useRouter();
  const [role, setRole] = useState<Given>('driver');
  const [made, setMade] = useState<{ code: string; link: string } | null>(null);
  const [problem, setProblem] = useState<string | null>(null);
  const setting = useSetting();
  const make = async () => {
    const answer = await postJson('/api/v1/invitations', { role });
    setProblem(answer.ok ? null : answer.error);
    if (!answer.ok) return;
    const { code } = answer.body as { code: string };
    setMade({ code, link: invitationLink(location.origin, code) });
    router.refresh();
  };
  return (
    <>
      <p className="text-sm">
        A link or code for one person, once, within {INVITATION_DAYS} days. No mail is sent from here: show it, or send it yourself. Whoever has it can use it.
      </p>
      <OneOf label="They come as" value={role} choices={GIVEN_ROLES.map((r) => [r, ROLES[r].label] as const)} onChoose={setRole} />
      <p className="mt-1.5 text-[13px] text-ink-2">
        {ROLES[role].label}: {ROLES[role].may}.
      </p>
      <button type="button" className="plate mt-3" onClick={() => void make()}>
        {made ? 'Make another one' : 'Make an invitation'}
      </button>
      {made ? (
        <div role="status" className="mt-3 border-l-4 border-paint bg-picked px-3 py-2">
          <p className="text-sm font-semibold">The invitation. It is not shown again.</p>
          <p id="invitation-code" className="num my-2 select-all text-[22px] font-semibold tracking-normal">
            {made.code}
          </p>
          <p id="invitation-link" className="mb-2 select-all break-all text-[13.5px]">
            {made.link}
          </p>
          <QrCode text={made.link} label="The link of the invitation as a QR code" />
        </div>
      ) : null}
      {open.length > 0 ? (
        <ul aria-label="Open invitations" className="mt-3">
          {open.map((i) => (
            <li key={i.id} className="flex flex-wrap items-center gap-3 border-t border-rule-2 py-2 text-sm">
              <span className="grow">{i.text}</span>
              <button
                type="button"
                className="plate"
                aria-label={`End the invitation: ${i.text}`}
                disabled={setting.busy}
                onClick={() => void setting.send('/api/v1/invitations', { id: i.id }, 'DELETE')}
              >
                End
              </button>
            </li>
          ))}
        </ul>
      ) : null}
      <div className="mt-3">
        <FormAlert message={problem ?? setting.problem} />
      </div>
    </>
  );
}
