import { keepPreviousData, useQuery } from '@tanstack/react-query'
import { api, dataOf, type Card } from '../api/client'

/** Findings about a card as it stands now, complete or not. */
export function useFindings(card: Card) {
  const { data } = useQuery({
    queryKey: ['findings', JSON.stringify(card)],
    placeholderData: keepPreviousData,
    gcTime: 10_000,
    queryFn: async ({ signal }) => dataOf(await api.POST('/api/check', { params: { query: { draft: true } }, body: card, signal })),
  })
  return data?.findings ?? []
}
