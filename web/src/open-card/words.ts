/** A choice among words. */
export interface Choice {
  value: string
  label: string
}

/** Choices as a list, of what the server calls them. */
export const choicesOf = (words: Record<string, string> | undefined): Choice[] =>
  Object.entries(words ?? {}).map(([value, label]) => ({ value, label }))
