import { keepPreviousData, useQuery } from '@tanstack/react-query'
import { useMemo } from 'react'
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
  return stateWords({ letter: newest.letter, changed: newest.changed.length > 0, proved: newest.proof?.lapsed.length === 0 })
}

/** How every card stands to its last revision, in words, by id; undefined until it is known. */
export function useCardStates(): ((id: string) => string) | undefined {
  const { data } = useQuery({ queryKey: ['card-states'], queryFn: async () => dataOf(await api.GET('/api/cards/states')) })
  return useMemo(() => {
    if (!data) return undefined
    const words = new Map(data.map((state) => [state.card, `${state.changed ? '' : 'revision '}${stateWords(state)}`]))
    return (id) => words.get(id) ?? 'draft'
  }, [data])
}

const stateWords = ({ letter, changed, proved }: { letter: string; changed: boolean; proved: boolean }) =>
  changed ? `draft after ${letter}` : `${letter}${proved ? ', proved' : ''}`
