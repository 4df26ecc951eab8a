import Link from 'next/link';

/** Which visits are in what stands below, where it is not all of them: a share without its condition says something else. @param all where all of them are */
export function OnlyVisits({ chosen, all }: { chosen: string; all: string }) {
  if (chosen === '') return null;
  return (
    <p className="mb-2.5 text-sm text-ink-2">
      Only visits {chosen}.{' '}
      <Link prefetch={false} href={all} className="no-print font-semibold text-shake underline">
        All visits
      </Link>
    </p>
  );
}

/** What a figure is called that is taken along. */
export const nameOfFigure = (name: string, chosen: string): string => (chosen === '' ? name : `${name}, only visits ${chosen}`);
