import { notFound } from 'next/navigation';
import { isId } from '@/core/units/id';
import { titledByRecord } from '@/server/http/page-title';
import { signedInHere } from '@/server/http/signed-in-here';
import { carCurve } from '@/server/power/car-curve';
import { CarCurveSheet } from '@/ui/power/car-curve-sheet';

export const generateMetadata = titledByRecord('car', 'id', 'The car’s curve', (name) => `Curve, ${name}`);

/** What a car takes along its battery: learnt, typed, and the points it rests on. */
export default async function CarCurvePage({ params }: { params: Promise<{ type: string; id: string }> }) {
  const who = await signedInHere();
  const { type, id } = await params;
  const found = type === 'car' && isId(id) ? await carCurve(who, id) : null;
  if (!found) notFound();
  return <CarCurveSheet {...found} />;
}
