import { GARAGE_TYPES } from '@/core/records/garage-row';
import { TYPES } from '@/core/records/types/registry';
import { PLACES } from '../road/places';

export type FindAction = { label: string; line: string; href: string; text: string };

/** What can be done or opened from anywhere. */
export const ACTIONS: readonly FindAction[] = [
  { label: 'Pull in', line: 'Begin a visit', href: '/stall', text: 'Pull in begin start a visit stall' },
  { label: 'Type in a visit', line: 'Ledger', href: '/ledger/new', text: 'Type in add a visit afterwards from memory receipt' },
  { label: 'Bring in a spreadsheet', line: 'Ledger', href: '/ledger/import/sheet', text: 'Bring in a spreadsheet CSV import visits' },
  { label: 'Bills from a network', line: 'Ledger', href: '/ledger/import', text: 'Bills from a network CDR OCPI import' },
  { label: 'Take the ledger along', line: 'Settings', href: '/settings/export', text: 'Take the ledger along as CSV ZIP JSON export sheet out' },
  { label: 'Places from a file', line: 'Places', href: '/places/import', text: 'Places from a file GeoJSON OCPI Locations import sites' },
  { label: 'Programs', line: 'Settings', href: '/settings/programs', text: 'Programs tokens API OpenAPI access' },
  { label: 'Bring a ledger in', line: 'Settings', href: '/settings/restore', text: 'Bring a ledger in restore ZIP JSON import' },
  { label: 'Add a site', line: 'Places', href: '/places/new', text: 'Add a site new place' },
  ...PLACES.map((p) => ({ label: p.name, line: `Key ${p.key}`, href: p.href, text: `${p.name} open go to` })),
  ...GARAGE_TYPES.map((t) => ({ label: TYPES[t].many, line: 'Garage', href: `/garage/${t}`, text: `${TYPES[t].many} garage` })),
  ...GARAGE_TYPES.map((t) => ({
    label: `Add: ${TYPES[t].one.toLowerCase()}`,
    line: 'Garage',
    href: `/garage/${t}/new`,
    text: `Add ${TYPES[t].one} new`,
  })),
  { label: 'Settings', line: 'Day or night, single keys, sign out', href: '/settings', text: 'Settings day night sheet keys sign out people household' },
  { label: 'Day or night', line: 'Settings', href: '/settings#sheet', text: 'Day night dark light sheet settings' },
  { label: 'Single keys on or off', line: 'Settings', href: '/settings#keys', text: 'Single keys shortcuts on off settings' },
  { label: 'Sign out', line: 'Settings', href: '/settings#sign-out', text: 'Sign out leave' },
  { label: 'Changes to settle', line: 'Settings', href: '/settings#settle', text: 'Changes to settle conflicts difference refused' },
];
