import { type Counted, type Degree, degreeOf, logShareFactor } from '../evidence/share-evidence';
import { countedText } from './called';
import { outagesOnce, type Start } from './start';

/** Whether failures at a stall with a car are rather the stall's or the car's: this stall with other cars, this car elsewhere, each by its factor. */
export type StallOrCar = {
  carId: string;
  here: Counted;
  /** Other cars at this stall, and how surely they start more often. */
  others: Counted;
  car: Degree;
  /** This car at other stalls, and how surely it starts more often there. */
  elsewhere: Counted;
  stall: Degree;
};

const count = (starts: readonly Start[]): Counted => ({ yes: starts.filter((s) => s.yes).length, n: starts.length });
const share = ({ yes, n }: Counted) => (n === 0 ? 0 : yes / n);
/** Of fewer visits on either side nothing is said: one failure is no pattern. */
const LEAST = 3;
/** How surely the first starts more often than the second; two questions are asked, so each needs twice as much. */
const surer = (more: Counted, less: Counted): Degree =>
  more.n < LEAST || less.n < LEAST || share(more) <= share(less) ? 'cannot_tell' : degreeOf(logShareFactor([more, less]), 2);

/**
 * For each car that failed to start at a stall. Failures of a stall before it is seen working again are one.
 * @param starts of the household, each with its car
 */
export function stallOrCar(starts: readonly (Start & { carId: string | null })[], stallId: string): StallOrCar[] {
  const once = outagesOnce(starts).starts as (Start & { carId: string | null })[];
  const at = once.filter((s) => s.stallId === stallId);
  const failed = [...new Set(at.flatMap((s) => (!s.yes && s.carId ? [s.carId] : [])))].sort();
  return failed.map((carId) => {
    const here = count(at.filter((s) => s.carId === carId));
    const others = count(at.filter((s) => s.carId !== carId && s.carId !== null));
    const elsewhere = count(once.filter((s) => s.carId === carId && s.stallId !== stallId));
    return { carId, here, others, car: surer(others, here), elsewhere, stall: surer(elsewhere, here) };
  });
}

/** In words, no surer than it is. */
export function stallOrCarText(x: StallOrCar, car: string): string {
  const counts = `${car} started here at ${countedText(x.here)}; other cars here ${countedText(x.others)}, ${car} elsewhere ${countedText(x.elsewhere)}.`;
  const both = x.car !== 'cannot_tell' && x.stall !== 'cannot_tell';
  const said = both
    ? `It is ${x.car === 'clearly' && x.stall === 'clearly' ? 'clearly' : 'probably'} the two together.`
    : x.stall !== 'cannot_tell'
      ? `It is ${x.stall} the stall.`
      : x.car !== 'cannot_tell'
        ? `It is ${x.car} the car.`
        : 'Cannot tell yet whether it is the stall or the car.';
  return `${counts} ${said}`;
}
