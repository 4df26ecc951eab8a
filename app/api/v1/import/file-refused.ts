import { noStore } from '@/server/http/answer';

/** What can be read and is too much for once. */
const TOO_MUCH = new Set(['too_many', 'too_many_rows', 'too_many_visits']);

/** The answer to a file of which nothing was taken: the reason's code stands in `refused`, with where it is, and is put into words by the page. */
export const fileRefused = (refused: { code: string }): Response =>
  Response.json(
    { error: TOO_MUCH.has(refused.code) ? 'The file cannot be taken in at once.' : 'The file cannot be read.', refused },
    { status: 422, headers: noStore },
  );
