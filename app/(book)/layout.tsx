import type { ReactNode } from 'react';
import { signedInHere } from '@/server/http/signed-in-here';
import { BookFoot } from '@/ui/road/book-foot';
import { RoadBar } from '@/ui/road/road-bar';
import { RoleHere } from '@/ui/road/role';
import { TapePaint } from '@/ui/tape/paint';
import { BookKeys } from './book-keys';
import { KeepInStep } from './keep-in-step';

/** Every page with data: behind the sign-in, between the road and the thumb bar. */
export default async function BookLayout({ children }: { children: ReactNode }) {
  const who = await signedInHere();
  return (
    <RoleHere value={who.role}>
      <div className="flex min-h-dvh flex-col">
        <a href="#content" className="plate sr-only focus:not-sr-only focus:absolute focus:z-50">
          Skip to the content
        </a>
        <RoadBar person={who.name} />
        <TapePaint />
        <KeepInStep
          who={{
            householdId: who.householdId,
            personId: who.personId,
            name: who.name,
            householdName: who.householdName,
            currency: who.currency,
            zone: who.zone,
          }}
        />
        <main id="content" className="flex grow flex-col">
          {children}
        </main>
        <BookFoot />
        <BookKeys />
      </div>
    </RoleHere>
  );
}
