/** What stands for Node's Buffer in the browser: the reader of picture data asks whether there is one, and works without. */
export const Buffer = undefined;
