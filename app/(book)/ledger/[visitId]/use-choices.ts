'use client';
import { useEffect, useState } from 'react';
import { householdRecords } from '@/client/store/household-records';
import type { Records } from '@/client/store/records-by-type';
import { recordChoices } from '@/ui/forms/record-choices';

/** What an event can be made to refer to, from this device's copy of places and garage. */
export function useChoices(siteId: string | null) {
  const [records, setRecords] = useState<Records | null>(null);
  useEffect(() => {
    let gone = false;
    void householdRecords((r) => {
      if (!gone) setRecords(r);
    }).catch(() => {});
    return () => {
      gone = true;
    };
  }, []);
  return records ? recordChoices(records, siteId) : {};
}
