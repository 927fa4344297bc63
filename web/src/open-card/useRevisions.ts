import { keepPreviousData, useQuery } from '@tanstack/react-query'
import { api, dataOf } from '../api/client'

/** The revisions of a card, the newest first, as they stand against the draft. */
export function useRevisions(id: string, savedAt: string) {
  const { data } = useQuery({
    queryKey: ['revisions', id, savedAt],
    placeholderData: keepPreviousData,
    queryFn: async () => dataOf(await api.GET('/api/cards/{id}/revisions', { params: { path: { id } } })),
  })
  return data
}

/** What the title block says of a card: its letter where the draft is that revision, and whether that is proved. */
export function useRevisionState(id: string, savedAt: string): string {
  const newest = useRevisions(id, savedAt)?.[0]
  if (!newest) return 'draft'
  const proved = newest.proof && newest.proof.lapsed.length === 0
  return newest.changed.length > 0 ? `draft after ${newest.letter}` : `${newest.letter}${proved ? ', proved' : ''}`
}
