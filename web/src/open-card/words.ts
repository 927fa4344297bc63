/** A choice among words. */
export interface Choice {
  value: string
  label: string
}

/** What a choice of yes or no stands for. */
export const yesNo: Record<string, boolean | undefined> = { true: true, false: false }

/** Choices as a list, of what the server calls them. */
export const choicesOf = (words: Record<string, string> | undefined): Choice[] =>
  Object.entries(words ?? {}).map(([value, label]) => ({ value, label }))
