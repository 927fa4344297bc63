/** Height of a line in the editor and beside it, px; the style sheet has the same. */
export const lineHeight = 22

/** Room above the first line, px. */
export const linePadding = 4
