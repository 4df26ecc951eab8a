/** The first letters of a text, as many as a field may have: whole characters, as the schemas count them. */
export const firstLetters = (text: string, most: number): string => [...text].slice(0, most).join('');
