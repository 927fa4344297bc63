import type { Card, SourceKind } from '../api/client'

const today = () => new Date().toISOString().slice(0, 10)

/** The card with facts known in a way, as of today; what was noted beside them stays unless something else is. */
export function known(card: Card, pointers: string[], source: SourceKind, note?: string): Card {
  const sources = { ...card.sources }
  for (const pointer of pointers) sources[pointer] = { ...sources[pointer], ...(note === undefined ? {} : { note }), source, on: today() }
  return { ...card, sources }
}
