import type { ReactNode } from 'react';
import { filterWords, groupsNamed } from '@/core/compare/filter-words';
import { readLedgerFilter, writeLedgerFilter } from '@/core/compare/ledger-filter';
import { mayRecord } from '@/core/records/roles';
import { membersOf } from '@/server/accounts/members';
import type { SignedIn } from '@/server/accounts/sessions';
import { figuresWaiting } from '@/server/figures/refresh';
import { namesOfGroups } from '@/server/records/group-names';
import { allNames, namesOf } from '@/server/records/names-for-forms';
import { ledgerPage } from '@/server/visits/ledger-query';
import { LedgerList } from '@/ui/ledger/ledger-list';
import { one, type Query } from '../../query';

/** Addresses of the visits beside one on the list that is shown. */
export type Around = { newer: string | null; older: string | null };
const NOTHING_AROUND: Around = { newer: null, older: null };

/**
 * The list beside a page. On a phone the list stands alone, and so does the page.
 * Without a chosen visit the page of the newest one on the list is open beside it.
 */
export async function LedgerBeside({
  who,
  query,
  selected,
  page: pageOf,
}: {
  who: SignedIn;
  query: Query;
  selected: string | null;
  page: (visitId: string, around: Around) => Promise<ReactNode>;
}) {
  const filter = readLedgerFilter((name) => one(query, name));
  const [page, networks, sites, cars, waiting, people, nameOf] = await Promise.all([
    ledgerPage(who, who.currency, filter, one(query, 'from')),
    allNames(who.householdId, 'network', { archived: false }),
    namesOf(who.householdId, 'site'),
    namesOf(who.householdId, 'car'),
    figuresWaiting(who.householdId),
    membersOf(who.householdId),
    namesOfGroups(who.householdId, groupsNamed(filter)),
  ]);
  const open = selected ?? page.rows[0]?.id ?? null;
  const at = page.rows.findIndex((r) => r.id === open);
  const address = writeLedgerFilter(filter);
  const from = one(query, 'from');
  const href = (id: string | undefined) => (id ? `/ledger/${id}${address}${from ? `${address ? '&' : '?'}from=${encodeURIComponent(from)}` : ''}` : null);
  const around = at < 0 ? NOTHING_AROUND : { newer: href(page.rows[at - 1]?.id), older: href(page.rows[at + 1]?.id) };
  const beside = open ? await pageOf(open, around) : null;
  return (
    <div className="flex grow flex-col lg:flex-row">
      <div className={selected ? 'hidden shrink-0 lg:flex' : 'flex min-w-0 grow lg:shrink-0 lg:grow-0'}>
        <LedgerList
          rows={page.rows}
          months={page.months}
          next={page.next}
          total={page.total}
          filter={filter}
          networks={networks}
          sites={sites}
          cars={cars}
          chosen={filterWords(filter, nameOf)}
          selected={open}
          first={one(query, 'from') === undefined}
          waiting={waiting}
          may={mayRecord(who.role)}
          people={people.map((p) => ({ id: p.personId, name: p.name }))}
        />
      </div>
      <div className={`min-w-0 grow ${selected ? '' : 'hidden lg:block'}`}>{beside}</div>
    </div>
  );
}
