'use client';
import { createContext, type ReactNode, useContext } from 'react';
import { type MemberRole, mayRecord } from '@/core/records/roles';

const Role = createContext<MemberRole>('reader');
/** As what somebody is here, for all that is shown inside. */
export const RoleHere = Role.Provider;

/** What only those are shown who may record and change; the server refuses the others whatever is shown. */
export function ForDrivers({ children }: { children: ReactNode }) {
  return mayRecord(useContext(Role)) ? children : null;
}
