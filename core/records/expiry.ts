/** `2025-10` has passed when the day is in a later month: cards hold to the end of theirs. */
export const hasExpired = (expires: string | null, today: string): boolean => expires !== null && expires < today.slice(0, 7);
/** Expires in this month or the next two. */
export const expiresSoon = (expires: string | null, today: string): boolean => {
  if (expires === null || hasExpired(expires, today)) return false;
  const months = (m: string) => Number(m.slice(0, 4)) * 12 + Number(m.slice(5, 7));
  return months(expires) - months(today) <= 2;
};
