import { problem } from '@/server/api/problem';

const none = (): Response => problem(404, 'There is no such address below /api/v1.');

/** What is not there is said as every refusal is. */
export { none as DELETE, none as GET, none as PATCH, none as POST, none as PUT };
