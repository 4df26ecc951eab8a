import type { MileRecord, RecordItem } from '../records/record-schema';
import type { Payload } from './payloads';

type Bay = Payload<'survey'>['stalls'][number];
type State = NonNullable<MileRecord<'stall'>['fields']['state']>;

/** What a look at a bay says of its stall; `null` where it says nothing: a free bay may work or not. */
function stateOf(bay: Bay, stall: MileRecord<'stall'>): Pick<State, 'is' | 'kW'> | null {
  switch (bay.state) {
    case 'dark':
    case 'closed':
      // One that is still being built is dark as well.
      return stall.fields.state?.is === 'not yet open' ? null : { is: 'closed', kW: null };
    case 'derated':
      return bay.kW === undefined ? null : { is: 'derated', kW: bay.kW };
    case 'charging':
      // Somebody charges there: closed or not yet open it is not. How derated it is cannot be seen.
      return stall.fields.state && stall.fields.state.is !== 'derated' ? { is: 'working', kW: null } : null;
    default:
      return null;
  }
}

/**
 * The stalls' state as a survey of the bays saw it, for those of which the record says something else, or said it earlier.
 * @param today of the site, `YYYY-MM-DD` @param by who looked
 */
export function statesSeen(bays: readonly Bay[], stalls: readonly MileRecord<'stall'>[], today: string, by: string): RecordItem<'stall'>[] {
  return bays.flatMap((bay): RecordItem<'stall'>[] => {
    const stall = stalls.find((s) => s.id === bay.stallId);
    const state = stall && stateOf(bay, stall);
    const before = stall?.fields.state;
    if (!state || (before?.is === state.is && before.kW === state.kW && before.seenOn >= today)) return [];
    return [{ type: 'stall', id: stall.id, baseRev: stall.rev, archived: stall.archived, fields: { ...stall.fields, state: { ...state, seenOn: today, by } } }];
  });
}
