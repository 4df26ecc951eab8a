import { faultLabel } from '../faults/fault-list';
import { meansLabel } from '../records/means-kind';
import { printClock } from '../units/zoned';
import type { Visit } from './derive';
import type { Placed } from './timeline/placed';

type Where = {
  site: { name: string; entrance: string | null; helpline: string | null } | null;
  network: { name: string; helpline: string | null } | null;
  stall: { name: string; otherName: string | null; evseUids: readonly string[]; connector: string } | null;
};
export type HelplineCard = { number: string | null; lines: [label: string, text: string][] };

const said = (e: Placed): string | null => {
  if (e.kind === 'fault') return [faultLabel(e.payload.code), e.payload.text].filter(Boolean).join(': ');
  if (e.kind === 'means_refused') return e.payload.fault ? faultLabel(e.payload.fault) : 'Refused';
  if (e.kind === 'claimed') return 'said it was charging';
  return null;
};

/** What to read aloud to the helpline: where one stands, what one did and when, and what the screen said last. */
export function helplineCard(v: Visit, where: Where): HelplineCard {
  const clock = (t: number) => printClock(t, v.zone);
  const lines: [string, string | null | undefined][] = [
    ['Site', where.site && [where.site.name, where.site.entrance].filter(Boolean).join(', ')],
    ['Network', where.network?.name],
    ['Stall', where.stall && [where.stall.name, where.stall.otherName && `“${where.stall.otherName}” in the app`].filter(Boolean).join(', ')],
    ['EVSE id', where.stall?.evseUids.join(', ')],
    ['Connector', where.stall?.connector],
    ['Called in the app', v.line.findLast((e): e is Placed & { kind: 'stall_named' } => e.kind === 'stall_named')?.payload.text],
  ];
  const plugged = v.line.findLast((e) => e.kind === 'plugged');
  const shown = v.line.findLast((e): e is Placed & { kind: 'means_shown' } => e.kind === 'means_shown');
  const trouble = v.line.findLast((e) => said(e) !== null);
  const power = v.attempts.findLast((a) => a.proof)?.proof;
  lines.push(
    ['Plugged in', plugged && clock(plugged.t)],
    ['Paid with', shown && `${meansLabel(shown.payload.meansKind)}, ${clock(shown.t)}`],
    ['Power seen', power ? clock(power.t) : 'none'],
    ['Last on the screen', trouble && `${said(trouble)}, ${clock(trouble.t)}`],
    ['Attempts', v.attempts.length > 0 ? String(v.attempts.length) : null],
  );
  return {
    number: where.site?.helpline ?? where.network?.helpline ?? null,
    lines: lines.filter((l): l is [string, string] => typeof l[1] === 'string' && l[1] !== ''),
  };
}
