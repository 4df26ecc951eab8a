/** A text as it begins a sentence or a list. */
export const upperFirst = (text: string): string => text.slice(0, 1).toUpperCase() + text.slice(1);
/** A sentence as it goes on after a few words before it. */
export const lowerFirst = (text: string): string => text.slice(0, 1).toLowerCase() + text.slice(1);
