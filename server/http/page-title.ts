import type { Metadata } from 'next';
import type { RecordType } from '@/core/records/record-types';
import { isId } from '@/core/units/id';
import type { SignedIn } from '../accounts/sessions';
import { readRecord } from '../records/record-tables';
import { whoAsks } from './session-cookie';

/**
 * What a page is called by what it shows, so that tabs and a screen reader tell one visit or site from another (WCAG 2.2, 2.4.2).
 * @param nameOf `null` where it is not here @param other what the page is called then, and where nobody is signed in
 */
export async function titled(
  other: string,
  nameOf: (who: SignedIn) => Promise<string | null>,
  say: (name: string) => string = (name) => name,
): Promise<Metadata> {
  const who = await whoAsks();
  const name = who && (await nameOf(who));
  return { title: name === null ? other : say(name) };
}

/** The name of a record of the household; `null` where it is not here, or has none. */
export async function nameOfRecord(who: SignedIn, type: RecordType, id: string): Promise<string | null> {
  const record = isId(id) ? await readRecord(who.householdId, type, id) : null;
  return record && 'name' in record.fields ? (record.fields.name ?? null) : null;
}

/** [titled] for a page that shows one record. @param param the part of its address that is the record's id */
export const titledByRecord =
  <P extends string>(type: RecordType, param: P, other: string, say?: (name: string) => string) =>
  async ({ params }: { params: Promise<Record<P, string>> }): Promise<Metadata> => {
    const id = (await params)[param];
    return titled(other, (who) => nameOfRecord(who, type, id), say);
  };
