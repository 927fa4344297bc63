import { useQuery } from '@tanstack/react-query'
import { api, dataOf, type Card, type PatternHead } from '../api/client'

type Origin = NonNullable<Card['pattern']>

/** Patterns of all sources. */
export const usePatterns = () =>
  useQuery({ queryKey: ['patterns'], staleTime: 60_000, queryFn: async () => dataOf(await api.GET('/api/patterns')) })

/** A card to be made from a pattern, of its newest version or of another. */
export const cardOfPattern = async (id: string, version?: number) =>
  dataOf(await api.GET('/api/patterns/{id}/card', { params: { path: { id }, query: version === undefined ? {} : { version } } }))

/** The pattern that a card was made from; undefined where it is not here. */
export const patternOf = (origin: Origin | null | undefined, patterns: readonly PatternHead[] | undefined) =>
  origin ? patterns?.find(({ id }) => id === origin.id) : undefined

/** The pattern where its maker offers a newer version than a card remembers. */
export function newerThan(origin: Origin | null | undefined, patterns: readonly PatternHead[] | undefined): PatternHead | undefined {
  const head = patternOf(origin, patterns)
  return head && origin && head.listed && head.version > origin.version ? head : undefined
}

/** Whether a pattern comes with the application: its id names no source. */
export const isShipped = ({ id }: PatternHead) => !id.includes(':')

/** A version of a pattern as a redline names it. */
export const versionState = (id: string, version: number) => `pattern.${id}@${version}`

/** The address of a card's redline against the newer version: what its maker has changed since the one that the card remembers. */
export const redlineAgainst = (card: string, origin: Origin, newer: PatternHead) =>
  `/cards/${card}/redline?${new URLSearchParams({
    with: versionState(newer.id, newer.version),
    since: versionState(origin.id, origin.version),
    only: 'there',
  }).toString()}`
