import type { Metadata } from 'next';
import { notFound, redirect } from 'next/navigation';
import { isId } from '@/core/units/id';
import { whoAsks } from '@/server/http/session-cookie';
import { carCurve } from '@/server/power/car-curve';
import { CarCurveSheet } from '@/ui/power/car-curve-sheet';

export const metadata: Metadata = { title: 'The car’s curve' };

/** What a car takes along its battery: learnt, typed, and the points it rests on. */
export default async function CarCurvePage({ params }: { params: Promise<{ type: string; id: string }> }) {
  const who = await whoAsks();
  if (!who) redirect('/sign-in');
  const { type, id } = await params;
  const found = type === 'car' && isId(id) ? await carCurve(who, id) : null;
  if (!found) notFound();
  return <CarCurveSheet {...found} />;
}
