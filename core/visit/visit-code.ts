/** A visit's code, short enough to be read off a film: the random end of its id, `7C2F-09AB`. */
export function visitCode(visitId: string): string {
  const end = visitId.replaceAll('-', '').slice(-8).toUpperCase();
  return `${end.slice(0, 4)}-${end.slice(4)}`;
}
