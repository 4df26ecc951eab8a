/** The rest of the pads after a tap: whether it lasts, and its end on the page's clock in ms. */
export type Rest = { now: boolean; until: number };

export const noRest: Rest = { now: false, until: 0 };

/**
 * Whether a touch counts. Told by the time of the touch, not of its handler: a slow phone hands
 * on the second of a wet double touch when the rest has long run out.
 * @param at when the finger went down, ms on the page's clock
 */
export const takesTouch = (rest: Rest, at: number): boolean => !rest.now && at >= rest.until;
