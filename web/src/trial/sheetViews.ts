/** Which view fills the sheet; by the keys 1 2 3, and all of them together. */
export const sheetViews = ['all', 'plan', 'front', 'space'] as const
export type SheetView = (typeof sheetViews)[number]
