import { useQuery } from '@tanstack/react-query'
import { useMemo } from 'react'
import { api, dataOf, type Card } from '../api/client'
import { documents } from '../open-document/documents'
import { withIds } from '../open-document/members'
import { named } from '../open-document/redline'

/** What a card can be held against, as an address says it: `revision.B`, `card.ID`, `pattern.ID`. */
export type Against = string

/** The other card; members of a revision keep their identity, those of other cards are known by their names. */
export function useOther(id: string, against: Against, mine: Card) {
  const [kind, name] = [against.slice(0, against.indexOf('.')), against.slice(against.indexOf('.') + 1)]
  const { data, error } = useQuery({
    queryKey: ['held-against', id, against],
    enabled: against !== '',
    staleTime: 0,
    retry: false,
    queryFn: async (): Promise<Card> => {
      if (kind === 'revision')
        return dataOf(await api.GET('/api/cards/{id}/revisions/{letter}', { params: { path: { id, letter: name } } }))
      if (kind === 'pattern') return dataOf(await api.GET('/api/patterns/{id}/card', { params: { path: { id: name } } }))
      return (await documents.read('cards', name)).document
    },
  })
  const other = useMemo(() => {
    if (!data) return undefined
    return kind === 'revision' ? withIds(data, mine) : named(withIds(data), mine)
  }, [data, kind, mine])
  return { other, error }
}
